/** Who is signed in, where people sign in. */
export const load = ({ locals }) => ({ person: locals.person ?? null });
