import { t } from '../words/language';
import type { Kept, KeptKind } from '../core/docket/kept';
import { sayTrouble } from '../words/troubles';
import { api, Refused } from './api';

/** What the preparer keeps of one kind under names, for every job. */
export class KeptOf<Kind extends KeptKind> {
  all = $state.raw<readonly Kept<Kind>[]>([]);
  trouble = $state('');
  private asked = false;

  constructor(private readonly kind: Kind) {}

  /** Fetches them when they are first wanted. */
  load(): void {
    if (this.asked) return;
    this.asked = true;
    void this.ask(() => api.kept(this.kind)).then((there) => (this.asked = there));
  }

  keep = (kept: Kept<Kind>): Promise<boolean> => this.ask(() => api.keep(this.kind, kept));
  forget = (name: string): Promise<boolean> => this.ask(() => api.forget(this.kind, name));

  private async ask(work: () => Promise<Kept<Kind>[]>): Promise<boolean> {
    this.trouble = '';
    try {
      this.all = await work();
      return true;
    } catch (error) {
      this.trouble =
        error instanceof Refused
          ? sayTrouble(error.trouble)
          : t`Not kept: the server does not answer. Try again in a moment.`;
      return false;
    }
  }
}

export const papers = new KeptOf('paper');
export const ownFolds = new KeptOf('folds');
