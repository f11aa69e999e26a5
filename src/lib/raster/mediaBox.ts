import type { Box } from '../core/measure/box';
import { applyToBox, invert } from '../core/measure/matrix';
import type { SurveyPage } from '../core/model/survey';

/** The MediaBox of a page in its own user space, as the renderer wants it. */
export const mediaBoxOf = (page: SurveyPage): Box => applyToBox(invert(page.toUpright), page.boxes.media);
