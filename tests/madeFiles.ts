import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writtenPdf } from './outside';

/** A case that stands in a file, by its name under tests/cases/files. */
export const caseFile = (name: string): Buffer =>
  readFileSync(join(import.meta.dirname, 'cases', 'files', `${name}.pdf`));

const stream = (dict: string, data: string): string =>
  `<< ${dict} /Length ${data.length} >>\nstream\n${data}\nendstream`;
const FUNCTION = '<< /FunctionType 2 /Domain [0 1] /C0 [1 0 0] /C1 [0 0 1] /N 1 >>';
/** Bytes as hexadecimal data. */
const hex = (...bytes: number[]) => `${bytes.map((byte) => byte.toString(16).padStart(2, '0')).join('')}>`;
/** A corner of a mesh: its flag where it has one, its place, its colour. */
const corner = (x: number, y: number, r: number, g: number, b: number, flag?: number) => [
  ...(flag === undefined ? [] : [flag]),
  x,
  y,
  r,
  g,
  b,
];
const MESH =
  '/ColorSpace /DeviceRGB /BitsPerCoordinate 8 /BitsPerComponent 8 /Decode [0 300 0 400 0 1 0 1 0 1] /Filter /ASCIIHexDecode';
const PATCH = [
  ...[
    20, 20, 20, 90, 20, 160, 20, 230, 90, 250, 160, 210, 230, 230, 210, 160, 250, 90, 230, 20, 160, 40, 90,
    10,
  ],
];
const COLOURS = [255, 0, 0, 0, 255, 0, 0, 0, 255, 255, 255, 0];

interface Made {
  content: string;
  resources?: string;
  more?: string[];
  page?: string;
  catalog?: string;
}
/** A page of 300 × 400 points whose objects go on from 5. */
const page = ({ content, resources = '', more = [], page: entries = '', catalog = '' }: Made): Buffer =>
  writtenPdf([
    `<< /Type /Catalog /Pages 2 0 R ${catalog} >>`,
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Contents 4 0 R /Resources << ${resources} >> ${entries} >>`,
    stream('', content),
    ...more,
  ]);

const BOX = '40 40 220 320 re f';
const shading = (dict: string) => ({
  content: `/Pattern cs /P scn ${BOX} q 0.5 0 0 0.5 20 20 cm /S sh Q`,
  resources: '/Pattern << /P 5 0 R >> /Shading << /S 6 0 R >>',
  more: [`<< /Type /Pattern /PatternType 2 /Shading 6 0 R /Matrix [0.9 0.1 -0.1 0.9 20 10] >>`, dict],
});
const mesh = (type: number, data: number[], more = '') =>
  shading(stream(`/ShadingType ${type} ${MESH} ${more}`, hex(...data)));
const TILE = stream(
  '/Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 40 40] /XStep 50 /YStep 45 /Resources << >> /Matrix [0.8 0.2 -0.2 0.8 30 40]',
  '1 0 0 rg 0 0 20 20 re f 0 0 1 rg 20 20 20 20 re f',
);
const FORM = (dict: string, data: string) =>
  stream(`/Type /XObject /Subtype /Form /BBox [0 0 300 400] ${dict}`, data);

/** Small files of one page of everything whose place or colour hangs on the space that it is drawn in. */
export const MADE_FILES: Record<string, Buffer> = Object.fromEntries(
  Object.entries<Made>({
    'a tiling pattern': {
      content: `/Pattern cs /P scn ${BOX}`,
      resources: '/Pattern << /P 5 0 R >>',
      more: [TILE],
    },
    'an uncoloured tiling pattern': {
      content: `/C cs 0 0.5 0 /P scn ${BOX}`,
      resources: '/Pattern << /P 5 0 R >> /ColorSpace << /C [/Pattern /DeviceRGB] >>',
      more: [
        stream(
          '/Type /Pattern /PatternType 1 /PaintType 2 /TilingType 1 /BBox [0 0 20 20] /XStep 25 /YStep 25 /Resources << >>',
          '0 0 10 10 re f',
        ),
      ],
    },
    'a pattern in a form with resources of its own': {
      content: 'q 0.8 0 0 0.8 30 20 cm /F Do Q',
      resources: '/XObject << /F 6 0 R >>',
      more: [TILE, FORM('/Resources << /Pattern << /P 5 0 R >> >>', `/Pattern cs /P scn ${BOX}`)],
    },
    'shading by function': {
      ...shading(
        '<< /ShadingType 1 /ColorSpace /DeviceRGB /Domain [0 1 0 1] /Matrix [260 0 0 360 20 20] /Function 7 0 R >>',
      ),
      more: [
        '<< /Type /Pattern /PatternType 2 /Shading 6 0 R /Matrix [0.9 0.1 -0.1 0.9 20 10] >>',
        '<< /ShadingType 1 /ColorSpace /DeviceRGB /Domain [0 1 0 1] /Matrix [260 0 0 360 20 20] /Function 7 0 R >>',
        stream('/FunctionType 4 /Domain [0 1 0 1] /Range [0 1 0 1 0 1]', '{ 2 copy mul }'),
      ],
    },
    'axial shading': shading(
      `<< /ShadingType 2 /ColorSpace /DeviceRGB /Coords [40 40 260 360] /Function ${FUNCTION} /Extend [true true] >>`,
    ),
    'radial shading': shading(
      `<< /ShadingType 3 /ColorSpace /DeviceRGB /Coords [150 200 10 150 180 140] /Function ${FUNCTION} /Extend [true false] >>`,
    ),
    'a mesh of triangles': mesh(
      4,
      [...corner(20, 20, 255, 0, 0, 0), ...corner(230, 30, 0, 255, 0, 0), ...corner(120, 230, 0, 0, 255, 0)],
      '/BitsPerFlag 8',
    ),
    'a lattice of triangles': mesh(
      5,
      [
        ...corner(20, 20, 255, 0, 0),
        ...corner(230, 30, 0, 255, 0),
        ...corner(30, 230, 0, 0, 255),
        ...corner(220, 220, 255, 255, 0),
      ],
      '/VerticesPerRow 2',
    ),
    'Coons patches': mesh(6, [0, ...PATCH, ...COLOURS], '/BitsPerFlag 8'),
    'tensor patches': mesh(
      7,
      [0, ...PATCH, 90, 90, 90, 160, 160, 160, 160, 90, ...COLOURS],
      '/BitsPerFlag 8',
    ),
    'a soft mask of luminosity': {
      content: `/G gs 0 0.5 1 rg ${BOX}`,
      resources: '/ExtGState << /G << /SMask << /S /Luminosity /G 5 0 R >> >> >>',
      more: [
        FORM('/Group << /S /Transparency /CS /DeviceGray >> /Resources << >>', '1 g 100 100 100 200 re f'),
      ],
    },
    'a soft mask of alpha, moved': {
      content: `0.7 0 0 0.7 30 40 cm /G gs 0.8 0.2 0 rg ${BOX}`,
      resources: '/ExtGState << /G << /SMask << /S /Alpha /G 5 0 R >> >> >>',
      more: [
        FORM(
          '/Group << /S /Transparency >> /Resources << /ExtGState << /H << /ca 0.5 >> >> >>',
          '100 100 100 200 re f /H gs 20 20 100 100 re f',
        ),
      ],
    },
    'blend modes over each other': {
      content: `1 0.8 0 rg 20 20 200 250 re f /M gs 0 0.6 1 rg 80 120 200 250 re f /D gs 0.3 g 130 60 60 300 re f`,
      resources: '/ExtGState << /M << /BM /Multiply >> /D << /BM /Difference >> >>',
    },
    'a Type 3 font': {
      content: 'BT /T 60 Tf 40 200 Td (abab) Tj 0 -90 Td (ba) Tj ET',
      resources: '/Font << /T 5 0 R >>',
      more: [
        '<< /Type /Font /Subtype /Type3 /FontBBox [0 0 1000 1000] /FontMatrix [0.001 0 0 0.001 0 0] /FirstChar 97 /LastChar 98 /Widths [1000 1000] /Encoding << /Type /Encoding /Differences [97 /a /b] >> /CharProcs << /a 6 0 R /b 7 0 R >> /Resources << >> >>',
        stream('', '1000 0 0 0 750 750 d1 0 0 750 750 re f'),
        stream('', '1000 0 d0 1 0 0 rg 0 0 m 375 750 l 750 0 l f'),
      ],
    },
    'a layer that is off': {
      content: `/OC /L BDC 1 0 0 rg ${BOX} EMC 0 0 1 rg 60 60 80 80 re f`,
      resources: '/Properties << /L 5 0 R >>',
      more: ['<< /Type /OCG /Name (off) >>'],
      catalog: '/OCProperties << /OCGs [5 0 R] /D << /OFF [5 0 R] >> >>',
    },
    'an inline image': {
      content:
        'q 200 0 40 260 50 70 cm BI /W 2 /H 2 /BPC 8 /CS /RGB /F /AHx ID ff000000ff000000ffffff00> EI Q',
    },
    'text as a clip': {
      content: `q BT /H 120 Tf 7 Tr 30 180 Td (Fold) Tj ET /Pattern cs /P scn 0 0 300 400 re f Q`,
      resources:
        '/Pattern << /P 5 0 R >> /Font << /H << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >>',
      more: [TILE],
    },
    'a turned page with a pattern': {
      content: `/Pattern cs /P scn ${BOX}`,
      resources: '/Pattern << /P 5 0 R >>',
      more: [TILE],
      page: '/Rotate 90',
    },
    'units of its own, a box off the origin': {
      content: `/Pattern cs /P scn ${BOX} 0 g 2 w 45 45 210 310 re S`,
      resources: '/Pattern << /P 5 0 R >>',
      more: [TILE],
      page: '/UserUnit 1.5 /MediaBox [20 30 280 370]',
    },
    'a transparency group for the page': {
      content: `/A gs 1 0 0 rg ${BOX} 0 0 1 rg 100 100 180 280 re f`,
      resources: '/ExtGState << /A << /ca 0.5 >> >>',
      page: '/Group << /S /Transparency /CS /DeviceRGB /I true >>',
    },
  }).map(([name, made]) => [name, page(made)]),
);
