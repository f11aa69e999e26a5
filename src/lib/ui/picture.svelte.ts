import { getContext, onDestroy } from 'svelte';
import { heightOf, widthOf, type Size } from '../core/measure/box';
import type { Matrix } from '../core/measure/matrix';
import type { Surveys } from '../core/model/survey';
import type { Pictures } from './pictures.svelte';

/** What a component shows of a source, at how many pixels a point. */
interface Shown {
  source: string;
  index: number;
  matrix: Matrix;
  /** See-through if nothing is drawn. */
  clear?: boolean;
  surveys: Surveys;
  k: number;
}

/** The picture of a source page as a component shows it, asked for at the size that it has there. Called while the component is made. */
export function pictureFor(shown: () => Shown | undefined): {
  /** The source page's size as seen; undefined while its survey is not here. */
  readonly size: Size | undefined;
  readonly url: string | undefined;
  readonly broken: boolean;
} {
  const pictures = getContext<Pictures>('pictures');
  const now = $derived(shown());
  const page = $derived(now && now.surveys[now.source]?.pages[now.index]);
  const size = $derived(page && { width: widthOf(page.boxes.media), height: heightOf(page.boxes.media) });
  $effect(() => {
    if (!now || !page || !size) return;
    const { source, index, matrix, k } = now;
    const points = Math.max(size.width, size.height) * Math.hypot(matrix[0], matrix[1]);
    pictures.want(source, index, page, points * k * (globalThis.devicePixelRatio ?? 1), !!now.clear);
  });
  onDestroy(() => now && pictures.unwant(now.source, now.index, !!now.clear));
  return {
    get size() {
      return size;
    },
    get url() {
      return now && pictures.urlOf(now.source, now.index, !!now.clear);
    },
    get broken() {
      return !!now && pictures.isBroken(now.source, now.index, !!now.clear);
    },
  };
}
