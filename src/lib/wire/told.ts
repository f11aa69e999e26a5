import type { Outcome } from '../core/finish/proof';
import type { Finding } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import type { RecipeValues } from '../core/docket/recipe';
import type { KeptStamp } from '../core/docket/steps/stamp';
import type { Doing } from '../core/handover/doing';
import type { CutBy } from '../core/handover/machines';
import type { Output } from '../core/handover/outputs';
import type { Size } from '../core/measure/box';
import type { Trouble } from '../words/troubles';
import type { Side } from '../core/model/page';
import type { Surface } from '../core/model/surface';

/** What the server tells the bench, as JSON. Times are in ISO 8601, lengths in points. */

/** What the list of jobs shows of one. */
export interface JobSummary {
  title: string;
  unit: Docket['unit'];
  scheme: Docket['scheme']['kind'];
  pages: number;
  sheets: number;
  size?: Size;
  /** How many differently named pieces there are. */
  pieces: number;
  open: { stop: number; look: number; note: number };
  /** The first spread, from left to right or from head to foot, with the size of each source page as seen. */
  spread: { side: Side; surface: Surface; media?: Size }[];
}

/** A job on the list of jobs. */
export interface JobListing {
  id: string;
  summary: JobSummary;
  changedAt: string;
  /** Who changed it last, where people sign in. */
  by?: string;
  /** A newer Folder wrote it: it cannot be opened here, only downloaded and removed. */
  newer?: true;
  /** Another job has the same title. */
  alike?: true;
}

/** The first jobs that were asked for, how many of them there are, and how many jobs there are at all. */
export interface JobPart {
  jobs: JobListing[];
  found: number;
  all: number;
}

/** A job as the bench holds it. */
export interface JobState {
  id: string;
  revision: number;
  docket: Docket;
  /** Who made it what it is, where people sign in. */
  by?: string;
  canUndo: boolean;
  /** Where redo leads, one docket after the other. */
  redo: Docket[];
}

/** A size that the preparer named. */
export interface OwnSize extends Size {
  name: string;
}

/** A stamp that the preparer kept. */
export interface OwnStamp {
  name: string;
  stamp: KeptStamp;
}

/** A file on its way into a job. */
export interface IntakeState {
  id: string;
  name: string;
  state: 'waiting' | 'working' | 'surveyed' | 'done' | 'failed';
  done: number;
  total: number;
  trouble?: Trouble;
  /** It failed and its file was kept: it can be tried again. */
  again?: boolean;
  /** It is a clean copy of scans that are in the job. */
  copy?: boolean;
}

/** One file of an output. */
export interface OutputFile {
  name: string;
  bytes: number;
  /** How many pages it has, where it has pages; the first and the last of them. */
  pages?: number;
  from?: number;
  to?: number;
  /** What a stand-in shows: how large it is. */
  size?: Size;
  /** Which side of a sheet it shows; upside down where the press turned the sheet otherwise than it was laid for. */
  side?: 'front' | 'back';
  upsideDown?: true;
  /** Paths of a tool: what it followed, how far it goes, and how many pieces come loose. */
  cut?: { by: CutBy; length: number; pieces: number };
  /** What a proof came to. */
  proof?: Outcome;
  /** It alone is larger than was allowed. */
  over?: true;
  /** Its last front has no back. */
  alone?: true;
}

/** An output of a job, ordered or made. */
export interface OutputState {
  id: string;
  spec: Output;
  /** Of its file, or of the archive that holds several. */
  fileName: string;
  state: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  doing: Doing;
  done: number;
  total: number;
  files: OutputFile[];
  trouble?: Trouble;
  createdAt: string;
  finishedAt?: string;
  /** Whether the job is still as it was when this was made. */
  upToDate: boolean;
  /** Who ordered it, where people sign in. */
  by?: string;
  /** The revision of the job that it was made of; nothing where it was made with others. */
  revision?: number;
  /** Why it goes out although findings say stop. */
  despite?: string;
}

/** A source whose drawing is being measured: its SHA-256, and how many of its pages are. `total` is 0 until it has begun. */
export interface MeasureState {
  source: string;
  done: number;
  total: number;
}

/** What is found, in short. */
export type Told = { level: Finding['level']; title: string }[];

/** A piece of running or recent work, whatever asked for it: a recipe on a file, an output, a file on its way in, pages being measured. */
export interface WorkState {
  of: 'run' | 'output' | 'intake' | 'measure';
  id: string;
  /** The file that is worked, made or taken in; empty where it is all pages of a job, and `total` says how many. */
  name: string;
  /** What it belongs to: a recipe in its version, or a job. */
  for: string;
  /** Where it came from: a drop folder. */
  folder?: string;
  state: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  doing?: string;
  done: number;
  total: number;
  job?: string;
  findings?: Told;
  trouble?: Trouble;
  /** It failed, and can be tried again. */
  again?: boolean;
  /** How its job begins. */
  spread?: JobSummary['spread'];
  /** Who asked for it, where people sign in. */
  by?: string;
  createdAt: string;
  finishedAt?: string;
}

/** What a recipe made of a job. */
export interface ReplayedState {
  job: string;
  title: string;
  pages: number;
  findings: Told;
  trouble?: Trouble;
}

/** A drop folder, with how many files of it wait, are done and failed. */
export interface DropFolderState {
  id: string;
  name: string;
  path: string;
  recipe: string;
  values: RecipeValues;
  paused: boolean;
  trouble?: Trouble;
  /** Sets of pictures that wait for what is missing of them. */
  sets?: WaitingSet[];
  /** Seconds between the scanner's deliveries, where it delivers by itself. */
  scanEvery?: number;
  waiting: number;
  done: number;
  failed: number;
}

/** A set of pictures in a drop folder: how many came, and what is missing between them. */
export interface WaitingSet {
  name: string;
  pictures: number;
  missing: string[];
}

/** Somebody else who has a job open. */
export interface Present {
  window: string;
  /** Their name, where people sign in. */
  person?: string;
  doing?: string;
}

/** What a window that has a job open is told every second. */
export interface JobPulse {
  tag: string;
  others: Present[];
  /** Missing where it is as the window knows it. */
  status?: JobStatus;
}

/** How a job stands, asked for again and again while something is under way. */
export interface JobStatus {
  revision: number;
  intakes: IntakeState[];
  /** The sources that are not measured yet. */
  measuring: MeasureState[];
  outputs: OutputState[];
}
