import { answer } from '$lib/server/problem';
import { uploadResponse } from '$lib/server/uploads';

/** Resumable uploads (tus 1.0.0): POST begins one, PATCH brings bytes of it, HEAD says how far it is, DELETE drops it. */
const upload = ({ request }: { request: Request }) => answer(() => uploadResponse(request));
export const POST = upload;
export const PATCH = upload;
export const HEAD = upload;
export const DELETE = upload;
export const OPTIONS = upload;
