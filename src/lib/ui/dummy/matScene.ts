import * as three from 'three';
import type { Unit } from '../../core/measure/unit';
import { gridFor, multiples } from '../mat/grid';
import type { Eye } from './eye';

const FINE = 0x2c4b46;
const HEAVY = 0x3a5d57;

/** The mat with its squares, and the light that falls on it. */
export class MatScene {
  private readonly sun = new three.DirectionalLight(0xffffff, 1.55);
  private grid: three.LineSegments[] = [];
  /** What the squares were drawn for. */
  private drawn = '';

  constructor(
    private readonly scene: three.Scene,
    isPlain: boolean,
  ) {
    scene.add(new three.AmbientLight(0xffffff, 1.75), this.sun, this.sun.target);
    this.sun.castShadow = true;
    const fine = isPlain ? 512 : 1024;
    this.sun.shadow.mapSize.set(fine, fine);
    this.sun.shadow.normalBias = 0.5;
    const ground = new three.Mesh(
      new three.PlaneGeometry(40000, 40000),
      new three.ShadowMaterial({ opacity: 0.34, depthWrite: false }),
    );
    ground.receiveShadow = true;
    ground.position.z = -0.05;
    ground.renderOrder = -1;
    scene.add(ground);
  }

  /** The light falls on what is looked at. */
  follow({ target, fitted }: Eye): void {
    const reach = fitted * 0.8;
    this.sun.target.position.copy(target);
    this.sun.position.copy(target).add(new three.Vector3(-0.5 * reach, 0.35 * reach, 1.3 * reach));
    const { camera } = this.sun.shadow;
    [camera.left, camera.right, camera.top, camera.bottom] = [-reach, reach, reach, -reach];
    [camera.near, camera.far] = [reach * 0.1, reach * 4];
    camera.updateProjectionMatrix();
  }

  /** Squares that are real units at this zoom. */
  grids(unit: Unit, { k, fitted }: Eye): void {
    const fine = gridFor(unit, k).heavy;
    const heavy = fine * 5;
    const reach = Math.ceil((fitted * 1.3) / heavy) * heavy;
    const drawn = `${fine} ${reach}`;
    if (drawn === this.drawn) return;
    this.clear();
    this.drawn = drawn;
    this.grid = [gridLines(fine, reach, FINE, -0.2), gridLines(heavy, reach, HEAVY, -0.15)];
    this.scene.add(...this.grid);
  }

  clear(): void {
    for (const lines of this.grid) {
      lines.geometry.dispose();
      this.scene.remove(lines);
    }
    this.grid = [];
    this.drawn = '';
  }
}

function gridLines(step: number, reach: number, color: number, z: number): three.LineSegments {
  // In short pieces: a line that begins behind the eye may be lost.
  const places = multiples(step, -reach, reach);
  const points = places.flatMap((at) =>
    places.slice(1).flatMap((to, n) => {
      const from = places[n] ?? to;
      return [at, from, z, at, to, z, from, at, z, to, at, z];
    }),
  );
  const geometry = new three.BufferGeometry();
  geometry.setAttribute('position', new three.Float32BufferAttribute(points, 3));
  const lines = new three.LineSegments(geometry, new three.LineBasicMaterial({ color, depthWrite: false }));
  lines.renderOrder = -2;
  return lines;
}
