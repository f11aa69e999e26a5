import { sayAmiss, sayReason, type Reason } from '../amiss';
import { t } from '../language';
/** Sentences: what is wrong, why it matters, what to do. */
export const recipes = {
  'recipe-newer': (data: { version: string | number }) =>
    t`This recipe was saved by a newer Folder (it says version ${data.version}). Bring Folder up to date, or save the recipe anew from a job.`,
  'recipe-unknown-step': (data: { step: string | number; kind: string | number }) =>
    t`Step ${data.step} of this recipe is of the kind “${data.kind}”, which is not known here. It was probably saved by a newer Folder.`,
  'recipe-invalid': (data: { reason: Reason }) =>
    t`This recipe cannot be read: ${sayAmiss(data.reason)}. Take it as it was saved, or save it anew from a job.`,
  'value-missing': (data: { label: string | number; name: string | number }) =>
    t`The recipe asks for “${data.label}” (${data.name}), and nothing was said. Say it, so that the steps know what to do.`,
  'value-wrong': (data: { label: string | number; name?: string | number; reason: Reason }) =>
    t`“${data.label}”${data.name ? ` (${data.name})` : ''} cannot be what was said: ${sayReason(data.reason)}. Say something else; the recipe itself is as it was.`,
  'value-unknown': (data: { name: string | number }) =>
    t`The recipe asks for nothing named “${data.name}”. Check how it is spelt.`,
  'no-such-recipe': (data: { name: string | number }) =>
    t`There is no recipe “${data.name}” any more. Choose another one.`,
  'bad-replay': () =>
    t`What is to be replayed, and on what, was not said in full. Choose a recipe, and jobs or files.`,
  'run-stopped': (data: { count: string | number; what: string | number }) =>
    t`${data.count === 1 ? t`A finding says` : t`${data.count} findings say`} stop (${data.what}), so nothing was handed over. The job is there: open it, mend it, and hand it over from there.`,
  'bad-drop-folder': () => t`A drop folder needs a name and a recipe. Give it both.`,
  'drop-name': (data: { name: string | number }) =>
    t`“${data.name}” cannot be the name of a drop folder: it is one plain directory name, without slashes, colons or dots in front. Choose another one.`,
  'drop-taken': (data: { name: string | number }) =>
    t`There is a drop folder “${data.name}” already. Choose another name.`,
  'drop-outside': (data: { name: string | number }) =>
    t`“${data.name}” leads out of the directory that drop folders are in (it is a link, or something in it is). Take the link away.`,
  'drop-unwritable': (data: { name: string | number; reason: string | number }) =>
    t`The directory of “${data.name}” cannot be read or written (${data.reason}), so no file is taken from it. Give Folder the right to it.`,
  'drop-full': (data: { name: string | number }) =>
    t`The disk that “${data.name}” is on is full, so no file is taken from it. Make room: the files that wait are taken by themselves then.`,
  'drop-busy': (data: { count: string | number }) =>
    t`${data.count === 1 ? t`A file of this folder is` : t`${data.count} files of this folder are`} still being worked. Pause it, wait until they are done, then remove it.`,
  'drop-file-gone': () => t`The file was taken away again before it could be read. Drop it anew.`,
  'drop-no-file': () =>
    t`This is no plain file but a link or a device, and is not followed. Drop the file itself.`,
  'drop-unreadable': (data: { reason: string | number }) =>
    t`The file cannot be opened (${data.reason}). Give Folder the right to read it, and drop it again.`,
};
