import type { Unit } from '../../core/measure/unit';
import type { Face } from './facePainter';
import type { Going } from './dummyView.svelte';

/** A face that can be seen, and where its corners are on the screen: lower left first, anticlockwise as the sheet's front is seen. */
export interface SeenFace extends Face {
  /** It is turned to who looks at it. */
  turnedHere: boolean;
  corners: readonly { x: number; y: number }[];
}
/** A place on a sheet, as its front is seen. */
export interface Met {
  sheet: number;
  face: 'front' | 'back';
  x: number;
  y: number;
}

/** What draws the dummy: in three dimensions, or flat where a browser has none. Places on the screen in pixels from its corner. */
export interface Drawing {
  /** Sets what is on its way, and how far it has come, from 0 to 1. */
  show(going: Going, t: number): void;
  advance(t: number): void;
  /** Faces that carry pictures. */
  readonly faces: readonly Face[];
  /** Their canvases were painted. */
  repainted(): void;
  resize(width: number, height: number): void;
  /** Looks at the piece as at first, or from below. */
  bringBack(over: boolean): void;
  zoomBy(factor: number): void;
  turnBy(side: number, up: number): void;
  /** The squares of the mat. */
  grids(unit: Unit): void;
  toScreen(x: number, y: number, z: number): { x: number; y: number };
  seen(): SeenFace[];
  meet(clientX: number, clientY: number): Met | undefined;
  /** Pixels a point, in the middle of the piece. */
  readonly k: number;
  close(): void;
}
