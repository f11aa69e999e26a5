import {
  compose,
  IDENTITY,
  invert,
  isSameMatrix,
  turnIn,
  type Matrix,
  type Turn,
  quarters,
} from '../../core/measure/matrix';
import type { Art } from '../../core/model/art';
import type { SurveyPage } from '../../core/model/survey';
import { remembering } from '../../core/remembering';

/** The slack within which a matrix counts as moving only. */
const UNSCALED = 1e-9;
/** Clockwise turns about the origin. */
const TURNS: Record<Turn, Matrix> = {
  0: IDENTITY,
  90: [0, -1, 1, 0, 0, 0],
  180: [-1, 0, 0, -1, 0, 0],
  270: [0, 1, -1, 0, 0, 0],
};

/**
 * How a source page becomes the output page. `content`, if there is one, is put before its content; `toPage` leads from
 * there, its own user space, to page space; `rotate` is its `/Rotate`. A page that is only moved or turned keeps its content
 * as it is: boxes and `/Rotate` say it all, so that links and form fields turn along.
 */
export const placementOf = ({ place }: Art, { toUpright, rotate }: SurveyPage): Placement =>
  placementFor({ place, toUpright, rotate });

/** See `placementOf`; `toRaw` leads back from page space. */
export interface Placement {
  toPage: Matrix;
  toRaw: Matrix;
  content?: Matrix;
  rotate: Turn;
}

/** How a source page lies, and where its content goes. */
interface SourceLay {
  place: Matrix;
  toUpright: Matrix;
  rotate: number;
}
/** Most pages lie as the one before them does. */
const placementFor = remembering<SourceLay, Placement>(
  (one, other) =>
    isSameMatrix(one.place, other.place) &&
    isSameMatrix(one.toUpright, other.toUpright) &&
    one.rotate === other.rotate,
  workOut,
);

function workOut({ place, toUpright, rotate: rotated }: SourceLay): Placement {
  const turn = turnIn(place);
  const whole = compose(toUpright, place);
  const upright = compose(toUpright, TURNS[turn]);
  const content = compose(whole, invert(upright));
  const [a, b, c, d] = content;
  const rotate = quarters(rotated + turn);
  return [a - 1, b, c, d - 1].every((entry) => Math.abs(entry) < UNSCALED)
    ? { toPage: whole, toRaw: invert(whole), rotate }
    : { toPage: upright, toRaw: invert(upright), content, rotate };
}
