import type { Box } from '../../core/measure/box';
import type { Docket } from '../../core/docket/docket';
import { withStep } from '../../core/docket/edit';
import type { Format } from '../../core/docket/format';
import type { Step } from '../../core/docket/steps';
import type { Book, Page, Side } from '../../core/model/page';

/** A step being set up in the slip: new at the docket's end, or an edit of one that is there. */
export interface OpenForm {
  kind: Step['kind'];
  /** The step that is edited. */
  step?: Step;
  /** A new step that begins with more than its kind says. */
  begun?: Step;
}

/** A box in the space of a page that lies on a side. */
export interface OnPage {
  page: Page;
  side: Side;
  box: Box;
}

/** What is being tried and not accepted yet. */
export class Draft {
  /** The docket as it would be when what is tried were accepted. */
  trial = $state.raw<Docket | undefined>();
  /** The trial is a scheme being typed: what is found in it is shown, as for a step's form. */
  typing = $state(false);
  form = $state.raw<OpenForm | undefined>();
  /** The step as the open form, or a handle on the mat, has it so far; whether it can be accepted shows in `trial`. */
  step = $state.raw<Step | undefined>();
  /** How the book would lie when the step were accepted, where the form says that too. */
  book = $state.raw<Book | undefined>();
  /** The format being made or changed. */
  format = $state.raw<Format | undefined>();
  /** A form asks for an object on a page to be clicked. */
  asking = $state.raw<((object: OnPage) => void) | undefined>();
  /** A recipe is being saved from this job, or replayed on it. */
  recipe = $state<'save' | 'replay' | undefined>();

  /** Opens the slip for a step; an edited step shows what it would do as it is changed. */
  open(form: OpenForm): void {
    this.leave();
    this.form = form;
  }

  /** Puts away what is being tried. */
  leave(): void {
    this.trial = this.form = this.step = this.book = this.format = this.asking = this.recipe = undefined;
    this.typing = false;
  }

  /** Shows the docket with this step in its place, without accepting it. */
  try(step: Step | undefined, docket: Docket): void {
    this.trial = step && this.with(step, docket);
  }

  /** The docket with a step in its place, and with how the form says the book lies. */
  with(step: Step, docket: Docket): Docket {
    return withStep(docket, step, this.book);
  }

  /** What somebody else in the same job is told of it. */
  get doing(): string {
    return this.form?.kind ?? (this.typing ? 'scheme' : this.format ? 'format' : '');
  }
}
