import { finishPlanOf } from '../../core/finish/finishPlan';
import { withErrors } from '../../core/finish/errors';
import { hasFoldOuts, openingOf } from '../../core/finish/states/book';
import { facesInSight } from '../../core/finish/states/placed';
import { sheetsToFollow } from '../../core/finish/states/states';
import { Timeline, type Moment } from '../../core/finish/states/timeline';
import type { FinishPlan } from '../../core/finish/operations';
import type { SheetPlan } from '../../core/sheets/plan';
import type { Bench } from '../bench.svelte';
import type { Met, SeenFace } from './drawing';
import { namesOn, pageAt, printedAt, printedFace, type Face } from './facePainter';

/** How the job on the bench is made: what is worked out from it for the dummy, and what of it is selected there. */
export class Making {
  readonly plan: SheetPlan | undefined = $derived.by(() => this.bench.shown.plan);
  readonly finish: FinishPlan | undefined = $derived.by(() => {
    const { list, docket } = this.bench.shown;
    const { plan } = this;
    return plan && finishPlanOf({ list, plan, scheme: docket.scheme }, docket.title);
  });
  /** Sheets that can be followed, and the one that is. */
  readonly sheets: readonly number[] = $derived.by(() => (this.finish ? sheetsToFollow(this.finish) : []));
  readonly sheet: number = $derived.by(() => {
    const { sheet } = this.bench.dummy;
    return this.sheets.includes(sheet) ? sheet : (this.sheets[0] ?? 1);
  });
  private readonly tried: Timeline | string | undefined = $derived.by(() => {
    if (!this.finish || !this.sheets.length) return undefined;
    try {
      return new Timeline(withErrors(this.finish, this.bench.dummy.errors), this.sheet);
    } catch (error) {
      return String(error);
    }
  });
  readonly timeline: Timeline | undefined = $derived.by(() =>
    typeof this.tried === 'object' ? this.tried : undefined,
  );
  /** Machines that err so make nothing. */
  readonly fails: boolean = $derived.by(() => typeof this.tried === 'string');
  /** Where the piece is. */
  readonly moment: Moment | undefined = $derived.by(() => {
    const { place, out } = this.bench.dummy;
    return this.timeline && place <= this.timeline.last ? this.timeline.at(place, out) : undefined;
  });
  /** Something folds out of the leaves in sight. */
  readonly foldsOut: boolean = $derived.by(() => {
    const { moment, timeline } = this;
    return !!timeline?.book && moment?.open !== undefined && hasFoldOuts(timeline.book, moment.open);
  });

  constructor(private readonly bench: Bench) {}

  /** Faces in sight with the names of the pages on them. */
  named(seen: readonly SeenFace[]): (SeenFace & { names: string[] })[] {
    const { plan } = this;
    return seen.map((face) => {
      const printed = plan && printedFace(plan, face, this.bench.dummy.errors);
      return { ...face, names: printed ? namesOn(printed, face.flat) : [] };
    });
  }

  /** Faces that will be seen next, so that their pictures are there by then. */
  next(): Face[] {
    const { timeline } = this;
    const { place, out } = this.bench.dummy;
    if (!timeline || place >= timeline.last) return [];
    const { parts } = timeline.at(place + 1, out);
    return [...facesInSight(parts)].flatMap(([n, { above }]): Face[] => {
      const part = parts[n];
      return part && above ? [{ sheet: part.sheet, face: part.up, flat: part.flat }] : [];
    });
  }

  /** Selects the page that is met at a place of a sheet, or nothing where there is none. */
  select(met: Met | undefined, event: PointerEvent): void {
    const { bench, plan } = this;
    const printed = met && plan && printedFace(plan, met, bench.dummy.errors);
    const page = printed && pageAt(printed, met.x, met.y);
    if (page) bench.selected.chooseOne(page.id, event);
    else bench.selected.choose([]);
  }

  /** Brings a page into sight: its sheet is followed, or the finished book opened there. */
  bring(id: string): void {
    const { plan, timeline } = this;
    const view = this.bench.dummy;
    const at = plan && printedAt(plan, id);
    if (!at || !timeline) return;
    const { book, made } = timeline;
    if (!book || view.place < made || at.sheet > plan.sheetCount) {
      if (at.sheet !== this.sheet) view.sheet = at.sheet;
      return;
    }
    const open = openingOf(book, at.sheet, at.face, at.flat);
    if (open !== undefined && made + open !== view.place) view.go(made + open);
  }
}
