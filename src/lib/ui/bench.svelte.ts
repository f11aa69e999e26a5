import { workOut, type WorkedOut } from '../core/checks';
import type { Finding, Mend } from '../core/checks';
import { mended } from '../core/checks/mended';
import { sourcesOf, type Docket } from '../core/docket/docket';
import type { Format } from '../core/docket/format';
import { withStep } from '../core/docket/edit';
import type { Beginning } from '../core/docket/stepKind';
import { stepKind, type Step, type StepOf } from '../core/docket/steps';
import { formatOn } from '../core/docket/steps/format';
import type { Box } from '../core/measure/box';
import { faceAt, facesOf } from '../core/pages/page';
import type { Aspect, Book, Page, PageList, Side } from '../core/model/page';
import { describeIndexes, pickedOf, resolveSelection, SelectionError } from '../core/select/selection';
import type { Selection } from '../core/model/selection';
import type { Survey, Surveys } from '../core/model/survey';
import { saySelectionError } from '../words/selections';
import { Handing } from './handing.svelte';
import { newStepId } from './newStepId';
import { SheetsView } from './sheetsView.svelte';
import { sizes } from './sizes.svelte';
import { mergeDockets } from '../core/docket/mergeDockets';
import type { IntakeState, JobState, JobStatus, OutputState, Present } from '../wire/told';
import { api, isNoAnswer, Refused, upload } from './api';
import { Saving } from './saving.svelte';

/** A step being set up in the slip: new at the docket's end, or an edit of one that is there. */
export interface Form {
  kind: Step['kind'];
  /** The step that is edited. */
  step?: Step;
  /** A new step that begins with more than its kind says. */
  fresh?: Step;
}

export interface Upload {
  name: string;
  share: number;
}

/** A box in the space of a page that lies on a side. */
export interface OnPage {
  page: Page;
  side: Side;
  box: Box;
}

export type Guide = 'safe' | 'margins' | 'away';

/** What is typed is judged when nothing more came for this long. */
const JUDGE_AFTER_MS = 120;
const POLL_MS = 700;
/** How often a window that shows a job looks whether it moved on, and one that is not looked at. */
const IDLE_MS = 1000;
const HIDDEN_MS = 5000;

/** One job on the bench: its state, what is worked out from it, what is picked, and what is being tried. */
export class Bench {
  readonly id: string;
  revision = $state(0);
  docket = $state.raw<Docket>()!;
  surveys = $state.raw<Surveys>({});
  /** Who made the docket what it is, where people sign in. */
  by = $state<string | undefined>();
  canUndo = $state(false);
  redo = $state.raw<Docket[]>([]);

  /** The docket as it would be when what is tried were accepted. */
  trial = $state.raw<Docket | undefined>();
  /** The trial is a scheme being typed: what is found in it is shown, as for a step's form. */
  typing = $state(false);
  form = $state.raw<Form | undefined>();
  /** The step as the open form, or a handle on the mat, has it so far; whether it can be accepted shows in `trial`. */
  draft = $state.raw<Step | undefined>();
  /** How the book would lie when the draft were accepted, where the form says that too. */
  draftBook = $state.raw<Book | undefined>();
  /** The format being made or changed. */
  format = $state.raw<Format | undefined>();
  picked = $state.raw<ReadonlySet<string>>(new Set());
  pickedText = $state('');
  pickedError = $state('');
  /** How the sheets are looked at, and the cell that is worked on. */
  readonly sheets = new SheetsView();
  /** What is being set up on Hand over. */
  readonly handing = new Handing(this);
  /** A recipe is being saved from this job, or replayed on it. */
  recipe = $state<'save' | 'replay' | undefined>();
  /** A finding that the reader was led to. */
  pointed = $state.raw<Finding | undefined>();

  /** What the mat shows besides trim and bleed. */
  guides = $state<Record<Guide, boolean>>({ safe: false, margins: true, away: false });
  /** How the pages are set against their sources. */
  compare = $state<'off' | 'beside' | 'blink'>('off');
  /** Leaves whose fold-outs are shown folded in, by the page that they hang on. */
  folded = $state.raw<ReadonlySet<string>>(new Set());
  /** The page that was typed, to be brought into sight. */
  goTo = $state.raw<number | undefined>();
  /** Distances are being measured. */
  measure = $state(false);
  /** A form asks for an object on a page to be clicked. */
  asking = $state.raw<((object: OnPage) => void) | undefined>();

  notice = $state('');
  uploads = $state.raw<Upload[]>([]);
  intakes = $state.raw<IntakeState[]>([]);
  outputs = $state.raw<OutputState[]>([]);
  /** Who else has the job open. */
  others = $state.raw<readonly Present[]>([]);
  /** Sources whose drawing is still being measured. */
  measuring = $state.raw<readonly string[]>([]);

  readonly base: WorkedOut = $derived.by(
    () => (this.lastBase = workOut(this.docket, this.surveys, this.lastBase?.replay)),
  );
  /** What the bench shows: the trial where there is one. */
  readonly shown: WorkedOut = $derived.by(() =>
    this.trial ? workOut(this.trial, this.surveys, this.base.replay) : this.base,
  );
  /** What is found in what the bench shows; in a trial, once nothing more was typed for a moment. */
  readonly findings: readonly Finding[] = $derived.by(() =>
    this.trial ? this.trialFindings : this.base.findings,
  );
  readonly pickedIndexes: number[] = $derived(
    facesOf(this.shown.list).flatMap((page, index) => (this.picked.has(page.id) ? [index] : [])),
  );

  private trialFindings = $state.raw<readonly Finding[]>([]);
  private lastBase: WorkedOut | undefined;
  private polling: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  /** The job has moved on. */
  private behind = false;
  /** Sources asked for once after their measure ended. */
  private readonly asked = new Set<string>();

  readonly saving: Saving;
  /** This window, among all that have the job open. */
  private readonly window = newWindowId();
  private tag = '';

  constructor(job: JobState, surveys: Surveys) {
    this.id = job.id;
    this.surveys = surveys;
    this.saving = new Saving(
      {
        id: job.id,
        take: async (state) => {
          await this.fetchSurveys(state.docket);
          this.take(state);
          // What was handed over may be out of date now.
          if (this.outputs.length) void this.poll();
        },
        reload: () => this.reload(),
        say: (notice) => (this.notice = notice),
      },
      job,
    );
    this.take(job);
  }

  /** Sends what an earlier window of this browser could not send any more, where that still can be done. */
  sendLeftOver(): void {
    const left = this.saving.leftOver();
    if (!left) return;
    const merged = mergeDockets(left.base.docket, left.docket, this.docket);
    if (!merged) {
      this.notice =
        'A change that was made here while the server did not answer could not be put on the docket: the same place was changed elsewhere since.';
      return;
    }
    if (JSON.stringify(merged) === JSON.stringify(this.docket)) return;
    this.put(merged);
    this.notice = 'A change that was made here while the server did not answer is on the docket now.';
  }

  get unit() {
    return this.docket.unit;
  }

  toggleGuide(guide: Guide): void {
    this.guides = { ...this.guides, [guide]: !this.guides[guide] };
  }

  /** Puts a new docket in place at once and saves it. */
  put(docket: Docket): void {
    this.docket = docket;
    this.redo = [];
    this.canUndo = true;
    // A size that is accepted, by itself or with a mend, is one used last.
    if (this.draft?.kind === 'trim') sizes.use(this.draft);
    else if (this.draft?.kind === 'copy' && this.draft.size) sizes.use(this.draft.size);
    this.leave();
    this.sayPicked();
    this.saving.send({ docket });
  }

  /** Puts a step in the place of the one with its id. */
  changeStep(step: Step): void {
    this.changeSteps((steps) => steps.map((each) => (each.id === step.id ? step : each)));
  }

  changeSteps(change: (steps: Step[]) => Step[]): void {
    this.put({ ...this.docket, steps: change([...this.docket.steps]) });
  }

  /** What a mend would make of the docket, with the step that is being tried where its form is open. */
  mended(mend: Mend): Docket {
    return mended(((this.form || this.typing) && this.trial) || this.docket, mend, newStepId);
  }

  /** Resolves once all that was put in place is saved. */
  settled(): Promise<void> {
    return this.saving.settled();
  }

  walk(direction: 'undo' | 'redo'): void {
    if (direction === 'undo' ? !this.canUndo : !this.redo.length) return;
    this.leave();
    this.saving.send({ walk: direction });
  }

  /** What a new step is begun with on `list`, that of the docket's end where none is given. */
  beginning(list: PageList = this.base.list): Beginning {
    const { surveys, docket, pickedSelection: chosen, pickedIndexes: indexes } = this;
    return { list, surveys, formats: docket.formats, safe: docket.safe, chosen, indexes };
  }

  /** The last step of a kind that is carried out. */
  lastOf<Kind extends Step['kind']>(kind: Kind): StepOf<Kind> | undefined {
    return this.docket.steps.findLast((step): step is StepOf<Kind> => step.kind === kind && !step.off);
  }

  /** Opens the slip for a new step of a kind; where one is all that a job wants, for the one that is there. */
  begin(kind: Step['kind']): void {
    const step = stepKind(kind).single && this.lastOf(kind);
    this.open({ kind, ...(step ? { step } : {}) });
  }

  /** Opens the slip for a step; an edited step shows what it would do as it is changed. */
  open(form: Form): void {
    this.leave();
    this.form = form;
  }

  /** Puts away what is being tried. */
  leave(): void {
    this.trial = undefined;
    this.typing = false;
    this.form = undefined;
    this.draft = undefined;
    this.draftBook = undefined;
    this.format = undefined;
    this.asking = undefined;
    this.recipe = undefined;
  }

  /** Shows the docket with this step in its place, without accepting it. */
  tryStep(step: Step | undefined): void {
    this.trial = step && withStep(this.docket, step, this.draftBook);
  }

  acceptStep(step: Step): void {
    this.put(withStep(this.docket, step, this.draftBook));
  }

  /** Puts a format on pages, or gives back only some aspects of it, in one step. */
  putFormat(format: string, pages: Selection, only?: Aspect[]): void {
    this.acceptStep({ ...formatOn(format, pages), id: newStepId(), ...(only ? { only } : {}) });
  }

  /** Opens the form for it, which says first how many pages would change size. */
  tryFormat(format: string, pages: Selection): void {
    this.open({ kind: 'format', fresh: { ...formatOn(format, pages), id: newStepId() } });
  }

  pick(ids: Iterable<string>): void {
    this.picked = new Set(ids);
    this.pickedText = describeIndexes(this.pickedIndexes, this.shown.list);
    this.pickedError = '';
  }

  /** Picks one page; with Ctrl it joins the others, or leaves them. */
  pickOne(id: string, { ctrlKey, metaKey }: { ctrlKey: boolean; metaKey: boolean }): void {
    const next = new Set(ctrlKey || metaKey ? this.picked : []);
    if (!next.delete(id)) next.add(id);
    this.pick(next);
  }

  /** Picks by typed text; false, with the reason in `pickedError`, when it cannot be read. */
  pickText(text: string): boolean {
    this.pickedText = text;
    this.pickedError = '';
    if (!text.trim()) {
      this.picked = new Set();
      return true;
    }
    try {
      const indexes = resolveSelection(text, this.shown.list);
      this.picked = new Set(indexes.map((index) => faceAt(this.shown.list, index)!.id));
      this.goTo = indexes[0];
      return true;
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
      this.pickedError = saySelectionError(error);
      return false;
    }
  }

  /** The picked pages as a step keeps them: as typed where text was typed, else those very pages. */
  get pickedSelection(): Selection | undefined {
    if (!this.picked.size) return undefined;
    const typed = this.pickedText.trim();
    if (typed && !this.pickedError && typed !== describeIndexes(this.pickedIndexes, this.shown.list))
      return typed;
    return { ids: [...this.picked] };
  }

  async takeIn(files: Iterable<File>): Promise<void> {
    for (const file of files) {
      const mine: Upload = { name: file.name, share: 0 };
      this.uploads = [...this.uploads, mine];
      try {
        await upload(this.id, file, { at: 'end' }, (share) => {
          mine.share = share;
          this.uploads = [...this.uploads];
        });
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.intakes = [
          ...this.intakes,
          {
            id: `local-${Math.random()}`,
            name: file.name,
            state: 'failed',
            done: 0,
            total: 0,
            trouble: error.trouble,
          },
        ];
      }
      this.uploads = this.uploads.filter((each) => each !== mine);
      void this.poll();
    }
  }

  /** Brings a file that is to be laid on pages, and becomes no page itself; returns its SHA-256. Rejects with Refused. */
  async bringGraphic(file: File): Promise<string> {
    const { id, sha256 } = await upload(this.id, file, { at: 'aside' }, () => undefined);
    for (;;) {
      const { intakes } = await api.status(this.id);
      const mine = intakes.find((intake) => intake.id === id);
      if (!mine) break;
      if (mine.state === 'failed') {
        await api.dismiss(id);
        throw new Refused(422, mine.trouble ?? { code: 'damaged' });
      }
      await new Promise((soon) => setTimeout(soon, POLL_MS / 2));
    }
    if (!this.surveys[sha256]) this.surveys = { ...this.surveys, [sha256]: await api.survey(sha256) };
    void this.poll();
    return sha256;
  }

  /** Has a file surveyed again whose survey failed. */
  async tryIntake(intake: IntakeState): Promise<void> {
    await api.tryAgain('intake', intake.id).catch(() => undefined);
    void this.poll();
  }

  dismiss(intake: IntakeState): void {
    this.intakes = this.intakes.filter((each) => each !== intake);
    if (!intake.id.startsWith('local-')) void api.dismiss(intake.id);
  }

  /** Judges what is tried once it has stood for a moment; returns how to call that off. */
  judgeSoon(): () => void {
    const tried = this.trial ? this.shown : undefined;
    const soon = setTimeout(() => {
      this.trialFindings = tried?.findings ?? this.base.findings;
    }, JUDGE_AFTER_MS);
    return () => clearTimeout(soon);
  }

  /** Asks how things stand, and asks again while something is under way. */
  async poll(): Promise<void> {
    clearTimeout(this.polling);
    if (this.closed) return;
    let busy = true;
    try {
      const { status, tag, others } = await api.pulse(this.id, {
        window: this.window,
        tag: this.tag,
        doing: this.form?.kind ?? (this.typing ? 'scheme' : this.format ? 'format' : ''),
      });
      // A change that waits tells by itself when it gets through.
      if (!this.saving.unsent) this.saving.isBack();
      if (JSON.stringify(others) !== JSON.stringify(this.others)) this.others = others;
      if (status) await this.show(status);
      this.tag = tag;
      busy = this.isBusy() || this.behind;
    } catch (error) {
      busy = true;
      this.tag = '';
      if (isNoAnswer(error)) this.saving.isAway(error);
    }
    if (this.closed) return;
    clearTimeout(this.polling);
    const ms = busy ? POLL_MS : document.visibilityState === 'hidden' ? HIDDEN_MS : IDLE_MS;
    this.polling = setTimeout(() => void this.poll(), ms);
  }

  private async show(status: JobStatus): Promise<void> {
    const local = this.intakes.filter(({ id }) => id.startsWith('local-'));
    this.intakes = [...status.intakes, ...local];
    this.outputs = status.outputs;
    await this.fetchMeasured(status.measuring);
    this.behind = status.revision !== this.revision;
    if (this.behind && !this.saving.unsent) await this.reload();
  }

  /** Something is under way that shows how far it is. */
  private isBusy(): boolean {
    return (
      this.intakes.some(({ state }) => state !== 'failed') ||
      this.measuring.length > 0 ||
      this.outputs.some(({ state }) => state === 'waiting' || state === 'working')
    );
  }

  /** The window is being closed, or put away by the browser. */
  goAway(): void {
    this.saving.keep();
    api.gone(this.id, this.window);
  }

  close(): void {
    this.closed = true;
    api.gone(this.id, this.window);
    this.saving.close();
    clearTimeout(this.polling);
  }

  private async reload(): Promise<void> {
    const job = await api.readJob(this.id);
    await this.fetchSurveys(job.docket);
    // A change that was made meanwhile is told what it was overtaken by when it is sent.
    if (this.saving.unsent) return;
    this.saving.knows(job);
    this.take(job);
  }

  private async fetchSurveys(docket: Docket): Promise<void> {
    const missing = sourcesOf(docket).filter((source) => !this.surveys[source]);
    if (!missing.length) return;
    const fetched = await Promise.all(
      missing.map(async (source): Promise<[string, Survey]> => [source, await api.survey(source)]),
    );
    this.surveys = { ...this.surveys, ...Object.fromEntries(fetched) };
  }

  /** Surveys that have been measured meanwhile are fetched anew. */
  private async fetchMeasured(measuring: readonly string[]): Promise<void> {
    this.measuring = measuring;
    const due = sourcesOf(this.docket).filter(
      (source) =>
        this.surveys[source]?.pages.some(({ drawn }) => !drawn) &&
        !measuring.includes(source) &&
        !this.asked.has(source),
    );
    if (!due.length) return;
    const fetched = await Promise.all(
      due.map(async (source): Promise<[string, Survey]> => [source, await api.survey(source)]),
    );
    due.forEach((source) => this.asked.add(source));
    this.surveys = { ...this.surveys, ...Object.fromEntries(fetched) };
  }

  private take(job: JobState): void {
    this.revision = job.revision;
    this.behind = false;
    // What is being tried here stays, on the docket as it is now.
    if (this.trial) this.trial = mergeDockets(this.docket, this.trial, job.docket) ?? this.trial;
    this.docket = job.docket;
    this.by = job.by;
    this.canUndo = job.canUndo;
    this.redo = job.redo;
    this.picked = new Set(
      [...this.picked].filter((id) => facesOf(this.shown.list).some((page) => page.id === id)),
    );
    this.sayPicked();
  }

  /** The pages picked stay picked when the list changes; what was typed stays as long as it still means them. */
  private sayPicked(): void {
    if (this.pickedError) return;
    const now = this.pickedIndexes;
    const { list } = this.shown;
    const means = this.pickedText.trim() ? pickedOf(this.pickedText, list) : [];
    if (means.join() !== now.join()) this.pickedText = describeIndexes(now, list);
  }
}

/** An id of this window. Browsers have randomUUID only on secure origins and loopback. */
const newWindowId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))]
    .map((byte) => byte.toString(16).padStart(2, '0'))
    .join('')
    .replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
