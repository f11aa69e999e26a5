import { PDFDict, PDFDocument, PDFName, PDFString, type PDFObject } from '@cantoo/pdf-lib';
import { expect, test } from 'vitest';
import { docketOf } from '../../../../tests/makers';
import { give, make, markedPdf, tool, writtenPdf } from '../../../../tests/outside';
import { ACTIVE_KINDS } from '../../core/model/survey';

/** A file with every kind of active content (ISO 32000-1, 12.6.4, 7.11.4, 12.7.8), and links and a font named as actions are. */
async function activePdf(): Promise<Uint8Array> {
  const document = await PDFDocument.load(await markedPdf(2));
  const { context, catalog } = document;
  const text = (value: string) => PDFString.of(value);
  const action = (S: string, more: object = {}) => context.register(context.obj({ S, ...more }));
  const script = (more: object = {}) => action('JavaScript', { JS: text('app.alert(1)'), ...more });
  const file = context.register(
    context.obj({
      Type: 'Filespec',
      F: text('inside.exe'),
      UF: text('inside.exe'),
      EF: { F: context.register(context.flateStream('payload-inside')) },
    }),
  );
  catalog.set(PDFName.of('OpenAction'), script({ Next: [action('Launch', { F: text('calc.exe') })] }));
  catalog.set(PDFName.of('AA'), context.obj({ WC: script() }));
  catalog.set(PDFName.of('AF'), context.obj([file]));
  catalog.set(PDFName.of('NeedsRendering'), context.obj(true));
  catalog.set(PDFName.of('Collection'), context.obj({ Type: 'Collection' }));
  catalog.set(
    PDFName.of('Names'),
    context.obj({
      JavaScript: { Names: [text('a'), script()] },
      EmbeddedFiles: { Names: [text('b'), file] },
      Renditions: { Names: [] },
    }),
  );
  catalog.set(
    PDFName.of('AcroForm'),
    context.obj({ Fields: [], XFA: context.register(context.flateStream('<xdp/>')) }),
  );
  const page = document.getPage(0);
  const annotation = (Subtype: string, more: object) =>
    context.register(context.obj({ Type: 'Annot', Subtype, Rect: [10, 10, 60, 30], ...more }));
  page.node.set(PDFName.of('AA'), context.obj({ O: action('Launch', { F: text('x.exe') }) }));
  page.node.set(
    PDFName.of('Annots'),
    context.obj([
      annotation('Link', { A: action('URI', { URI: text('https://larkmoor.example/') }) }),
      annotation('Link', { A: action('GoTo', { D: [document.getPage(1).ref, 'Fit'] }) }),
      annotation('Link', { A: action('GoToR', { F: text('other.pdf'), D: [0, 'Fit'] }) }),
      annotation('Widget', {
        FT: 'Btn',
        A: action('SubmitForm', { F: text('https://elsewhere.example/') }),
        AA: { D: script() },
      }),
      annotation('FileAttachment', { FS: file }),
      annotation('RichMedia', {}),
      annotation('Link', { A: action('SetOCGState', { State: [] }) }),
    ] as unknown as PDFObject[]),
  );
  // Names that mean something elsewhere and are only names here.
  const fonts = page.node.Resources()!.lookup(PDFName.of('Font'), PDFDict);
  const font = context.register(context.obj({ Type: 'Font', Subtype: 'Type1', BaseFont: 'Times-Roman' }));
  for (const name of ['AA', 'A', 'XFA', 'EF', 'JavaScript']) fonts.set(PDFName.of(name), font);
  const tree = context.nextRef();
  const element = context.register(context.obj({ Type: 'StructElem', S: 'Movie', P: tree, K: 0 }));
  context.assign(tree, context.obj({ Type: 'StructTreeRoot', K: element }));
  catalog.set(PDFName.of('StructTreeRoot'), tree);
  return document.save({ useObjectStreams: false });
}

const ACTIVE =
  /\/JavaScript\b(?! \d+ 0 R)|\/JS\b|Launch|OpenAction|\/AA\b(?! \d+ 0 R)|EmbeddedFile|payload-inside|inside\.exe|\/XFA\b(?! \d+ 0 R)|NeedsRendering|Collection|GoToR|SubmitForm|RichMedia|FileAttachment|SetOCGState|elsewhere/;

test('what a file can do besides being looked at is told, and none of it goes out; links stay, and what prints (qpdf)', async () => {
  const given = await give(await activePdf());
  expect(given.survey.active).toEqual(ACTIVE_KINDS);
  const docket = docketOf([
    { id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } },
  ]);
  for (const output of [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }] as const) {
    const path = await make(docket, output, given);
    const qdf = tool('qpdf', '--qdf', '--object-streams=disable', path, '-');
    expect(qdf.match(ACTIVE)?.[0]).toBeUndefined();
    tool('qpdf', '--check', path);
    expect(tool('pdftotext', path, '-')).toContain('P1');
    if (output.kind === 'sheets') continue;
    expect(qdf).toContain('https://larkmoor.example/');
    expect(qdf).toMatch(/\/S \/GoTo\b/);
    expect(qdf).toMatch(/\/S \/Movie/);
  }
});

test.each<[how: string, objects: string[], entry: string, found?: string[]]>([
  [
    'in an object of its own, which says where it belongs',
    ['<< /S /JavaScript /JS (1) /P 3 0 R >>'],
    '/A 6 0 R',
  ],
  ['under a name that is written otherwise', ['<< /S /J#61vaScript /JS (1) >>'], '/A 6 0 R'],
  ['with its type in an object of its own', ['<< /S 7 0 R /JS (1) /K 0 >>', '/JavaScript'], '/A 6 0 R'],
  [
    'in a list of what comes next',
    ['[ << /S /JavaScript /JS (1) /K 0 >> ]'],
    '/A << /S /GoTo /D [3 0 R /Fit] /Next 6 0 R >>',
  ],
  [
    'behind a key that stands twice, of which some viewers take the first',
    [],
    '/A << /S /JavaScript /JS (1) >> /A << /S /GoTo /D [3 0 R /Fit] >>',
    [],
  ],
  ['as what a trigger does', ['<< /E 7 0 R >>', '<< /S /JavaScript /JS (1) /K 0 >>'], '/AA 6 0 R'],
])('a script is found and taken out %s', async (_, objects, entry, found = ['javascript']) => {
  const given = await give(
    writtenPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Annots [5 0 R] >>',
      '<< /Length 15 >>\nstream\n0 0 9 9 re f   \nendstream',
      `<< /Type /Annot /Subtype /Link /Rect [0 0 9 9] ${entry} >>`,
      ...objects,
    ]),
  );
  expect(given.survey.active).toEqual(found);
  const docket = docketOf([
    { id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } },
  ]);
  const path = await make(docket, { kind: 'pages', crop: 'trim' }, given);
  expect(tool('qpdf', '--qdf', '--object-streams=disable', path, '-')).not.toMatch(/JavaScript|\/JS/);
});

test('a plain file has none of it', async () => {
  expect((await give(await markedPdf(1))).survey.active).toEqual([]);
});
