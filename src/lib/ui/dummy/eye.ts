import * as three from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Going } from './dummyView.svelte';
import { boundsOf } from './movers';

const FIELD_OF_VIEW = 32;
const TAN = Math.tan((FIELD_OF_VIEW * Math.PI) / 360);
/** How the piece is looked at, if nobody turned it: from the front, leaning over it. */
const LOOK = { side: -0.18, up: 0.95 };
const X = new three.Vector3(1, 0, 0);

/** Who looks at the piece: keeps it in the middle, and in sight as long as nobody has turned or zoomed it. */
export class Eye {
  readonly camera = new three.PerspectiveCamera(FIELD_OF_VIEW, 1, 1, 10000);
  /** How far away the whole piece is in sight. */
  fitted = 1;
  private readonly controls: OrbitControls;
  private touched = false;
  /** The mouse or a finger holds it. */
  private held = false;
  private start = new three.Box3();
  private end = new three.Box3();
  private t = 1;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly onmove: () => void,
  ) {
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.addEventListener('change', onmove);
    // A click alone moves nothing.
    this.controls.addEventListener('start', () => (this.held = true));
    this.controls.addEventListener('end', () => (this.held = false));
    this.controls.addEventListener('change', () => (this.touched ||= this.held));
  }

  /** What is looked at from now on. */
  look({ from, to }: Going): void {
    this.end = boundsOf(to);
    this.start = from.length && from !== to ? boundsOf(from) : this.end;
  }

  get target(): three.Vector3 {
    return this.controls.target;
  }
  private get aspect(): number {
    return Math.max(0.2, this.camera.aspect);
  }

  /** How far the piece reaches across the picture when it lies as it comes to lie, as tall as the picture is. */
  get extent(): number {
    const size = this.end.getSize(new three.Vector3());
    return Math.max(1, size.y, size.x / this.aspect);
  }

  /** Follows what is looked at. */
  follow(t: number): void {
    this.t = t;
    const away = this.camera.position.clone().sub(this.target);
    const share = t * t * (3 - 2 * t);
    this.fitted = three.MathUtils.lerp(this.distanceTo(this.start), this.distanceTo(this.end), share);
    this.target.copy(
      this.start.getCenter(new three.Vector3()).lerp(this.end.getCenter(new three.Vector3()), share),
    );
    if (!this.touched) away.setLength(this.fitted);
    this.camera.position.copy(this.target).add(away);
    const far = away.length();
    this.camera.near = Math.max(1, far * 0.1);
    this.camera.far = far * 6;
    this.camera.updateProjectionMatrix();
    this.camera.lookAt(this.target);
  }

  resize(width: number, height: number): void {
    this.camera.aspect = width / Math.max(1, height);
    this.follow(this.t);
  }

  /** Looks at the piece as at first, or from below. */
  bringBack(over: boolean): void {
    this.touched = false;
    const { up, side } = LOOK;
    const flat = Math.cos(up);
    const away = [Math.sin(side) * flat, -Math.cos(side) * flat, (over ? -1 : 1) * Math.sin(up)] as const;
    this.camera.position.set(...away).add(this.target);
    this.follow(this.t);
    this.controls.update();
    this.onmove();
  }

  /** Pixels a point, in the middle of the piece. */
  get k(): number {
    return this.canvas.clientHeight / (2 * TAN * this.camera.position.distanceTo(this.target));
  }

  zoomBy(factor: number): void {
    this.moveTo(this.camera.position.clone().sub(this.target).divideScalar(factor));
  }

  /** Turns the piece about the upright axis, and towards the eye, by angles. */
  turnBy(side: number, up: number): void {
    const away = this.camera.position.clone().sub(this.target);
    const at = new three.Spherical().setFromVector3(away.applyAxisAngle(X, -Math.PI / 2));
    at.theta += side;
    at.phi = three.MathUtils.clamp(at.phi + up, 0.05, Math.PI - 0.05);
    this.moveTo(new three.Vector3().setFromSpherical(at).applyAxisAngle(X, Math.PI / 2));
  }

  private moveTo(away: three.Vector3): void {
    this.touched = true;
    this.camera.position.copy(this.target).add(away);
    this.follow(this.t);
    this.controls.update();
    this.onmove();
  }

  /** Where a point on the mat is on the screen, in pixels from the corner of the picture. */
  toScreen(x: number, y: number, z: number): { x: number; y: number } {
    this.camera.updateMatrixWorld();
    const at = new three.Vector3(x, y, z).project(this.camera);
    const { clientWidth, clientHeight } = this.canvas;
    return { x: ((at.x + 1) / 2) * clientWidth, y: ((1 - at.y) / 2) * clientHeight };
  }

  /** The line of sight through a point of the screen. */
  through(clientX: number, clientY: number): three.Raycaster {
    const { left, top, width, height } = this.canvas.getBoundingClientRect();
    const at = new three.Vector2(((clientX - left) / width) * 2 - 1, 1 - ((clientY - top) / height) * 2);
    const ray = new three.Raycaster();
    ray.setFromCamera(at, this.camera);
    return ray;
  }

  close(): void {
    this.controls.dispose();
  }

  private distanceTo(box: three.Box3): number {
    const size = box.getSize(new three.Vector3());
    const tall = (size.y * 0.86 + size.z * 0.6) / (2 * TAN);
    const wide = size.x / (2 * TAN * this.aspect);
    return 1.16 * Math.max(1, tall, wide) + size.y * 0.28 + size.z;
  }
}
