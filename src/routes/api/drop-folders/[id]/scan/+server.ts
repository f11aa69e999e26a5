import { jsonOf } from '$lib/server/body';
import { nameOfDropFolder } from '$lib/server/dropFolders';
import { answer, Problem } from '$lib/server/problem';
import { deliver, SCAN_FAULTS, SCAN_KINDS } from '$lib/server/standins/scanner';
import * as z from 'zod';

const faultsSchema = z.object({
  faults: z.array(z.enum(SCAN_FAULTS)),
  kind: z.enum(SCAN_KINDS).optional(),
});

/** Has the scanner stand-in deliver a booklet here, with faults. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const asked = faultsSchema.safeParse(await jsonOf(request));
    if (!asked.success) throw new Problem(400, { code: 'bad-drop-folder' });
    const { faults, kind } = asked.data;
    return { name: await deliver(await nameOfDropFolder(params.id), faults, kind) };
  });
