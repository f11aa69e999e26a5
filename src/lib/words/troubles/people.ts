import { t } from '../language';
/** Sentences: what is wrong, why it matters, what to do. */
export const people = {
  'person-name': () =>
    t`A name has 1 to 60 letters, figures, spaces, dots, hyphens or apostrophes, and begins with a letter or figure. Choose another one.`,
  'password-short': (data: { least: string | number; most: string | number }) =>
    t`A password has ${data.least} to ${data.most} characters: a handful of words that do not belong together is easy to keep and hard to guess. Choose a longer one.`,
  'password-name': () => t`This password is little more than the name. Choose another one.`,
  'sign-in-wrong': () =>
    t`Name or password is wrong. Try again, or ask whoever runs Folder here for a new password.`,
  'sign-in-often': (data: { minutes: string | number }) =>
    t`This was tried too often. Wait ${data.minutes} minutes, or ask whoever runs Folder here for a new password.`,
  'signed-out': () =>
    t`You are signed out. Sign in again, in another tab where something is not saved here yet: it is kept meanwhile.`,
};
