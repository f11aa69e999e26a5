import { entryAt } from '../../entries';
import type { FinishPlan } from '../operations';
import { openBook } from './book';
import { dummyStates, type DummyState, type DummyStates } from './states';
import type { Placed } from './placed';

/** One place on the way from the sheet to the piece, and on through its leaves. */
export interface Moment {
  parts: readonly Placed[];
  /** What is done to come here goes under what lies there. */
  under: boolean;
  /** The state that it is, if it is none in which the finished book is open. */
  state?: DummyState;
  /** Before which leaf the finished book is open. */
  open?: number;
}

/** All that happens to one sheet and the piece that it goes into, by places from 0: its states, then the openings of the book. */
export class Timeline {
  readonly states: DummyStates['states'];
  readonly book: DummyStates['book'];

  constructor(plan: FinishPlan, sheet: number) {
    const { states, book } = dummyStates(plan, sheet);
    this.states = states;
    this.book = book;
  }

  /** The place at which the piece is made. */
  get made(): number {
    return this.states.length - 1;
  }
  /** The last place: the book closed again, lying on its front. */
  get last(): number {
    return this.made + (this.book?.turning.length ?? 0);
  }

  /** What lies on the mat at a place; with `out`, what folds out of an open book is folded out. */
  at(place: number, out = false): Moment {
    const { book } = this;
    if (!book || place <= this.made) {
      const state = entryAt(this.states, place);
      return { parts: state.parts, under: state.fold?.goes === 'under', state };
    }
    const open = place - this.made;
    return { parts: openBook(book, open, out), under: false, open };
  }
}
