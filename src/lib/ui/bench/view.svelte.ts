import type { Finding } from '../../core/checks';

export type Guide = 'safe' | 'margins' | 'away';

/** How the pages are looked at. */
export class View {
  /** What the mat shows besides trim and bleed. */
  guides = $state<Record<Guide, boolean>>({ safe: false, margins: true, away: false });
  /** How the pages are set against their sources. */
  compare = $state<'off' | 'beside' | 'blink'>('off');
  /** Leaves whose fold-outs are shown folded in, by the page that they hang on. */
  folded = $state.raw<ReadonlySet<string>>(new Set());
  /** The page that was typed, to be brought into sight. */
  goTo = $state.raw<number | undefined>();
  /** Distances are being measured. */
  measure = $state(false);
  /** Pages that a step acted on, while the pointer or the focus is on it. */
  hinted = $state.raw<ReadonlySet<string>>(new Set());
  /** A finding that the reader was led to. */
  pointed = $state.raw<Finding | undefined>();

  toggleGuide(guide: Guide): void {
    this.guides = { ...this.guides, [guide]: !this.guides[guide] };
  }
}
