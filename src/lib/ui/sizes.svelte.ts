import type { Size } from '../core/measure/box';
import { sameSize } from '../core/paper/sizes';
import type { OwnSize } from '../wire/told';
import { api } from './api';

const KEY = 'folder.recent-sizes';
const MOST_RECENT = 6;

/** Sizes at hand besides the standard ones: those the preparer named, for all jobs, and those used last in this browser. */
class Sizes {
  own = $state.raw<readonly OwnSize[]>([]);
  recent = $state.raw<readonly Size[]>([]);
  private asked = false;

  /** Fetches them when they are first wanted. */
  load(): void {
    if (this.asked) return;
    this.asked = true;
    try {
      const kept: Size[] = JSON.parse(localStorage.getItem(KEY) ?? '[]');
      this.recent = kept.filter(({ width, height }) => width > 0 && height > 0);
    } catch {
      // A browser that keeps nothing starts with none.
    }
    void api
      .sizes()
      .then((own) => (this.own = own))
      .catch(() => (this.asked = false));
  }

  use({ width, height }: Size): void {
    this.recent = [
      { width, height },
      ...this.recent.filter((size) => !sameSize(size, { width, height })),
    ].slice(0, MOST_RECENT);
    try {
      localStorage.setItem(KEY, JSON.stringify(this.recent));
    } catch {
      // Then it is remembered until the page is left.
    }
  }

  async keep(name: string, { width, height }: Size): Promise<void> {
    this.own = await api.keepSize({ name, width, height });
  }

  async drop(name: string): Promise<void> {
    this.own = await api.dropSize(name);
  }
}

export const sizes = new Sizes();
