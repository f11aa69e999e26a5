import { prefersReducedMotion } from 'svelte/motion';
import { PLAIN_ERRORS, type MachineErrors } from '../../core/finish/errors';
import type { FinishPlan } from '../../core/finish/operations';
import type { Timeline } from '../../core/finish/states/timeline';
import type { DummyState } from '../../core/finish/states/states';
import type { Placed } from '../../core/finish/states/placed';

const FOLD_MS = 750;
const TURN_MS = 480;
const REST_MS = 350;

/** What is on its way from one place of the timeline to another. */
export interface Going {
  from: readonly Placed[];
  to: readonly Placed[];
  under: boolean;
}

/** How the dummy is looked at: which sheet is followed, and how far it has come. */
export class DummyView {
  /** The sheet that is followed, from 1. */
  sheet = $state(1);
  /** Where on the timeline the piece is, or goes to. */
  place = $state(0);
  /** What folds out of an open book is folded out. */
  out = $state(false);
  playing = $state(false);
  /** Drawn flat instead of in three dimensions. */
  flat = $state(false);
  /** Seen from below. */
  over = $state(false);
  /** How machines err. */
  errors = $state.raw<MachineErrors>(PLAIN_ERRORS);
  going = $state.raw<Going>({ from: [], to: [], under: false });
  /** How far what is on its way has come, from 0 to 1. */
  t = $state(1);

  /** What is done to the sheets. */
  finish = $state.raw<FinishPlan | undefined>();

  private timeline = $state.raw<Timeline | undefined>();
  private frame = 0;
  private rest: ReturnType<typeof setTimeout> | undefined;

  /** The piece is made otherwise now: it stands where it was, as far as there is such a place. */
  set(timeline: Timeline | undefined, finish: FinishPlan | undefined): void {
    this.stop();
    this.finish = finish;
    const wasMade = !!this.timeline && this.place === this.timeline.made;
    this.timeline = timeline;
    if (!timeline) return;
    this.jump(wasMade ? timeline.made : Math.min(this.place, timeline.last));
  }

  /** The state that the piece is in, if it is none in which the finished book lies open. */
  get state(): DummyState | undefined {
    return this.timeline?.states[this.place];
  }

  /** Machines err so from now on: the finished piece shows it. */
  err(errors: MachineErrors): void {
    const { timeline } = this;
    if (timeline && this.place < timeline.made) this.jump(timeline.made);
    this.errors = errors;
  }

  /** Goes to a place at once. */
  jump(place: number): void {
    const { timeline } = this;
    if (!timeline) return;
    this.halt();
    this.place = Math.min(timeline.last, Math.max(0, place));
    const { parts, under } = timeline.at(this.place, this.out);
    this.going = { from: parts, to: parts, under };
    this.t = 1;
  }

  /** Goes to the next place or the one before, by way of what is done between them; to others at once. */
  go(place: number): void {
    this.stop();
    this.move(place);
  }
  step(by: 1 | -1): void {
    this.go(this.place + by);
  }

  /** Makes the piece from here, or from the start if it is made already. */
  play(): void {
    const { timeline } = this;
    if (!timeline) return;
    if (this.playing) return this.stop();
    if (this.place >= timeline.made) this.jump(0);
    this.playing = true;
    this.move(this.place + 1);
  }
  stop(): void {
    this.playing = false;
    clearTimeout(this.rest);
  }

  /** Folds out, or in, what folds out of the leaves in sight. */
  foldOut(): void {
    const { timeline, place } = this;
    if (!timeline) return;
    const from = timeline.at(place, this.out).parts;
    this.out = !this.out;
    this.animate({ from, to: timeline.at(place, this.out).parts, under: false }, 1, TURN_MS);
  }

  close(): void {
    this.stop();
    this.halt();
  }

  private move(place: number): void {
    const { timeline } = this;
    if (!timeline || place < 0 || place > timeline.last) return this.stop();
    const was = this.place;
    if (Math.abs(place - was) !== 1 || prefersReducedMotion.current) {
      this.jump(place);
      return this.onward();
    }
    const [before, after] = [
      timeline.at(Math.min(was, place), this.out),
      timeline.at(Math.max(was, place), this.out),
    ];
    this.place = place;
    const going = { from: before.parts, to: after.parts, under: after.under };
    this.animate(going, place > was ? 1 : -1, after.open === undefined ? FOLD_MS : TURN_MS);
  }

  private animate(going: Going, way: 1 | -1, ms: number): void {
    this.halt();
    if (prefersReducedMotion.current) {
      this.going = going;
      this.t = way > 0 ? 1 : 0;
      return;
    }
    this.t = way > 0 ? 0 : 1;
    this.going = going;
    const began = performance.now();
    const next = (now: number): void => {
      const share = Math.min(1, Math.max(0, (now - began) / ms));
      const eased = share * share * (3 - 2 * share);
      this.t = way > 0 ? eased : 1 - eased;
      if (share < 1) this.frame = requestAnimationFrame(next);
      else this.onward();
    };
    this.frame = requestAnimationFrame(next);
  }

  /** Playing goes on after a rest, until the piece is made. */
  private onward(): void {
    if (!this.playing) return;
    if (!this.timeline || this.place >= this.timeline.made) return this.stop();
    this.rest = setTimeout(() => this.move(this.place + 1), REST_MS);
  }

  private halt(): void {
    cancelAnimationFrame(this.frame);
  }
}
