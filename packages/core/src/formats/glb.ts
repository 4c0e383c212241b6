import type { mat4 } from '@gltf-transform/core';
import type { RigidTransform } from '../math/index.ts';
import type { Solid } from './solids.ts';

/** Metres, and y upwards: what is drawn in millimetres with z upwards is shrunk and laid over. */
const TO_SPACE: mat4 = [0.001, 0, 0, 0, 0, 0, -0.001, 0, 0, 0.001, 0, 0, 0, 0, 0, 1];

/**
 * A glTF 2.0 file in its binary form (ISO/IEC 12113): a mesh for each body with the colour of its part, a node for each
 * place where a part stands.
 */
export async function writeGlb(title: string, solids: readonly Solid[]): Promise<Uint8Array> {
  // loaded where it is asked for: few sessions write one
  const { ColorUtils, Document, WebIO } = await import('@gltf-transform/core');
  const document = new Document();
  document.getRoot().getAsset().generator = 'Helb';
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC3' | 'SCALAR', data: Float32Array | Uint32Array) =>
    document.createAccessor().setType(type).setArray(data.slice()).setBuffer(buffer);
  const whole = document.createNode(title).setMatrix(TO_SPACE);
  for (const { name, colour, meshes, places } of solids) {
    const material = document
      .createMaterial(name)
      .setBaseColorFactor([...ColorUtils.hexToFactor(parseInt(colour.slice(1), 16), [0, 0, 0]), 1] as never)
      .setMetallicFactor(0)
      .setRoughnessFactor(0.8);
    const mesh = document.createMesh(name);
    for (const { positions, normals, triangles } of meshes)
      mesh.addPrimitive(
        document
          .createPrimitive()
          .setAttribute('POSITION', accessor('VEC3', positions))
          .setAttribute('NORMAL', accessor('VEC3', normals))
          .setIndices(accessor('SCALAR', triangles))
          .setMaterial(material),
      );
    for (const { name: placed, at } of places)
      whole.addChild(document.createNode(placed).setMesh(mesh).setMatrix(columns(at)));
  }
  document.createScene(title).addChild(whole);
  return new WebIO().writeBinary(document);
}

const columns = (at: RigidTransform): mat4 =>
  [0, 1, 2, 3].flatMap((k) => [...at.map((row) => row[k as 0]), k === 3 ? 1 : 0]) as mat4;
