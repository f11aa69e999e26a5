// Reads the metrics of the shipped faces into the core, which holds no font library.
import { writeFileSync } from 'node:fs';
import { openFace, metricsOfFace } from '../src/lib/pdf/write/fonts';
import { FACES, WEIGHTS } from '../src/lib/core/model/faces';
import { faceKey } from '../src/lib/core/numbers/faceMetrics';

const metrics = FACES.flatMap((face) =>
  WEIGHTS.map((weight) => [faceKey({ face, weight }), metricsOfFace(openFace({ face, weight }))] as const),
);
writeFileSync(
  new URL('../src/lib/core/numbers/faceMetrics.json', import.meta.url),
  `${JSON.stringify(Object.fromEntries(metrics))}\n`,
);
