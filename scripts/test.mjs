// npm test: all set-up, then every check. Ends with one line: N passed, N failed.
// npm test -- unit, npm test -- e2e, npm test -- FILE…: one part, or only the tests of these files.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { chdir } from 'node:process';
import { dirname, join, relative } from 'node:path';
import { buildProgram, bundleTools, installPackages } from './lib/build.mjs';
import { needPackages } from './lib/debian.mjs';
import { startPostgres } from './lib/postgres.mjs';

chdir(join(dirname(import.meta.filename), '..'));
needPackages([
  'postgresql',
  'chromium',
  'qpdf',
  'poppler-utils',
  'ghostscript',
  'libpaper-utils',
  'mupdf-tools',
  'unzip',
]);
installPackages();

const asked = process.argv.slice(2);
const isSpec = (file) => file.endsWith('.spec.ts');
/** Whether a part of the tests is wanted, and the files of it that were named. */
const wanted = (part) => !asked.length || asked.includes(part);
const filesOf = (isMine) => asked.filter((file) => file.includes('.') && isMine(file));
const units = filesOf((file) => !isSpec(file));
const specs = filesOf(isSpec);
const unknown = asked.filter((each) => !['unit', 'e2e', ...units, ...specs].includes(each));
if (unknown.length) {
  console.error(`“${unknown[0]}” is no part of the tests. Say unit, e2e, or files of tests.`);
  process.exit(2);
}

// All that tests leave lies here, and is gone with it. Fenced processes run as another user and must get in.
const temp = mkdtempSync(join(tmpdir(), 'folder-test-'));
chmodSync(temp, 0o1777);
process.env.TMPDIR = temp;

let [passed, failed] = [0, 0];
/** What did not hold, by name: said again at the end, where one looks first. */
const wrong = [];
const results = join('.folder', 'results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

const step = async (title, command, args, count, env = {}) => {
  console.log(`\n${title}`);
  const started = Date.now();
  const running = spawn(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  const [status] = await once(running, 'exit');
  const counted = count?.(status) ?? (status === 0 ? [1, 0] : [0, 1]);
  if (status !== 0 && counted[1] === 0) counted[1] = 1;
  if (counted[1]) wrong.push(...(counted[2]?.length ? counted[2] : [title]));
  passed += counted[0];
  failed += counted[1];
  console.log(`${title}: ${((Date.now() - started) / 1000).toFixed(0)} s`);
};
const fromReport = (file, read) => () => {
  try {
    return read(JSON.parse(readFileSync(join(results, file), 'utf8')));
  } catch {
    return [0, 1];
  }
};
/** Failed tests of Vitest's report, and files that could not be run at all. */
const unitsWrong = (report) =>
  report.testResults.flatMap((file) => {
    const tests = file.assertionResults.filter((each) => each.status === 'failed');
    if (!tests.length && file.status === 'failed') return [`${relative('.', file.name)}: ${file.message}`];
    return tests.map((each) => `${relative('.', file.name)} › ${each.fullName}`);
  });
/** Failed tests of Playwright's report, of a suite and those in it. */
const specsWrong = (suite) => [
  ...suite.specs.filter((each) => !each.ok).map((each) => `${each.file}:${each.line} › ${each.title}`),
  ...(suite.suites ?? []).flatMap(specsWrong),
];

if (!asked.length) {
  await step('Kit', 'npx', ['svelte-kit', 'sync']);
  await Promise.all([
    step('Types', 'npm', ['run', '-s', 'check:types']),
    step('Lint', 'npm', ['run', '-s', 'check:lint']),
  ]);
}
const database = await startPostgres('test-postgres');
try {
  const env = { DATABASE_URL: database.url };
  const runUnits = () => {
    // Fenced processes start from their bundles: from the sources each would take seconds.
    bundleTools();
    const reports = ['--reporter=default', '--reporter=json', `--outputFile.json=${results}/unit.json`];
    return step(
      'Unit tests',
      'npx',
      ['vitest', 'run', ...reports, ...units],
      fromReport('unit.json', (r) => [r.numPassedTests, r.numFailedTests, unitsWrong(r)]),
      { ...env, FOLDER_BUILT: '1' },
    );
  };
  if (wanted('unit') || units.length) await runUnits();
  if (wanted('e2e') || specs.length) await runInterface();
  async function runInterface() {
    buildProgram();
    await step(
      'Interface',
      'npx',
      ['playwright', 'test', ...specs, ...(specs.length ? ['--no-deps'] : [])],
      fromReport('e2e.json', (r) => {
        if (r.stats.flaky) console.log(`${r.stats.flaky} passed only when tried again: see “flaky” above`);
        return [r.stats.expected + r.stats.flaky, r.stats.unexpected, r.suites.flatMap(specsWrong)];
      }),
      { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: `${results}/e2e.json` },
    );
  }
} finally {
  database.stop();
  rmSync(temp, { recursive: true, force: true, maxRetries: 5 });
}
for (const each of wrong) console.log(`\nFailed: ${each}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
