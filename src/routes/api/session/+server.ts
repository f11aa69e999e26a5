import { objectOf } from '$lib/server/body';
import { signIn, signOut } from '$lib/server/people';
import { answer } from '$lib/server/problem';
import { cookieName, cookieOptions } from '$lib/server/signedIn';

const secure = (process.env.ORIGIN ?? '').startsWith('https:');
const NAME = cookieName(secure);

/** Signs in: `{ name, password }`. */
export const POST = ({ request, cookies, getClientAddress }) =>
  answer(async () => {
    const { name, password } = await objectOf(request);
    const old = cookies.get(NAME);
    const token = await signIn(name, password, getClientAddress());
    // The session of whoever was signed in here before is not taken over.
    if (old) await signOut(old);
    cookies.set(NAME, token, cookieOptions(secure));
  });

/** Signs out. */
export const DELETE = ({ cookies }) =>
  answer(async () => {
    const token = cookies.get(NAME);
    if (token) await signOut(token);
    cookies.delete(NAME, cookieOptions(secure));
  });
