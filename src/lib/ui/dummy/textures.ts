import * as three from 'three';
import type { PaintedFace } from './faces.svelte';

/** Textures of painted canvases: one for each state of a canvas, kept as long as a face shows it. */
export class Textures {
  private readonly made = new Map<HTMLCanvasElement, { texture: three.CanvasTexture; version: number }>();

  constructor(
    /** Without a graphics card pictures are looked up once for each dot. */
    private readonly isPlain: boolean,
  ) {}

  of({ canvas, version }: PaintedFace): three.CanvasTexture {
    const known = this.made.get(canvas);
    if (known?.version === version) return known.texture;
    // A texture keeps the size that it was made with.
    known?.texture.dispose();
    const texture = new three.CanvasTexture(canvas);
    texture.colorSpace = three.SRGBColorSpace;
    if (this.isPlain) {
      texture.generateMipmaps = false;
      texture.minFilter = three.LinearFilter;
    } else texture.anisotropy = 8;
    this.made.set(canvas, { texture, version });
    return texture;
  }

  /** Gives back all but these. */
  keep(shown: ReadonlySet<three.Texture>): void {
    for (const [canvas, { texture }] of this.made) {
      if (shown.has(texture)) continue;
      texture.dispose();
      this.made.delete(canvas);
    }
  }
}
