import * as three from 'three';
import { heightOf, widthOf } from '../../core/measure/box';
import { matrixOf, type Mover } from './movers';

/** The paper of many parts, drawn at once. */
export class Bodies {
  readonly mesh: three.InstancedMesh<three.BoxGeometry, three.MeshLambertMaterial>;
  private isPlaced = false;

  constructor(
    private readonly movers: readonly Mover[],
    looks: three.MeshLambertMaterial,
  ) {
    const box = new three.BoxGeometry(1, 1, 1);
    this.mesh = new three.InstancedMesh(box, looks, movers.length);
    this.mesh.frustumCulled = false;
  }

  /** Puts each part where it is now; those that stay are put there once. */
  place(): void {
    const scaled = new three.Matrix4();
    this.movers.forEach(({ to: { flat, thick }, pose, still }, n) => {
      if (still && this.isPlaced) return;
      scaled.makeScale(widthOf(flat), heightOf(flat), thick * 0.98);
      scaled.setPosition((flat.x0 + flat.x1) / 2, (flat.y0 + flat.y1) / 2, 0);
      this.mesh.setMatrixAt(n, matrixOf(pose).multiply(scaled));
    });
    this.isPlaced = true;
    this.mesh.instanceMatrix.needsUpdate = true;
  }

  /** The part that a line of sight meets first, and where. */
  meet(ray: three.Raycaster): { mover: Mover; at: three.Vector3 } | undefined {
    this.mesh.computeBoundingSphere();
    const [hit] = ray.intersectObject(this.mesh);
    const mover = hit?.instanceId === undefined ? undefined : this.movers[hit.instanceId];
    return hit && mover && { mover, at: hit.point };
  }

  close(): void {
    this.mesh.geometry.dispose();
    this.mesh.dispose();
  }
}
