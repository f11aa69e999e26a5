import { quarters } from '../measure/matrix';
import { foldSheet } from './fold';
import { impose, type Imposed } from './impose';
import { signaturePattern, type SignaturePages } from './patterns';

const known = new Map<string, Imposed[]>();

/** Where folding puts each page of a signature; a leaf that turns upwards shows its back with the foot at the spine. */
export function signatureLayout(pages: SignaturePages, spine: 'left' | 'right' | 'head'): readonly Imposed[] {
  const key = `${pages} ${spine}`;
  let layout = known.get(key);
  if (!layout) {
    const pattern = signaturePattern(pages, spine);
    layout = impose(foldSheet(pattern, pattern.folds)).map((place) => ({
      ...place,
      turn: spine === 'head' && place.page % 2 === 0 ? quarters(place.turn + 180) : place.turn,
    }));
    known.set(key, layout);
  }
  return layout;
}
