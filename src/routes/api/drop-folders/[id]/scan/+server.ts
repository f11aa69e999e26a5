import { jsonOf } from '$lib/server/body';
import { nameOfDropFolder } from '$lib/server/dropFolders';
import { answer, Problem } from '$lib/server/problem';
import { deliver, SCAN_FAULTS } from '$lib/server/standins/scanner';
import * as z from 'zod';

const faultsSchema = z.object({ faults: z.array(z.enum(SCAN_FAULTS)) });

/** Has the scanner stand-in deliver a booklet here, with faults. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const asked = faultsSchema.safeParse(await jsonOf(request));
    if (!asked.success) throw new Problem(400, { code: 'bad-drop-folder' });
    return { name: await deliver(await nameOfDropFolder(params.id), asked.data.faults) };
  });
