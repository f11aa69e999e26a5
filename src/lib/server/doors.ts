/** How a request may come in: which names this Folder is reached by. */
export interface Doors {
  /** Host names without ports, in small letters. */
  names: ReadonlySet<string>;
}

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
const EVERYWHERE = new Set(['0.0.0.0', '::', '[::]']);

/** Whether HOST names this machine alone. */
export const isLoopback = (host: string | undefined): boolean =>
  host !== undefined && (LOOPBACK.includes(host) || host === '::1' || /^127(\.\d{1,3}){3}$/.test(host));

/** The names from the environment: those of the loopback, that of HOST, that of ORIGIN. */
export function doorsOf({ HOST, ORIGIN }: { HOST?: string; ORIGIN?: string }): Doors {
  const names = new Set(LOOPBACK);
  if (HOST && !EVERYWHERE.has(HOST)) names.add(HOST.includes(':') ? `[${HOST}]` : HOST.toLowerCase());
  if (ORIGIN && URL.canParse(ORIGIN)) names.add(new URL(ORIGIN).hostname);
  return { names };
}

/** A request that is not let in: its HTTP status, and why. */
export interface Refusal {
  status: 400 | 403 | 415 | 421;
  code: 'door-address' | 'door-host' | 'door-origin' | 'door-type';
}

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Whether a request may come in. The name that it came to must be one of Folder's own, or a page of another site whose name
 * was pointed here could read and change everything (DNS rebinding). What changes something must come from Folder's own
 * pages, or from no page at all; browsers say so in Origin and Sec-Fetch-Site (Fetch standard, Fetch Metadata), and neither
 * can be set by a page.
 */
export function refusalOf(request: Request, { names }: Doors): Refusal | undefined {
  const { method, headers } = request;
  const { pathname, search } = new URL(request.url);
  if (!isReadable(pathname) || !isReadable(search.replaceAll('+', ' ')))
    return { status: 400, code: 'door-address' };
  const host = headers.get('host') ?? '';
  if (!names.has(hostnameOf(host))) return { status: 421, code: 'door-host' };
  const changes = !SAFE.has(method);
  const site = headers.get('sec-fetch-site');
  if ((changes || pathname.startsWith('/api/')) && (site === 'cross-site' || site === 'same-site'))
    return { status: 403, code: 'door-origin' };
  const origin = headers.get('origin');
  if (origin !== null && (changes || pathname.startsWith('/api/')) && !isOf(origin, host))
    return { status: 403, code: 'door-origin' };
  // Without a type a POST could have come from any page, in a browser that says nothing of where it comes from.
  if (method === 'POST' && !headers.has('content-type') && !headers.has('tus-resumable'))
    return { status: 415, code: 'door-type' };
  return undefined;
}

const hostnameOf = (host: string): string => host.replace(/:\d*$/, '').toLowerCase();

const isOf = (origin: string, host: string): boolean =>
  URL.canParse(origin) && new URL(origin).host === withoutUsualPort(host, origin);

/** Browsers leave the usual port of a scheme out of Origin; a proxy may say it in Host. */
const withoutUsualPort = (host: string, origin: string): string =>
  host.toLowerCase().replace(origin.startsWith('https:') ? /:443$/ : /:80$/, '');

/** Percent signs that stand for readable text, which the database can hold. */
function isReadable(text: string): boolean {
  try {
    return !decodeURIComponent(text).includes('\0');
  } catch {
    return false;
  }
}

/** What every answer says to browsers (OWASP Secure Headers). */
export const HEADERS: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), geolocation=(), microphone=()',
};
/** For answers that are no page: nothing in them may run or load, wherever they are opened. */
export const NO_PAGE_CSP = "default-src 'none'; frame-ancestors 'none'; sandbox";
/** For PDFs, which a browser's viewer opens: it does not work in a sandbox, and runs nothing of Folder's. */
export const PDF_CSP = "frame-ancestors 'none'";
