import * as three from 'three';
import type { Face } from './facePainter';
import { matrixOf, type Mover } from './movers';

/** Whether a face can be seen before its part moves, and after. */
export interface Shown {
  from: boolean;
  to: boolean;
}

/** A face of a part, with what is printed on it. */
export class FaceMesh {
  readonly mesh: three.Mesh<three.BufferGeometry, three.MeshLambertMaterial>;
  /** Which way it looks from the front of the sheet. */
  readonly side: 1 | -1;

  constructor(
    readonly mover: Mover,
    readonly face: Face,
    readonly shown: Shown,
    texture: three.Texture,
  ) {
    const { flat } = face;
    this.side = face.face === 'front' ? 1 : -1;
    const geometry = new three.BufferGeometry();
    const corners = [flat.x0, flat.y0, 0, flat.x1, flat.y0, 0, flat.x1, flat.y1, 0, flat.x0, flat.y1, 0];
    const normals = [0, 1, 2, 3].flatMap(() => [0, 0, this.side]);
    geometry.setAttribute('position', new three.Float32BufferAttribute(corners, 3));
    geometry.setAttribute('uv', new three.Float32BufferAttribute([0, 0, 1, 0, 1, 1, 0, 1], 2));
    geometry.setAttribute('normal', new three.Float32BufferAttribute(normals, 3));
    geometry.setIndex(this.side > 0 ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2]);
    this.mesh = new three.Mesh(geometry, new three.MeshLambertMaterial({ map: texture }));
    this.mesh.matrixAutoUpdate = false;
    this.mesh.frustumCulled = false;
  }

  get texture(): three.Texture | null {
    return this.mesh.material.map;
  }
  set texture(texture: three.Texture | null) {
    this.mesh.material.map = texture;
  }

  place(): void {
    const { pose, to } = this.mover;
    const onFace = new three.Matrix4().makeTranslation(0, 0, (this.side * to.thick) / 2);
    this.mesh.matrix.copy(matrixOf(pose).multiply(onFace));
    this.mesh.matrixWorldNeedsUpdate = true;
  }

  close(): void {
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
  }
}
