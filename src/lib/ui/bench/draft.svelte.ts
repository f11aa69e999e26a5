import type { Box } from '../../core/measure/box';
import type { Docket } from '../../core/docket/docket';
import { withStep } from '../../core/docket/edit';
import type { Scheme } from '../../core/sheets/schemes';
import type { Format } from '../../core/docket/format';
import type { Step } from '../../core/docket/steps';
import type { Book, Page, Side } from '../../core/model/page';

/** A step being set up in the slip: new at the docket's end, or an edit of one that is there. */
export interface OpenForm {
  kind: Step['kind'];
  /** The step that is edited. */
  step?: Step;
  /** A new step that begins with more than its kind says; with `step`, that one with more. */
  begun?: Step;
}

/** A box in the space of a page that lies on a side. */
export interface OnPage {
  page: Page;
  side: Side;
  box: Box;
}

/** What a draft holds of one form. */
type Begun = Pick<Draft, 'form' | 'step' | 'book' | 'format' | 'scheme'>;

/** What is being tried on a stage and not accepted yet. */
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
  /** The scheme as it is typed so far. */
  scheme = $state.raw<Scheme | undefined>();
  /** Forms that others were opened over while something was typed in them, the last one last. */
  private readonly aside: Begun[] = [];
  /** What the form began with. */
  private began = '';
  /** A form asks for an object on a page to be clicked. */
  asking = $state.raw<((object: OnPage) => void) | undefined>();
  /** A recipe is being saved from this job, or replayed on it. */
  recipe = $state<'save' | 'replay' | undefined>();

  /** Something was begun here that is neither accepted nor cancelled. */
  get isOpen(): boolean {
    return !!(this.form ?? this.format ?? this.scheme ?? this.recipe);
  }

  /** Opens the slip for a step; an edited step shows what it would do as it is changed. What was typed in the form before comes back after it. */
  open(form: OpenForm): void {
    const { form: before, step, book, format, scheme } = this;
    const isTyped = scheme ?? format ?? (step && JSON.stringify(step) !== this.began);
    if (isTyped && (!form.step || form.step.id !== before?.step?.id))
      this.aside.push({ form: before, step, book, format, scheme });
    this.clear();
    this.form = form;
  }

  /** Shows a step in its form for the first time, unless it is there already, as where its stage is come back to. */
  begin(step: () => Step): void {
    if (this.step) return;
    this.step = step();
    this.began = JSON.stringify(this.step);
  }

  /** Puts away what is being tried; the form that stood before it is there again. */
  leave(): void {
    this.clear();
    const before = this.aside.pop();
    if (before) Object.assign(this, before, { typing: !!before.scheme });
  }

  private clear(): void {
    this.trial =
      this.form =
      this.step =
      this.book =
      this.format =
      this.asking =
      this.recipe =
      this.scheme =
        undefined;
    this.typing = false;
    this.began = '';
  }

  /** Brings the trial onto a docket that moved under it; `rebase` says how, or that it cannot be. */
  follow(rebase: (trial: Docket) => Docket | undefined): void {
    if (this.trial) this.trial = rebase(this.trial);
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
