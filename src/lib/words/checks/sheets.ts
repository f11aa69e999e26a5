import { t } from '../language';
import { markWords } from '../marks';
import { opposite } from '../../core/pages/page';
import type { Side } from '../../core/model/page';
import { plural } from '../plural';
import { SPINE_OF, WHERE } from '../book';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

const MOST_PLACES = 6;

/** What is met where, in words: `page 6 where 3 belongs, nothing if 8 belongs`. */
function sayPlaces(places: readonly { place: string; shows?: string; turned: boolean }[]): string {
  const said = places.slice(0, MOST_PLACES).map(({ place, shows, turned }) => {
    const upside = turned ? t` upside down` : '';
    if (!shows) return t`nothing where ${place} belongs`;
    return shows === place ? t`page ${place}${upside}` : t`page ${shows}${upside} where ${place} belongs`;
  });
  const more = places.length - said.length;
  return `${said.join(', ')}${more > 0 ? t` and ${more} more` : ''}`;
}

/** So many are named, the rest counted. */
const MOST_NAMED = 6;

export const sheets: CheckWords<'sheets'> = {
  found: {
    'blanks-wanted': (finding) => ({
      title: t`${plural(finding.count, 'blank')} fill the last sheet`.replace(
        '1 blank fill',
        '1 blank fills',
      ),
      text: t`${plural(finding.total, 'page')} ${finding.total === 1 ? t`does` : t`do`} not divide by ${finding.by}. ${finding.pad === 'end' ? t`The blanks go after the last page` : t`The blanks go before the last page, which stays the back cover`}.`,
    }),
    'gang-apart': (finding) => ({
      title: t`The pieces do not fit on one sheet`,
      text: t`Each lies on a sheet of its own, to be printed as often as it is wanted: ${listed(
        finding.sheets
          .slice(0, MOST_NAMED)
          .map((count, n) => t`sheet ${n + 1} ${count} times for ${finding.wanted[n]}`),
      )}${finding.sheets.length > MOST_NAMED ? t` and so on` : ''}. Take a larger sheet to gang them.`,
    }),
    'marks-dropped': (finding) => ({
      title: t`No room for ${listed(finding.marks.map((mark) => markWords(mark).dropped ?? markWords(mark).name))}`,
      text: t`Left out where it would lie on the work or off the sheet. Take a larger sheet, or shorter marks.`,
    }),
    'first-page-side': (finding) => ({
      title: t`The first page lies ${WHERE[opposite(finding.side)]}`,
      text: t`A stitched booklet with its spine at the ${SPINE_OF[finding.side]} begins ${WHERE[finding.side]}: its outer sheet folds round the others with page 1 in front.`,
    }),
    'sheet-too-small': (finding, { size }) => ({
      title: finding.of ? t`The cover’s sheet is too small` : t`The sheet is too small`,
      text: t`The trims do not fit on ${size(finding.sheet)}. With bleed and marks they need ${size(finding.needed)}.`,
    }),
    'by-hand': (finding) => ({
      title: t`${plural(finding.places.length, 'cell')} changed by hand`,
      text: t`${finding.folded ? t`Folded` : t`Cut`}, the piece shows ${sayPlaces(finding.places)}.`,
    }),
    'by-hand-gone': (finding) => ({
      title: t`A cell changed by hand is gone`,
      text: t`${plural(finding.count, 'change')} by hand ${finding.count === 1 ? t`is` : t`are`} for cells that these sheets do not have, and nothing is done there.`,
    }),
    'bleed-off-sheet': (finding, { size }) => ({
      title: finding.of ? t`The cover’s bleed runs off its sheet` : t`The bleed runs off the sheet`,
      text: t`The trims fit on ${size(finding.sheet)}, the bleed does not, so edges may stay white. With bleed and marks: ${size(finding.needed)}.`,
    }),
    'marks-off-sheet': (finding, { size }) => ({
      title: finding.of ? t`No room for all marks of the cover` : t`No room for all marks`,
      text: t`Marks run off ${size(finding.sheet)} and will not show whole. With marks the sheet needs ${size(finding.needed)}.`,
    }),
  },
  mends: {
    'larger-sheet': (data) => t`Use ${data.name}`,
    'first-side': (data) => t`First page ${WHERE[data.side as Side]}`,
    'as-planned': () => t`As the scheme has it`,
    'drop-gone': () => t`Drop what is gone`,
    'fill-with-blanks': (data) =>
      `${data.count === 1 ? t`1 blank` : t`${data.count} blanks`} ${data.place === 'end' ? t`at the end` : t`before the last page`}`,
  },
};
