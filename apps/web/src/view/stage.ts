import { AmbientLight, DirectionalLight, GridHelper, Group, Scene, Timer, Vector3, WebGLRenderer } from 'three';
import { Snapshots } from '../snapshots/snapshots.ts';
import { ViewCamera } from './camera.ts';
import type { Screen } from './nearness.ts';
import type { Box3 } from '@helb/core';
import { shrunk } from './shrunk.ts';

export interface ViewTheme {
  readonly ink: string;
  readonly rule: string;
  readonly act: string;
  readonly link: string;
  readonly muted: string;
  readonly part: string;
}

/** Pictures have so many pixels for one of the screen, each way. */
const FINER = 2;

/** How places come onto the screen since the last frame, and what that took: for benches and tests. */
export interface StageState {
  readonly screen: Screen;
  /** Frames drawn so far. */
  readonly drawn: number;
  /** Calls to the graphics card in the last frame, and triangles. */
  readonly calls: number;
  readonly triangles: number;
}

/** What every view stands on: the scene with its light and grid, the camera, and a picture only where something changed. */
export class Stage extends Snapshots<StageState> {
  readonly view: ViewCamera;
  readonly renderer: WebGLRenderer;
  readonly scene = new Scene();
  /** What is pointed at or picked, in the one accent: in no picture that is kept. */
  readonly marks = new Group();
  private drawn = 0;
  private readonly light = new DirectionalLight(0xffffff, 1.5);
  private readonly timer = new Timer();
  private readonly observer: ResizeObserver;
  private grid: GridHelper | undefined;
  private dirty = true;
  private frame = 0;

  constructor(element: HTMLElement, canvas: HTMLCanvasElement) {
    super();
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: true,
      alpha: true,
      stencil: true,
      preserveDrawingBuffer: true,
    });
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.view = new ViewCamera(element, !matchMedia('(prefers-reduced-motion: reduce)').matches);
    this.scene.add(new AmbientLight(0xffffff, 1.7), this.light, this.light.target, this.marks);
    this.observer = new ResizeObserver(() => {
      this.view.resize(this.renderer);
      this.redraw();
    });
    this.observer.observe(element);
    this.loop = this.loop.bind(this);
    this.frame = requestAnimationFrame(this.loop);
  }

  setGrid({ rule }: ViewTheme): void {
    if (this.grid) this.scene.remove(this.grid);
    this.grid = new GridHelper(400, 20, rule, rule);
    this.grid.rotateX(Math.PI / 2);
    this.grid.material.depthWrite = false;
    this.grid.renderOrder = -1;
    this.scene.add(this.grid);
  }

  showGrid(on: boolean): void {
    if (this.grid) this.grid.visible = on;
  }

  /** Draws anew with the next frame. */
  redraw(): void {
    this.dirty = true;
  }

  protected present(): StageState {
    const { calls, triangles } = this.renderer.info.render;
    return { screen: this.view.screen, drawn: this.drawn, calls, triangles };
  }

  /** A small PNG of what is shown now, all that lies in a box as it is seen from the corner, as base64. */
  picture({ low, high }: Box3, width: number, height: number): string {
    const shown = this.grid?.visible ?? false;
    this.showGrid((this.marks.visible = false));
    this.renderer.render(this.scene, this.view.portrait(low, high, width / height));
    this.marks.visible = true;
    this.showGrid(shown);
    this.redraw();
    return shrunk(this.renderer.domElement, width, height);
  }

  /** What is shown now as a PNG file, finer than the screen. */
  png(): Promise<Blob> {
    const ratio = this.renderer.getPixelRatio();
    // also where the page is shown smaller than it is
    this.renderer.setPixelRatio(FINER * Math.max(1, ratio));
    this.renderer.render(this.scene, this.view.camera);
    const made = new Promise<Blob>((resolve, reject) => {
      this.renderer.domElement.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture is empty'))));
    });
    this.renderer.setPixelRatio(ratio);
    this.redraw();
    return made;
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.observer.disconnect();
    this.view.controls.dispose();
    this.renderer.dispose();
  }

  private loop(): void {
    this.frame = requestAnimationFrame(this.loop);
    this.timer.update();
    const moved = this.view.controls.update(this.timer.getDelta());
    if (!moved && !this.dirty) return;
    this.dirty = false;
    this.light.position
      .copy(this.view.camera.position)
      .add(new Vector3(0.2, 0.1, 0.6).applyQuaternion(this.view.camera.quaternion).multiplyScalar(80));
    this.light.target.position.copy(this.view.controls.getTarget(new Vector3()));
    this.renderer.render(this.scene, this.view.camera);
    this.drawn++;
    this.publish();
  }
}
