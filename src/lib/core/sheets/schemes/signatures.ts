import { mm } from '../../measure/unit';
import { withCover } from '../coverSheet';
import { PLAIN_PRESS } from '../scheme';
import { planSignatures } from '../signatures';
import { signaturesSchema } from '../settings/signatures';
import { defineScheme } from './schemeKind';

/** 3 mm, by practice: what is cut off at head, foot and fore edge, and taken off the spine of a glued book. */
const CUT_OFF = mm(3);

export const signatures = defineScheme(signaturesSchema)({
  kind: 'signatures',
  makes: 'book',
  plain: {
    ...PLAIN_PRESS,
    kind: 'signatures',
    stock: { width: mm(640), height: mm(900) },
    signature: 16,
    last: 'smaller',
    pad: 'end',
    roughing: CUT_OFF,
    cutOff: CUT_OFF,
    collating: true,
  },
  plan: (list, scheme, job) => withCover(planSignatures(list, scheme, job), list, scheme, job),
});
