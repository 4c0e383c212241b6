import { Color, GLSL3, ShaderMaterial, Vector3 } from 'three';
import type { Vec3 } from '@helb/core';

/** Faces painted by a figure in bands: how thick the wall is behind, how far they lean. */
export interface Painting {
  /** Square to this it is 0: by how much faces lean, as the sine. Without it by the attribute `figure` of the geometry. */
  readonly towards?: Vec3;
  /** Where one band ends and the next begins, rising: three at most. */
  readonly limits: readonly number[];
  /** A colour a band, one more than limits. */
  readonly colours: readonly string[];
  /** The band that is hatched: what asks for attention, not by its colour alone. */
  readonly hatched: number;
}

const MOST_BANDS = 4;

const VERTEX = `
  #include <clipping_planes_pars_vertex>
  in float figure;
  uniform vec3 towards;
  uniform bool leaning;
  out float value;
  out vec3 facing;
  void main() {
    vec3 at = position;
    value = leaning ? dot(normalize(normal), towards) : figure;
    facing = normalMatrix * normal;
    vec4 mvPosition = modelViewMatrix * vec4(at, 1.0);
    gl_Position = projectionMatrix * mvPosition;
    #include <clipping_planes_vertex>
  }
`;
const FRAGMENT = `
  #include <clipping_planes_pars_fragment>
  in float value;
  in vec3 facing;
  uniform float limits[${MOST_BANDS}];
  uniform vec3 colours[${MOST_BANDS}];
  uniform int bands;
  uniform int hatched;
  uniform vec3 ink;
  out vec4 paint;
  void main() {
    #include <clipping_planes_fragment>
    int band = 0;
    for (int k = 0; k < ${MOST_BANDS} - 1; k++) if (k < bands - 1 && value >= limits[k]) band = k + 1;
    vec3 colour = colours[0];
    for (int k = 1; k < ${MOST_BANDS}; k++) if (k == band) colour = colours[k];
    if (band == hatched && mod(gl_FragCoord.x + gl_FragCoord.y, 7.0) < 1.6) colour = mix(colour, ink, 0.55);
    float light = 0.72 + 0.28 * abs(normalize(facing).z);
    paint = vec4(colour * light, 1.0);
  }
`;

/** The material that paints so. */
export function paintOf({ towards, limits, colours, hatched }: Painting, ink: string): ShaderMaterial {
  // as they are to be seen: nothing converts what a shader of our own gives out
  const seen = (colour: string) => {
    const { r, g, b } = new Color().setStyle(colour, 'srgb-linear');
    return new Vector3(r, g, b);
  };
  const filled = [...colours, ...Array<string>(MOST_BANDS).fill('#000')].slice(0, MOST_BANDS);
  return new ShaderMaterial({
    glslVersion: GLSL3,
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    clipping: true,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
    uniforms: {
      towards: { value: new Vector3(...(towards ?? [0, 0, 1])) },
      leaning: { value: towards !== undefined },
      limits: { value: [...limits, ...Array<number>(MOST_BANDS).fill(0)].slice(0, MOST_BANDS) },
      colours: { value: filled.map(seen) },
      bands: { value: colours.length },
      hatched: { value: hatched },
      ink: { value: seen(ink) },
    },
  });
}
