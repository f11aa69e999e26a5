import { compose, type Matrix } from '../../core/measure/matrix';
import { faceKey, textWidth } from '../../core/numbers/faceMetrics';
import { inkName } from '../../core/numbers/jobInks';
import type { InkChange } from '../../core/model/page';
import type { Layer, Purpose } from '../../core/model/laid';
import type { Colour } from '../../core/ink/colour';
import {
  MARK_LAYERS,
  type ArtItem,
  type CircleItem,
  type Item,
  type LineItem,
  type RectItem,
  type TextItem,
} from '../../core/model/surface';
import { embedFace, type OpenFace } from './fonts';
import { clipTo, concat, figure } from '../objects/numbers';
import { PdfText, type AddObject, type Dictionary, type Plain } from '../objects/objects';

/** A source page as a form that was made of it: its resource name, and what leads from its user space to the page as seen. */
export interface FormUse {
  name: string;
  toUpright: Matrix;
}

/** The processing step of a purpose: group and type (ISO 19593-1, from memory). */
const STEP_TYPE: Partial<Record<Purpose, string>> = {
  cutting: 'Cutting',
  creasing: 'Creasing',
  perforating: 'Perforating',
};
/** How far the handles of a curve reach that stands for a quarter of a circle of radius 1. */
const QUARTER = 0.5523;
/** The colorant All: prints on every plate (ISO 32000-1, 8.6.6.4). */
const ALL: Colour = { as: 'spot', name: 'All', tint: 1, mix: [1, 1, 1, 1] };

/**
 * Draws items of surfaces as content, and keeps what that content needs: faces, spot inks, states of the graphics and
 * layers, all of which are written once at the end.
 */
export class Kit<Ref> {
  private readonly faces = new Map<string, { name: string; face: OpenFace; ref: Ref }>();
  private readonly inks = new Map<string, { name: string; ink: Extract<Colour, { as: 'spot' }> }>();
  private readonly states = new Map<string, { name: string; state: Dictionary<never> }>();
  private readonly layers = new Map<string, { name: string; layer: Layer }>();

  /** `reserve` keeps a number for an object that is written at the end; `changes` are spot inks under other names. */
  constructor(
    private readonly formOf: (item: ArtItem) => FormUse,
    private readonly reserve: () => Ref,
    private readonly changes: readonly InkChange[] = [],
  ) {}

  /** The content that draws items in the space of their surface. */
  draw(items: readonly Item[]): string {
    const drawn: string[] = [];
    let open: Layer | undefined;
    for (const item of items) {
      const layer = markLayer(item);
      if (layer !== open) {
        if (open) drawn.push('EMC');
        if (layer) drawn.push(`/OC /${this.layerName(layer)} BDC`);
        open = layer;
      }
      drawn.push(this.item(item));
    }
    if (open) drawn.push('EMC');
    return drawn.join('\n');
  }

  private item(item: Item): string {
    if (item.kind === 'line') return this.line(item);
    if (item.kind === 'text') return this.text(item);
    return item.kind === 'art' ? this.art(item) : this.shape(item);
  }

  private layerName(layer: Layer): string {
    return this.keep(this.layers, `${layer.purpose} ${layer.name}`, 'L', () => ({ layer })).name;
  }

  /** The fonts that items are set in, by their names; undefined if the items need more than fonts. */
  fontsOf(items: readonly Item[]): Map<string, Ref> | undefined {
    const fonts = new Map<string, Ref>();
    for (const item of items) {
      if (item.kind === 'art' || item.ink === 'all' || item.ink.as === 'spot') return undefined;
      if (item.kind === 'text') {
        const { name, ref } = this.faceOf(item);
        fonts.set(name, ref);
      }
    }
    return fonts;
  }

  /** Writes all that was needed, `put` what a number was kept for; the entries of a resource dictionary, the layers, and which of them are hidden. */
  finish(
    add: AddObject<Ref>,
    put: (ref: Ref, dictionary: Dictionary<Ref>) => void,
  ): { resources: Dictionary<Ref>; layers: Ref[]; hidden: Ref[] } {
    const each = <T extends { name: string }, Made>(of: ReadonlyMap<string, T>, make: (one: T) => Made) =>
      Object.fromEntries([...of.values()].map((one) => [one.name, make(one)]));
    const layers = each(this.layers, ({ layer }) => add(layerDict<Ref>(layer)));
    return {
      layers: Object.values(layers),
      hidden: [...this.layers.values()].flatMap(({ name, layer }) => (layer.hidden ? [layers[name]!] : [])),
      resources: {
        Font: each(this.faces, ({ face, ref }) => {
          put(ref, face.embed(add));
          return ref;
        }),
        ColorSpace: each(this.inks, ({ ink }) => spotSpace<Ref>(ink)),
        ExtGState: each(this.states, ({ state }) => state),
        Properties: layers,
      },
    };
  }

  private text(item: TextItem): string {
    const { text, size, align, matrix } = item;
    const shift = { left: 0, centre: 0.5, right: 1 }[align] * textWidth(text, item);
    const at = compose([1, 0, 0, 1, -shift, 0], matrix);
    const { name, face } = this.faceOf(item);
    // What was read off a scan is the page's own text, and no folio.
    if (item.unseen) return `q ${concat(at)} BT 3 Tr /${name} ${figure(size)} Tf ${face.code(text)} Tj ET Q`;
    return `/Artifact << /Type /Pagination >> BDC q ${this.color(item.ink, false)} ${concat(at)} BT /${name} ${figure(size)} Tf ${face.code(text)} Tj ET Q EMC`;
  }

  private faceOf(item: TextItem): { name: string; face: OpenFace; ref: Ref } {
    return this.keep(this.faces, faceKey(item), 'FolderF', () => ({
      face: embedFace(item),
      ref: this.reserve(),
    }));
  }

  /** Lines drawn before: marks are the same on every side. */
  private readonly drawn = new WeakMap<LineItem, string>();
  private line(item: LineItem): string {
    const known = this.drawn.get(item);
    if (known) return known;
    const { x0, y0, x1, y1, width, dash, ink } = item;
    const drawn = `q ${this.color(ink === 'all' ? ALL : ink, true)} ${figure(width)} w [${dash.map(figure).join(' ')}] 0 d ${figure(x0)} ${figure(y0)} m ${figure(x1)} ${figure(y1)} l S Q`;
    this.drawn.set(item, drawn);
    return drawn;
  }

  private shape(item: RectItem | CircleItem): string {
    const ink = item.ink === 'all' ? ALL : item.ink;
    if (item.kind === 'rect') {
      const { x0, y0, x1, y1 } = item.box;
      return `q ${this.color(ink, false)} ${figure(x0)} ${figure(y0)} ${figure(x1 - x0)} ${figure(y1 - y0)} re f Q`;
    }
    const { x, y, radius: r, width } = item;
    const h = r * QUARTER;
    const curve = (...points: number[]) => `${points.map(figure).join(' ')} c`;
    return `q ${this.color(ink, true)} ${figure(width)} w ${figure(x + r)} ${figure(y)} m ${[
      curve(x + r, y + h, x + h, y + r, x, y + r),
      curve(x - h, y + r, x - r, y + h, x - r, y),
      curve(x - r, y - h, x - h, y - r, x, y - r),
      curve(x + h, y - r, x + r, y - h, x + r, y),
    ].join(' ')} s Q`;
  }

  private art(item: ArtItem): string {
    const { name, toUpright } = this.formOf(item);
    const { reach, opacity, layer, overprint } = item.laid ?? {};
    const state = opacity === undefined && !overprint ? '' : `/${this.state(opacity, overprint)} gs `;
    // The reach is in the source page as seen, which a turned stamp does not lie upright in.
    const inner = reach
      ? `${concat(item.matrix)} ${clipTo(reach)} ${concat(toUpright)}`
      : concat(compose(toUpright, item.matrix));
    const drawn = `q ${state}${clipTo(item.clip)} ${inner} /${name} Do Q`;
    if (!layer) return drawn;
    return `/OC /${this.layerName(layer)} BDC ${drawn} EMC`;
  }

  private color(ink: Colour, stroke: boolean): string {
    if (ink.as === 'grey') return `${figure(1 - ink.black)} ${stroke ? 'G' : 'g'}`;
    if (ink.as === 'process')
      return `${[ink.c, ink.m, ink.y, ink.k].map(figure).join(' ')} ${stroke ? 'K' : 'k'}`;
    const called = inkName(ink.name, this.changes);
    const { name } = this.keep(this.inks, called, 'S', () => ({ ink: { ...ink, name: called } }));
    return `/${name} ${stroke ? 'CS' : 'cs'} ${figure(ink.tint)} ${stroke ? 'SCN' : 'scn'}`;
  }

  private state(opacity: number | undefined, overprint: true | undefined): string {
    const state: Dictionary<never> = {
      ...(opacity === undefined ? {} : { CA: opacity, ca: opacity }),
      ...(overprint ? { OP: true, op: true, OPM: 1 } : {}),
    };
    return this.keep(this.states, JSON.stringify(state), 'E', () => ({ state })).name;
  }

  /** What is kept under a key, under a name of its own. */
  private keep<T extends object>(
    kept: Map<string, T & { name: string }>,
    key: string,
    letter: string,
    make: () => T,
  ): T & { name: string } {
    const known = kept.get(key) ?? { ...make(), name: `${letter}${kept.size + 1}` };
    kept.set(key, known);
    return known;
  }
}

const markLayer = (item: Item): Layer | undefined =>
  'layer' in item && item.layer ? MARK_LAYERS[item.layer] : undefined;

/** A spot ink as a colour space: its name is the plate, the mix only what stands for it elsewhere (8.6.6.4). */
const spotSpace = <Ref>({ name, mix }: Extract<Colour, { as: 'spot' }>): Plain<Ref> => [
  'Separation',
  name,
  'DeviceCMYK',
  { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: [...mix], N: 1 },
];

/** A layer (8.11.2) that says which processing step it is, where it is one. */
function layerDict<Ref>({ name, purpose }: Layer): Dictionary<Ref> {
  const type = STEP_TYPE[purpose];
  return {
    Type: 'OCG',
    Name: new PdfText(name),
    ...(type ? { GTS_Metadata: { GTS_ProcStepsGroup: 'Structural', GTS_ProcStepsType: type } } : {}),
  };
}
