import type { Component } from 'svelte';
import type { Step } from '../../../core/docket/steps';
import type { FieldsProps } from '../fields';
import BlankFields from './BlankFields.svelte';
import BleedFields from './BleedFields.svelte';
import CopyFields from './CopyFields.svelte';
import CoverFields from './CoverFields.svelte';
import CropFields from './CropFields.svelte';
import FolioFields from './FolioFields.svelte';
import FormatFields from './FormatFields.svelte';
import InkFields from './InkFields.svelte';
import JoinFields from './JoinFields.svelte';
import MarginsFields from './MarginsFields.svelte';
import NumbersFields from './NumbersFields.svelte';
import OverlayFields from './OverlayFields.svelte';
import PanelFields from './PanelFields.svelte';
import PieceFields from './PieceFields.svelte';
import ReadingOrderFields from './ReadingOrderFields.svelte';
import RunningFields from './RunningFields.svelte';
import SetFields from './SetFields.svelte';
import SplitFields from './SplitFields.svelte';
import StampFields from './StampFields.svelte';
import TakeInFields from './TakeInFields.svelte';
import TrimFields from './TrimFields.svelte';
import PlainFields from './PlainFields.svelte';

type Fields<Kind extends Step['kind']> = Component<FieldsProps<Kind>>;

/** The fields of each kind of step besides its pages: written by hand where they need a picture, else drawn from schema and words. */
const FIELDS: { [Kind in Step['kind']]: Fields<Kind> | 'plain' } = {
  'take-in': TakeInFields,
  blank: BlankFields,
  copy: CopyFields,
  trim: TrimFields,
  bleed: BleedFields,
  crop: CropFields,
  margins: MarginsFields,
  format: FormatFields,
  piece: PieceFields,
  panel: PanelFields,
  cover: CoverFields,
  split: SplitFields,
  join: JoinFields,
  'reading-order': ReadingOrderFields,
  numbers: NumbersFields,
  folio: FolioFields,
  running: RunningFields,
  set: SetFields,
  stamp: StampFields,
  overlay: OverlayFields,
  ink: InkFields,
  move: 'plain',
  remove: 'plain',
  uncrop: 'plain',
  turn: 'plain',
  'give-back': 'plain',
  keep: 'plain',
};
export const stepFields = (kind: Step['kind']): Fields<Step['kind']> => {
  const fields = FIELDS[kind];
  return fields === 'plain' ? PlainFields : (fields as unknown as Fields<Step['kind']>);
};
