import * as three from 'three';
import { heightOf } from '../../core/measure/box';
import type { Unit } from '../../core/measure/unit';
import { applyPose, poseBetween } from '../../core/finish/states/pose';
import { facesInSight, type Placed } from '../../core/finish/states/placed';
import { Bodies } from './bodies';
import type { Drawing, Met, SeenFace } from './drawing';
import type { Going } from './dummyView.svelte';
import { Eye } from './eye';
import { FaceMesh, type Shown } from './faceMesh';
import type { Face } from './facePainter';
import type { PaintedFace } from './faces.svelte';
import { MatScene } from './matScene';
import { matrixOf, moversOf, type Mover } from './movers';
import { Textures } from './textures';

const MAT = 0x1f3a36;
/** Without a graphics card: how much of the screen's pixels is drawn each way while something moves, and when it rests. */
const COARSE = 0.6;
const REST_MS = 160;
const ENDS = ['to', 'from'] as const;
const OTHER = { front: 'back', back: 'front' } as const;

/** The piece in three dimensions. Knows nothing of jobs: parts of paper, their places, and canvases with what is printed on them. */
export class DummyScene implements Drawing {
  private readonly renderer: three.WebGLRenderer;
  private readonly scene = new three.Scene();
  private readonly eye: Eye;
  private readonly mat: MatScene;
  private readonly paper = new three.MeshLambertMaterial({
    color: 0xf4f0e6,
    // Faces lie on it.
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 2,
  });
  private readonly waste = new three.MeshLambertMaterial({
    color: 0xb5452c,
    transparent: true,
    opacity: 0.32,
  });
  private papers: Bodies | undefined;
  private wastes: Bodies | undefined;
  private movers: Mover[] = [];
  private meshes: FaceMesh[] = [];
  /** What was shown before, given back once something else is drawn: how it is drawn is worked out anew when nothing uses it any more. */
  private gone: { close(): void }[] = [];
  private under = false;
  private t = 1;
  private frame = 0;
  private next = 0;
  private moves = false;
  private resting: ReturnType<typeof setTimeout> | undefined;
  /** Drawn without a graphics card: edges are not smoothed, shadows stand still while paper moves, and it is drawn sharply when it rests. */
  private readonly isPlain: boolean;
  private readonly textures: Textures;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly paint: (face: Face, k: number) => PaintedFace,
    private readonly onrender: () => void,
    /** The browser took the third dimension away. */
    private readonly onlost: () => void,
  ) {
    canvas.addEventListener('webglcontextlost', onlost);
    this.isPlain = isDrawnBySoftware();
    this.renderer = new three.WebGLRenderer({ canvas, antialias: !this.isPlain, alpha: false });
    this.renderer.setClearColor(MAT);
    // The browser waits for the graphics card where it is asked.
    this.renderer.debug.checkShaderErrors = false;
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = three.PCFShadowMap;
    // Shadows change only when paper moves.
    this.renderer.shadowMap.autoUpdate = false;
    this.textures = new Textures(this.isPlain);
    this.mat = new MatScene(this.scene, this.isPlain);
    this.eye = new Eye(canvas, () => this.invalidate());
  }

  show(going: Going, t: number): void {
    this.clear();
    this.under = going.under;
    this.eye.look(going);
    this.movers = moversOf(going.from, going.to);
    const drawn = this.movers.filter(({ to }) => !to.waste);
    this.papers = new Bodies(drawn, this.paper);
    this.papers.mesh.castShadow = true;
    this.wastes = new Bodies(
      this.movers.filter(({ to }) => to.waste),
      this.waste,
    );
    this.meshes = facesOf(drawn).map(
      ({ mover, face, shown }) => new FaceMesh(mover, face, shown, this.textureFor(mover, face)),
    );
    this.keepTextures();
    this.scene.add(this.papers.mesh, this.wastes.mesh, ...this.meshes.map(({ mesh }) => mesh));
    this.advance(t);
  }

  advance(t: number): void {
    this.t = t;
    for (const mover of this.movers)
      if (!mover.still) mover.pose = poseBetween(mover.from, mover.to, t, this.under);
    this.papers?.place();
    this.wastes?.place();
    if (this.wastes) this.wastes.mesh.visible = t > 0.5;
    for (const mesh of this.meshes) mesh.place();
    this.eye.follow(t);
    this.mat.follow(this.eye);
    if (!this.isPlain || t === 1) this.renderer.shadowMap.needsUpdate = true;
    this.invalidate();
  }

  get faces(): readonly Face[] {
    return this.meshes.map(({ face }) => face);
  }

  repainted(): void {
    for (const mesh of this.meshes) mesh.texture = this.textureFor(mesh.mover, mesh.face);
    this.keepTextures();
    // Handed over in a frame of their own, before that in which they are drawn: both at once would take too long.
    for (const { texture } of this.meshes) if (texture) this.renderer.initTexture(texture);
    cancelAnimationFrame(this.next);
    this.next = requestAnimationFrame(() => this.invalidate(false));
  }

  resize(width: number, height: number): void {
    this.renderer.setPixelRatio(screenRatio());
    this.renderer.setSize(width, height, false);
    this.eye.resize(width, height);
    this.invalidate();
  }

  bringBack(over: boolean): void {
    this.eye.bringBack(over);
  }
  zoomBy(factor: number): void {
    this.eye.zoomBy(factor);
  }
  turnBy(side: number, up: number): void {
    this.eye.turnBy(side, up);
  }
  toScreen(x: number, y: number, z: number): { x: number; y: number } {
    return this.eye.toScreen(x, y, z);
  }
  get k(): number {
    return this.eye.k;
  }

  grids(unit: Unit): void {
    this.mat.grids(unit, this.eye);
    this.invalidate();
  }

  seen(): SeenFace[] {
    return this.meshes.map(({ face, mover: { pose, to }, side, shown }) => {
      const isInSight = this.t < 0.5 ? shown.from : shown.to;
      const { x0, x1, y0, y1 } = face.flat;
      const on = (x: number, y: number) => applyPose(pose, [x, y, (side * to.thick) / 2]);
      const places = [on(x0, y0), on(x1, y0), on(x1, y1), on(x0, y1)];
      const middle = new three.Vector3(...on((x0 + x1) / 2, (y0 + y1) / 2));
      const [[, , nx], [, , ny], [, , nz]] = pose;
      const away = this.eye.camera.position.clone().sub(middle);
      return {
        ...face,
        turnedHere: isInSight && side * away.dot(new three.Vector3(nx, ny, nz)) > 0,
        corners: places.map((place) => this.toScreen(...place)),
      };
    });
  }

  meet(clientX: number, clientY: number): Met | undefined {
    const met = this.papers?.meet(this.eye.through(clientX, clientY));
    if (!met) return undefined;
    const { x, y, z } = met.at.applyMatrix4(matrixOf(met.mover.pose).invert());
    return { sheet: met.mover.to.sheet, face: z >= 0 ? 'front' : 'back', x, y };
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    cancelAnimationFrame(this.next);
    clearTimeout(this.resting);
    this.clear();
    this.giveBack();
    this.paper.dispose();
    this.waste.dispose();
    this.textures.keep(new Set());
    this.mat.clear();
    this.eye.close();
    this.canvas.removeEventListener('webglcontextlost', this.onlost);
    this.renderer.dispose();
    // Browsers keep only a few: this one is given back at once.
    this.renderer.forceContextLoss();
  }

  private clear(): void {
    for (const each of [this.papers, this.wastes, ...this.meshes])
      if (each) {
        this.scene.remove(each.mesh);
        this.gone.push(each);
      }
    this.meshes = [];
  }

  private giveBack(): void {
    for (const each of this.gone.splice(0)) each.close();
  }

  private textureFor({ to }: Mover, face: Face): three.Texture {
    return this.textures.of(this.paint(face, this.fineness(to)));
  }
  private keepTextures(): void {
    this.textures.keep(new Set(this.meshes.flatMap(({ texture }) => texture ?? [])));
  }

  /** Pixels a point that are enough for a part. */
  private fineness({ flat }: Placed): number {
    const pixels = 1.15 * this.canvas.clientHeight * screenRatio();
    return pixels / Math.max(this.eye.extent, heightOf(flat));
  }

  /** Draws with so many of the screen's pixels each way. */
  private sharpen(share: number): void {
    const ratio = share * screenRatio();
    if (this.renderer.getPixelRatio() !== ratio) this.renderer.setPixelRatio(ratio);
  }

  /** Has it drawn again: something moved, or only what is printed has come. */
  private invalidate(moves = true): void {
    this.moves ||= moves;
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      if (this.isPlain && this.moves) {
        this.moves = false;
        this.sharpen(COARSE);
        clearTimeout(this.resting);
        this.resting = setTimeout(() => {
          this.sharpen(1);
          this.renderer.render(this.scene, this.eye.camera);
        }, REST_MS);
      }
      this.renderer.render(this.scene, this.eye.camera);
      this.giveBack();
      this.onrender();
    });
  }
}

const screenRatio = () => Math.min(2, globalThis.devicePixelRatio || 1);

/** Whether the browser has no graphics card for the third dimension. */
function isDrawnBySoftware(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2');
  const info = gl?.getExtension('WEBGL_debug_renderer_info');
  const name = info ? String(gl?.getParameter(info.UNMASKED_RENDERER_WEBGL)) : '';
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return /swiftshader|llvmpipe|software/i.test(name);
}

/** Faces that can be seen before parts move, or after. */
function facesOf(movers: readonly Mover[]): { mover: Mover; face: Face; shown: Shown }[] {
  const sights = ENDS.map((end) => ({ end, seen: facesInSight(movers.map((mover) => mover[end])) }));
  return movers.flatMap((mover, n) => {
    const faces = new Map<'front' | 'back', Shown>();
    const show = (face: 'front' | 'back', end: keyof Shown) =>
      faces.set(face, { from: false, to: false, ...faces.get(face), [end]: true });
    for (const { end, seen } of sights) {
      const { up } = mover[end];
      if (seen.get(n)?.above) show(up, end);
      if (seen.get(n)?.below) show(OTHER[up], end);
    }
    const { sheet, flat } = mover.to;
    return [...faces].map(([face, shown]) => ({ mover, face: { sheet, face, flat }, shown }));
  });
}
