import { isLoopback } from './doors';

/** Whether people must sign in: wherever Folder can be reached from other machines, by its own address or through a proxy. */
export function mustSignIn({ HOST, ORIGIN }: { HOST?: string; ORIGIN?: string }): boolean {
  const name = ORIGIN && URL.canParse(ORIGIN) ? new URL(ORIGIN).hostname : undefined;
  return !isLoopback(HOST) || (name !== undefined && !isLoopback(name));
}

/** Cookies of a site that is reached over TLS are bound to it alone by their name (RFC 6265bis, 4.1.3.2). */
export const cookieName = (secure: boolean): string => (secure ? '__Host-folder' : 'folder');
export const cookieOptions = (secure: boolean) =>
  ({ path: '/', httpOnly: true, sameSite: 'strict', secure }) as const;

/** Where a page leads to after signing in: a path of Folder's own, whatever an address says. */
export const innerPath = (to: string | null): string => (to && /^\/(?![/\\])/.test(to) ? to : '/');

/** What can be asked for without signing in. */
export const isOpen = (pathname: string): boolean =>
  pathname === '/sign-in' || pathname === '/healthz' || pathname === '/api/session';

/** What windows ask for by themselves, so that it is no sign of anybody being there. */
export const isByItself = (method: string, pathname: string): boolean =>
  method === 'GET' && /^\/api\/(work|drop-folders|jobs\/[^/]+\/status)$/.test(pathname);
