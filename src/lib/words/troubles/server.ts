import { t } from '../language';
/** Sentences: what is wrong, why it matters, what to do. */
export const server = {
  'not-json': () =>
    t`What was sent cannot be read, and nothing was changed. Load the page anew and try again.`,
  'json-too-large': (data: { most: string | number }) =>
    t`This is longer than ${data.most} MB, more than any docket or recipe needs. Nothing was changed; look whether the right file was sent.`,
  'json-too-deep': (data: { most: string | number }) =>
    t`Values lie more than ${data.most} deep in one another, which no docket or recipe does. Nothing was changed; look whether the right file was sent.`,
  'text-unfit': () =>
    t`A text holds a character that cannot be kept (U+0000, or half of a pair). Nothing was changed; take the character away and send it again.`,
  'database-away': () =>
    t`The database does not answer, so nothing can be read or kept just now. What you changed stays in this window; it is sent as soon as the database is back.`,
  'server-fault': () =>
    t`Folder met a fault that nobody foresaw; nothing was changed. Try again. Whoever runs Folder finds what happened with “npm run faults”.`,
  'door-host': () =>
    t`Folder is not known by the name in this address, so nothing is told here: a foreign page could stand behind it. Use the address that Folder prints at its start, or start it with ORIGIN set to this one.`,
  'door-origin': () =>
    t`This was asked by a page that is not Folder’s, and was not done. Do it from Folder itself.`,
  'door-type': () =>
    t`What was sent does not say what it is (its content type is missing), and was not read. Send JSON as application/json.`,
  'door-address': () =>
    t`This address cannot be read: it holds signs that stand for no text. Nothing was changed; go back to the jobs.`,
};
