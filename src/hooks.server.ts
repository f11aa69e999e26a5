import { dev } from '$app/environment';
import type { Handle, HandleServerError, RequestEvent } from '@sveltejs/kit';
import { actAs } from '$lib/server/actor';
import { isAway } from '$lib/server/away';
import { stopHearing } from '$lib/server/changes';
import { closeDb } from '$lib/server/db';
import { doorsOf, HEADERS, NO_PAGE_CSP, PDF_CSP, refusalOf } from '$lib/server/doors';
import { reportFault } from '$lib/server/faults';
import { personOf } from '$lib/server/people';
import { answer } from '$lib/server/problem';
import { closeQueue } from '$lib/server/queue';
import { languageOf, speakIn } from '$lib/server/speech';
import { cookieName, isByItself, isOpen, mustSignIn } from '$lib/server/signedIn';
import { LANGUAGE_COOKIE, t } from '$lib/words/language';
import { sayTrouble } from '$lib/words/troubles';

/** What a page's first words are set in is fetched at once, not when a style sheet asks for it: its lines move less. */
const FIRST_FONTS = /(archivo-latin-(400|600)-normal|ibm-plex-mono-latin-400-normal)[^/]*\.woff2$/;
const doors = doorsOf(process.env);
const asksWho = !dev && mustSignIn(process.env);
const cookie = cookieName((process.env.ORIGIN ?? '').startsWith('https:'));

/** Finds out who asks; where they must sign in first, what to answer instead. */
async function refusedAs(event: RequestEvent): Promise<Response | undefined> {
  if (!asksWho) return undefined;
  const { pathname, search } = event.url;
  const token = event.cookies.get(cookie);
  const person = token && (await personOf(token, !isByItself(event.request.method, pathname)));
  if (person) event.locals.person = person;
  if (person || isOpen(pathname)) return undefined;
  if (!pathname.startsWith('/api/')) {
    const location = `/sign-in?to=${encodeURIComponent(pathname + search)}`;
    return new Response(null, { status: 303, headers: { location } });
  }
  return Response.json({ trouble: { code: 'signed-out' } }, { status: 401 });
}

async function answerAs(event: RequestEvent, resolve: Parameters<Handle>[0]['resolve']): Promise<Response> {
  let refused: Response | undefined;
  try {
    refused = await refusedAs(event);
  } catch (error) {
    if (!event.url.pathname.startsWith('/api/')) throw error;
    return answer(() => Promise.reject(error as Error));
  }
  return refused ?? actAs(event.locals.person ?? null, () => resolve(event));
}

export const handle: Handle = async ({ event, resolve }) => {
  const refusal = refusalOf(event.request, doors);
  const language = languageOf(
    event.cookies.get(LANGUAGE_COOKIE),
    event.request.headers.get('accept-language'),
  );
  const inLanguage: typeof resolve = (each) =>
    resolve(each, {
      transformPageChunk: ({ html }) => html.replace('%language%', language),
      preload: ({ type, path }) => type !== 'font' || FIRST_FONTS.test(path),
    });
  const response = refusal
    ? Response.json({ trouble: { code: refusal.code } }, { status: refusal.status })
    : await speakIn(language, () => answerAs(event, inLanguage));
  for (const [name, value] of Object.entries(HEADERS))
    if (!response.headers.has(name)) response.headers.set(name, value);
  if (!response.headers.has('content-security-policy'))
    response.headers.set(
      'content-security-policy',
      response.headers.get('content-type') === 'application/pdf' ? PDF_CSP : NO_PAGE_CSP,
    );
  return response;
};

/** What a page says where something went wrong that nobody foresaw; the whole of it goes into the log. */
export const handleError: HandleServerError = ({ error, status, event }) => {
  if (status === 404) return { message: t`There is nothing at this address. It may have been deleted.` };
  if (isAway(error)) return { message: sayTrouble({ code: 'database-away' }) };
  void reportFault(`the page ${event.route.id ?? event.url.pathname}`, error);
  return { message: sayTrouble({ code: 'server-fault' }) };
};

// A promise that nobody waited for is one request's misfortune, and no reason to leave everybody without a server.
process.on('unhandledRejection', (error) => void reportFault('the web server', error));

// All requests are answered by now. What still waits for nobody (a timer, an idle process) must not keep a stopped server.
process.on('sveltekit:shutdown', async () => {
  await stopHearing();
  await closeQueue();
  await closeDb();
  process.exit(0);
});
