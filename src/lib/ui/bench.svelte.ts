import { t } from '../words/language';
import type { Stage } from '../core/checks/finding';
import { recordOf } from '../core/entries';
import { Draft, type OpenForm } from './bench/draft.svelte';
import { Incoming } from './bench/incoming.svelte';
import { Selected } from './bench/selected.svelte';
import { View } from './bench/view.svelte';
import { workOut, type WorkedOut } from '../core/checks';
import type { Finding, Mend } from '../core/checks';
import { mended } from '../core/checks/mended';
import { sourcesOf, type Docket } from '../core/docket/docket';
import type { Beginning } from '../core/docket/stepKind';
import { stepKind, type Step, type StepOf } from '../core/docket/steps';
import { formatOn } from '../core/docket/steps/format';
import type { Aspect, PageList } from '../core/model/page';
import type { Selection } from '../core/model/selection';
import type { Survey, Surveys } from '../core/model/survey';
import { Handing } from './handing.svelte';
import { newStepId } from './newStepId';
import { DummyView } from './dummy/dummyView.svelte';
import { SheetsView } from './sheetsView.svelte';
import { sizes } from './sizes.svelte';
import { mergeDockets } from '../core/docket/mergeDockets';
import type { JobState, JobStatus, MeasureState, OutputState, Present } from '../wire/told';
import { api, isNoAnswer } from './api';
import { Saving } from './saving.svelte';

const STAGES: readonly Stage[] = ['take-in', 'pages', 'numbers', 'sheets', 'dummy', 'hand-over'];
/** What is typed is judged when nothing more came for this long. */
const JUDGE_AFTER_MS = 120;
const POLL_MS = 700;
/** While something is under way in a window in sight, the answer is held back until there is news, and then asked for again. */
const HELD_MS = 50;
/** How often a window polls for changes to its job: while it is visible, and while it is hidden. */
const IDLE_MS = 1000;
const HIDDEN_MS = 5000;

/** One job on the bench: its state and what is worked out from it, with the stores of what is selected, tried, looked at and on its way. */
export class Bench {
  readonly id: string;
  revision = $state(0);
  docket = $state.raw<Docket>()!;
  surveys = $state.raw<Surveys>({});
  /** Who made the docket what it is, where people sign in. */
  by = $state<string | undefined>();
  canUndo = $state(false);
  redo = $state.raw<Docket[]>([]);

  /** The stage that is looked at. */
  at = $state<Stage>('pages');
  /** What is being tried on each stage: it stays there until it is accepted or cancelled. */
  readonly drafts: Record<Stage, Draft> = recordOf(STAGES, () => new Draft());
  /** How the pages are looked at. */
  readonly view = new View();
  readonly selected = new Selected(
    () => this.shown.list,
    (first) => (this.view.goTo = first),
  );
  /** Files on their way. */
  readonly incoming: Incoming;
  /** How the sheets are looked at, and the cell that is worked on. */
  readonly sheets = new SheetsView();
  /** How the dummy is looked at. */
  readonly dummy = new DummyView();
  /** What is being set up on Hand over. */
  readonly handing = new Handing(this);
  notice = $state('');
  outputs = $state.raw<OutputState[]>([]);
  /** Who else has the job open. */
  others = $state.raw<readonly Present[]>([]);
  /** Sources whose drawing is still being measured. */
  measuring = $state.raw<readonly MeasureState[]>([]);

  readonly base: WorkedOut = $derived.by(
    () => (this.lastBase = workOut(this.docket, this.surveys, this.lastBase?.replay)),
  );
  /** What the bench shows: the trial if there is one. */
  readonly shown: WorkedOut = $derived.by(() =>
    this.draft.trial ? workOut(this.draft.trial, this.surveys, this.base.replay) : this.base,
  );
  /** The findings for what the bench shows. In a trial they are worked out once typing has paused. */
  readonly findings: readonly Finding[] = $derived.by(() =>
    this.draft.trial ? this.trialFindings : this.base.findings,
  );

  private trialFindings = $state.raw<readonly Finding[]>([]);
  private lastBase: WorkedOut | undefined;
  private polling: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  /** Something is under way: the next answer may be held back until there is news. */
  private waits = false;
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
    this.incoming = new Incoming(job.id, () => void this.poll());
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

  /** Sends the changes that an earlier window of this browser left unsent, if they still can be merged. */
  sendLeftOver(): void {
    const left = this.saving.leftOver();
    if (!left) return;
    const merged = mergeDockets(left.base.docket, left.docket, this.docket);
    if (!merged) {
      this.notice = t`A change that was made here while the server did not answer could not be put on the docket: the same place was changed elsewhere since.`;
      return;
    }
    if (JSON.stringify(merged) === JSON.stringify(this.docket)) return;
    this.put(merged);
    this.notice = t`A change that was made here while the server did not answer is on the docket now.`;
  }

  get unit() {
    return this.docket.unit;
  }

  /** What is being tried on the stage that is looked at. */
  get draft(): Draft {
    return this.drafts[this.at];
  }

  /** Looks at another stage. What is only pointed at on the one before is tried no more. */
  look(at: Stage): void {
    if (at === this.at) return;
    if (!this.draft.isOpen) this.draft.leave();
    this.at = at;
  }

  /** Puts a new docket in place at once and saves it; what is being tried on this stage is in it, or is done with. */
  put(docket: Docket): void {
    // A size that is accepted, by itself or with a mend, is one used last.
    const { step } = this.draft;
    if (step?.kind === 'trim') sizes.use(step);
    else if (step?.kind === 'copy' && step.size) sizes.use(step.size);
    this.leave();
    this.putBeside(docket);
  }

  /** Puts a docket in place with a change that leaves what is being tried as it is, as of the unit or the title. */
  putBeside(docket: Docket): void {
    const before = this.docket;
    this.docket = docket;
    this.redo = [];
    this.canUndo = true;
    this.followDocket(before);
    this.selected.updateText();
    this.saving.send({ docket });
  }

  /** What is being tried on any stage is tried on the docket as it is now. */
  private followDocket(before: Docket): void {
    for (const draft of Object.values(this.drafts))
      draft.follow(
        (trial) =>
          mergeDockets(before, trial, this.docket) ??
          (draft.step && draft.form ? draft.with(draft.step, this.docket) : undefined),
      );
  }

  /** Puts a step in the place of the one with its id. */
  changeStep(step: Step): void {
    this.changeSteps((steps) => steps.map((each) => (each.id === step.id ? step : each)));
  }

  changeSteps(change: (steps: Step[]) => Step[]): void {
    const steps = change([...this.docket.steps]);
    // A form of a step that goes is of nothing any more.
    for (const draft of Object.values(this.drafts))
      if (draft.form?.step && !steps.some(({ id }) => id === draft.form?.step?.id)) draft.leave();
    this.putBeside({ ...this.docket, steps });
  }

  /** What a mend would make of the docket, with the step that is being tried where its form is open. */
  mended(mend: Mend): Docket {
    return mended(
      ((this.draft.form || this.draft.typing) && this.draft.trial) || this.docket,
      mend,
      newStepId,
    );
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

  /** What a new step begins with; `list` is the list it will meet, by default the one at the docket's end. */
  beginning(list: PageList = this.base.list): Beginning {
    const { surveys, docket, selected } = this;
    const { selection: chosen, indexes } = selected;
    return { list, surveys, formats: docket.formats, safe: docket.safe, chosen, indexes };
  }

  /** The last step of a kind that is carried out. */
  lastOf<Kind extends Step['kind']>(kind: Kind): StepOf<Kind> | undefined {
    return this.docket.steps.findLast((step): step is StepOf<Kind> => step.kind === kind && !step.off);
  }

  /** Opens the slip for a new step of a kind, or for the existing one if a job has only one of that kind. */
  begin(kind: Step['kind']): void {
    const step = stepKind(kind).single && this.lastOf(kind);
    const begun = step && stepKind(kind).extended?.(step, this.beginning());
    this.open({ kind, ...(step ? { step } : {}), ...(begun ? { begun } : {}) });
  }

  /** Opens the slip for a step; an edited step shows what it would do as it is changed. */
  open(form: OpenForm): void {
    this.draft.open(form);
  }

  /** Puts away what is being tried. */
  leave(): void {
    this.draft.leave();
  }

  /** Shows the docket with this step in its place, without accepting it. */
  tryStep(step: Step | undefined): void {
    this.draft.try(step, this.docket);
  }

  acceptStep(step: Step): void {
    this.put(this.draft.with(step, this.docket));
  }

  /** Puts a format on pages, or gives back only some aspects of it, in one step. */
  putFormat(format: string, pages: Selection, only?: Aspect[]): void {
    this.acceptStep({ ...formatOn(format, pages), id: newStepId(), ...(only ? { only } : {}) });
  }

  /** Opens the form for it, which says first how many pages would change size. */
  tryFormat(format: string, pages: Selection): void {
    this.open({ kind: 'format', begun: { ...formatOn(format, pages), id: newStepId() } });
  }

  /** Uploads a file that is laid on pages without becoming a page itself. Returns its SHA-256. Rejects with Refused. */
  async bringGraphic(file: File): Promise<string> {
    const sha256 = await this.incoming.bringGraphic(file);
    if (!this.surveys[sha256]) this.surveys = { ...this.surveys, [sha256]: await api.survey(sha256) };
    return sha256;
  }

  /** Checks the trial once typing has paused. Returns a function that cancels this. */
  judgeSoon(): () => void {
    const tried = this.draft.trial ? this.shown : undefined;
    const soon = setTimeout(() => {
      this.trialFindings = tried?.findings ?? this.base.findings;
    }, JUDGE_AFTER_MS);
    return () => clearTimeout(soon);
  }

  /** Asks how things stand, as where something was just begun, and asks again while something is under way. */
  async poll(): Promise<void> {
    this.waits = false;
    await this.ask();
  }

  private async ask(): Promise<void> {
    clearTimeout(this.polling);
    if (this.closed) return;
    let [busy, away] = [true, false];
    try {
      const { status, tag, others } = await api.pulse(this.id, {
        window: this.window,
        tag: this.tag,
        doing: this.draft.doing,
        ...(this.waits ? { hold: '1' } : {}),
      });
      // A change that waits tells by itself when it gets through.
      if (!this.saving.unsent) this.saving.isBack();
      if (JSON.stringify(others) !== JSON.stringify(this.others)) this.others = others;
      if (status) await this.show(status);
      this.tag = tag;
      busy = this.isBusy() || this.behind;
    } catch (error) {
      [busy, away] = [true, true];
      this.tag = '';
      if (isNoAnswer(error)) this.saving.isAway(error);
    }
    if (this.closed) return;
    clearTimeout(this.polling);
    const isHidden = document.visibilityState === 'hidden';
    this.waits = busy && !away && !isHidden;
    const ms = this.waits ? HELD_MS : busy ? POLL_MS : isHidden ? HIDDEN_MS : IDLE_MS;
    this.polling = setTimeout(() => void this.ask(), ms);
  }

  private async show(status: JobStatus): Promise<void> {
    this.incoming.told(status.intakes);
    this.outputs = status.outputs;
    await this.fetchMeasured(status.measuring);
    this.behind = status.revision !== this.revision;
    if (this.behind && !this.saving.unsent) await this.reload();
  }

  isMeasuring(source: string): boolean {
    return this.measuring.some((each) => each.source === source);
  }

  /** Something is under way that shows how far it is. */
  private isBusy(): boolean {
    return (
      this.incoming.isBusy ||
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
    // A change made meanwhile learns of the conflict when it is sent.
    if (this.saving.unsent) return;
    // A late answer is no news: a newer docket is in place already.
    if (job.revision < this.revision) return;
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
  private async fetchMeasured(measuring: readonly MeasureState[]): Promise<void> {
    this.measuring = measuring;
    for (const { source } of measuring) this.asked.delete(source);
    const due = sourcesOf(this.docket).filter(
      (source) =>
        this.surveys[source]?.pages.some(({ drawn }) => !drawn) &&
        !this.isMeasuring(source) &&
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
    const before = this.docket;
    this.docket = job.docket;
    // What is being tried here stays, on the docket as it is now.
    if (before) this.followDocket(before);
    this.by = job.by;
    this.canUndo = job.canUndo;
    this.redo = job.redo;
    this.selected.dropGone();
  }
}

/** An id of this window. Browsers have randomUUID only on secure origins and loopback. */
const newWindowId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))]
    .map((byte) => byte.toString(16).padStart(2, '0'))
    .join('')
    .replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
