import CameraControls from 'camera-controls';
import {
  Box3,
  Matrix4,
  OrthographicCamera,
  Quaternion,
  Raycaster,
  Sphere,
  Spherical,
  Vector2,
  Vector3,
  Vector4,
  type WebGLRenderer,
} from 'three';
import { boxCorners, dot3, sub3, type Box3 as Box, type Frame, type Vec2, type Vec3 } from '@helb/core';
import type { Screen } from './nearness.ts';
import { eyeOf, turnOf, type Turn, type ViewName } from './turns.ts';

CameraControls.install({
  THREE: { Box3, Matrix4, Quaternion, Raycaster, Sphere, Spherical, Vector2, Vector3, Vector4 },
});

const DEG = Math.PI / 180;
/** Room round what is fitted into a view, as a share of it. */
const MARGIN = 1.12;

/** An orthographic camera that is turned, shifted and zoomed by hand; drawings have no vanishing points. */
export class ViewCamera {
  readonly camera = new OrthographicCamera(-100, 100, 100, -100, -5000, 10000);
  readonly controls: CameraControls;
  private readonly element: HTMLElement;
  private height = 120;

  /** @param isSmooth does it glide to where it goes? else it is there at once */
  constructor(
    element: HTMLElement,
    private readonly isSmooth: boolean,
  ) {
    this.element = element;
    this.camera.up.set(0, 0, 1);
    // any distance will do, but none would leave no direction to look in
    this.camera.position.set(0, -1000, 0);
    this.controls = new CameraControls(this.camera, element);
    const { controls } = this;
    const { ACTION } = CameraControls;
    controls.smoothTime = 0.04;
    controls.draggingSmoothTime = 0;
    controls.dollyToCursor = true;
    controls.minZoom = 0.002;
    controls.maxZoom = 2000;
    controls.mouseButtons = { left: ACTION.NONE, middle: ACTION.ROTATE, right: ACTION.ROTATE, wheel: ACTION.ZOOM };
    controls.touches = { one: ACTION.TOUCH_ROTATE, two: ACTION.TOUCH_ZOOM_TRUCK, three: ACTION.TOUCH_TRUCK };
    // Shift turns orbiting into shifting the paper
    element.addEventListener(
      'pointerdown',
      (event) => {
        const action = event.shiftKey ? ACTION.TRUCK : ACTION.ROTATE;
        controls.mouseButtons.middle = controls.mouseButtons.right = action;
      },
      { capture: true },
    );
    void this.look('Corner', false);
  }

  look(view: ViewName, animate = true): Promise<unknown> {
    return this.controls.rotateTo(...turnOf(view), animate && this.isSmooth);
  }

  get turn(): Turn {
    return [this.controls.azimuthAngle, this.controls.polarAngle];
  }

  turnTo([azimuth, polar]: Turn): Promise<unknown> {
    return this.controls.rotateTo(azimuth, polar, this.isSmooth);
  }

  /** Turns square on the nearest of the six sides. */
  squareOnNearest(): Promise<unknown> {
    const eye = this.camera.getWorldDirection(new Vector3()).negate();
    const axes = eye.toArray().map(Math.abs);
    const k = axes.indexOf(Math.max(...axes));
    const z = [0, 0, 0].map((_, c) => (c === k ? Math.sign(eye.getComponent(k)) : 0)) as unknown as Vec3;
    return this.squareOn({ x: [1, 0, 0], z });
  }

  /** Turns, or with `shift` moves the paper, by keys: steps to the right and up. */
  nudge(right: number, up: number, shift: boolean): void {
    const { pixel, controls } = this;
    if (shift) void controls.truck(-40 * pixel * right, 40 * pixel * up, this.isSmooth);
    else void controls.rotate(-15 * DEG * right, 15 * DEG * up, this.isSmooth);
  }

  zoomBy(factor: number): void {
    void this.controls.zoomTo(this.camera.zoom * factor, this.isSmooth);
  }

  /** Turns square on a plane, its x to the right. */
  squareOn(frame: Pick<Frame, 'x' | 'z'>): Promise<unknown> {
    const [x, y, z] = frame.z;
    const polar = Math.acos(Math.max(-1, Math.min(1, z)));
    const flat = Math.hypot(x, y) > 1e-9;
    const azimuth = flat ? Math.atan2(x, -y) : Math.atan2(frame.x[1], frame.x[0]);
    return this.controls.rotateTo(azimuth, polar, this.isSmooth);
  }

  /** Fits a box into the view with a margin. */
  async fit(low: Vec3, high: Vec3, animate = true): Promise<void> {
    const box = new Box3(new Vector3(...low), new Vector3(...high));
    const sphere = box.getBoundingSphere(new Sphere());
    const radius = Math.max(sphere.radius, 1);
    const { width, height } = this.size;
    const zoom = (this.height / (2 * radius * MARGIN)) * Math.min(1, width / height);
    const glide = animate && this.isSmooth;
    await Promise.all([
      // moveTo keeps the direction of sight; setTarget would turn the view
      this.controls.moveTo(sphere.center.x, sphere.center.y, sphere.center.z, glide),
      this.controls.setFocalOffset(0, 0, 0, glide),
      this.controls.zoomTo(zoom, glide),
    ]);
  }

  resize(renderer: WebGLRenderer): void {
    const { width, height } = this.size;
    renderer.setSize(width, height, false);
    const aspect = width / height;
    Object.assign(this.camera, {
      left: (-this.height * aspect) / 2,
      right: (this.height * aspect) / 2,
      top: this.height / 2,
      bottom: -this.height / 2,
    });
    this.camera.updateProjectionMatrix();
  }

  /**
   * A camera that looks at a box from the corner, whatever this one looks at: for a picture in the middle of what is drawn.
   * @param aspect of the picture, width by height
   */
  portrait(low: Vec3, high: Vec3, aspect: number): OrthographicCamera {
    const sphere = new Box3(new Vector3(...low), new Vector3(...high)).getBoundingSphere(new Sphere());
    const { width, height } = this.size;
    const drawn = width / height;
    const tall = (Math.max(sphere.radius, 1) * MARGIN) / Math.min(1, aspect);
    // the picture is cut out of the middle, as wide or as tall as what is drawn
    const up = drawn <= aspect ? (tall * aspect) / drawn : tall;
    const camera = new OrthographicCamera(-up * drawn, up * drawn, up, -up, -5000, 10000);
    camera.up.set(0, 0, 1);
    const [x, y, z] = eyeOf(turnOf('Corner'));
    camera.position.copy(sphere.center).add(new Vector3(x, y, z).multiplyScalar(1000));
    camera.lookAt(sphere.center);
    camera.updateMatrixWorld();
    return camera;
  }

  /** The direction in which is looked. */
  get sight(): Vec3 {
    return this.camera.getWorldDirection(new Vector3()).toArray();
  }

  /** Millimetres for a pixel. */
  get pixel(): number {
    return this.height / this.camera.zoom / this.size.height;
  }

  /** Is all of a box in the view? */
  shows(box: Box): boolean {
    const { width, height } = this.size;
    return boxCorners(box)
      .map((corner) => this.toScreen(corner))
      .every(([x, y]) => x >= 0 && x <= width && y >= 0 && y <= height);
  }

  get size() {
    return { width: this.element.clientWidth || 1, height: this.element.clientHeight || 1 };
  }

  /** Where a place in space is on the screen, px from the upper left of the view. Of many places ask `screen` once. */
  toScreen(place: Vec3): Vec2 {
    return this.screen.toScreen(place);
  }

  /** How places come onto the screen as the camera stands now. */
  get screen(): Screen {
    const { pixel, camera } = this;
    const { width, height } = this.size;
    const [eye, sight] = [camera.position.toArray(), this.sight];
    const matrix = new Matrix4().multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse).elements;
    // parallel sight: no place is divided by its distance
    const row = (k: number, [x, y, z]: Vec3) =>
      matrix[k]! * x + matrix[k + 4]! * y + matrix[k + 8]! * z + matrix[k + 12]!;
    return {
      pixel,
      toScreen: (place) => [((row(0, place) + 1) / 2) * width, ((1 - row(1, place)) / 2) * height],
      depthOf: (place) => dot3(sub3(place, eye), sight),
    };
  }

  /** Where the line of sight through a screen place meets a plane, in its coordinates; undefined edge-on. */
  toPlane([x, y]: Vec2, frame: Frame): Vec2 | undefined {
    const { width, height } = this.size;
    const ndc = new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2);
    const ray = new Raycaster();
    ray.setFromCamera(ndc, this.camera);
    const normal = new Vector3(...frame.z);
    const slope = ray.ray.direction.dot(normal);
    if (Math.abs(slope) < 1e-3) return undefined;
    const origin = new Vector3(...frame.origin);
    const t = origin.clone().sub(ray.ray.origin).dot(normal) / slope;
    const offset = ray.ray.origin.addScaledVector(ray.ray.direction, t).sub(origin);
    return [offset.dot(new Vector3(...frame.x)), offset.dot(new Vector3(...frame.y))];
  }
}
