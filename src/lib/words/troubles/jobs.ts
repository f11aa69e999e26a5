import { sayAmiss, type Reason } from '../amiss';
import { t } from '../language';
/** Sentences: what is wrong, why it matters, what to do. */
export const jobs = {
  'no-such-drop-folder': () =>
    t`This drop folder is no longer there: somebody removed it. Its directory stays; add it anew.`,
  'bad-output': (data: { reason: Reason }) =>
    t`This cannot be handed over as it is set up: ${sayAmiss(data.reason)}. Mend what is marked wrong first.`,
  'no-such-job': () => t`This job is no longer there: somebody deleted it. Go back to the jobs.`,
  stale: () =>
    t`The job was changed in another window meanwhile, and this change was not put over it. Look at it as it is now, and do it again.`,
  'bad-place': () =>
    t`There is no such place among the pages any more, so the file was not taken in. Choose where its pages go.`,
  'bad-stamp': () =>
    t`A stamp is kept under a name, with its file. Give it a name, and choose a file for it.`,
  'bad-kept': () =>
    t`It is kept under a name of 1 to 60 letters. Give it one, and mend what is marked wrong first.`,
  'bad-size': () => t`A size needs a name and two sides longer than 0. Give it both.`,
  'size-name-taken': (data: { name: string | number }) =>
    t`“${data.name}” is the name of a standard size. Choose another one, so that nobody mistakes them.`,
  'no-revision': () =>
    t`Nothing says which state of the job this change was made of, so it could overwrite what somebody else did. Load the page anew, and do it again.`,
  'docket-newer': (data: { version: string | number }) =>
    t`This docket was written by a newer Folder (it says version ${data.version}). Bring Folder up to date, or save the docket anew from the older one.`,
  'job-newer': (data: { version: string | number }) =>
    t`This job was written by a newer Folder (its docket says version ${data.version}), and this one cannot read it without losing something. Bring Folder up to date to open it; its docket can be downloaded as it is.`,
  'job-damaged': (data: { reason: Reason }) =>
    t`The docket of this job cannot be read (${sayAmiss(data.reason)}). It can be downloaded as it is, mended and given to a new job; the files are unharmed.`,
  'bad-archive': () =>
    t`This is no job that Folder saved, or it is damaged: a part of it is missing or not what it should be. Nothing was opened; save the job as a file again, and bring that.`,
  'docket-invalid': (data: { reason: Reason }) =>
    t`The docket cannot be read: ${sayAmiss(data.reason)}. Take one that Folder saved, or mend this in it.`,
};
