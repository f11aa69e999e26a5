// Written by “npm run kinds”: the files of each kind in this room.
import type { Step } from '../../../core/docket/steps';
import type { StepFields } from '../fields';
import TakeInFields from './TakeInFields.svelte';
import TrimFields from './TrimFields.svelte';
import BleedFields from './BleedFields.svelte';
import CropFields from './CropFields.svelte';
import StraightenFields from './StraightenFields.svelte';
import MarginsFields from './MarginsFields.svelte';
import FormatFields from './FormatFields.svelte';
import PieceFields from './PieceFields.svelte';
import BlankFields from './BlankFields.svelte';
import CopyFields from './CopyFields.svelte';
import CoverFields from './CoverFields.svelte';
import PanelFields from './PanelFields.svelte';
import SplitFields from './SplitFields.svelte';
import JoinFields from './JoinFields.svelte';
import ReadingOrderFields from './ReadingOrderFields.svelte';
import NumbersFields from './NumbersFields.svelte';
import FolioFields from './FolioFields.svelte';
import RunningFields from './RunningFields.svelte';
import StampFields from './StampFields.svelte';
import OverlayFields from './OverlayFields.svelte';
import SetFields from './SetFields.svelte';
import InkFields from './InkFields.svelte';

export const FIELDS: { [Kind in Step['kind']]: StepFields<Kind> | 'plain' } = {
  'take-in': TakeInFields,
  trim: TrimFields,
  bleed: BleedFields,
  crop: CropFields,
  uncrop: 'plain',
  turn: 'plain',
  straighten: StraightenFields,
  margins: MarginsFields,
  format: FormatFields,
  piece: PieceFields,
  blank: BlankFields,
  copy: CopyFields,
  move: 'plain',
  remove: 'plain',
  keep: 'plain',
  cover: CoverFields,
  panel: PanelFields,
  'give-back': 'plain',
  split: SplitFields,
  join: JoinFields,
  'reading-order': ReadingOrderFields,
  numbers: NumbersFields,
  folio: FolioFields,
  running: RunningFields,
  stamp: StampFields,
  overlay: OverlayFields,
  set: SetFields,
  ink: InkFields,
};
