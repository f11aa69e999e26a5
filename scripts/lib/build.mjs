import { spawn, spawnSync } from 'node:child_process';
import { once as event } from 'node:events';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const STATE = '.folder';
const SOURCES = [
  'src',
  'static',
  'scripts/lib/bundle.mjs',
  'scripts/lib/compress.mjs',
  'package-lock.json',
  'svelte.config.js',
  'vite.config.ts',
  'tsconfig.json',
];

/** Runs a command of the project, showing what it says, or returning it where it `answers`; stops everything when it fails. */
export function run(command, args, { quiet = false, answers = false } = {}) {
  const { status, stdout, stderr } = spawnSync(command, args, {
    stdio: quiet ? 'pipe' : answers ? ['ignore', 'pipe', 'inherit'] : 'inherit',
    encoding: 'utf8',
  });
  if (status === 0) return stdout;
  if (quiet) console.error(stdout, stderr);
  console.error(`“${[command, ...args].join(' ')}” failed.`);
  process.exit(1);
}

/** The same beside everything else, without its answer: resolves when the command has ended well. */
export async function runBeside(command, args) {
  const [status] = await event(spawn(command, args, { stdio: 'inherit' }), 'close');
  if (status === 0) return;
  console.error(`“${[command, ...args].join(' ')}” failed.`);
  process.exit(1);
}

const hashOf = (paths) => {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!path.includes('.test')) hash.update(path).update(readFileSync(path));
  };
  paths.forEach(visit);
  return hash.digest('hex');
};

/** Does `work` unless it was done for the same contents of `paths` before and `there` still holds. */
function once(name, paths, there, work) {
  mkdirSync(STATE, { recursive: true });
  const stamp = join(STATE, `${name}.stamp`);
  const hash = hashOf(paths);
  if (there() && existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  work();
  writeFileSync(stamp, hash);
}

/** Installs the npm packages of the lock file, unless they are there. */
export const installPackages = () =>
  once(
    'npm',
    ['package-lock.json'],
    () => existsSync('node_modules/.package-lock.json'),
    () => {
      console.log('Installing npm packages');
      run('npm', ['ci', '--no-audit', '--no-fund'], { quiet: true });
    },
  );

/** Bundles worker, fenced processes and command line as the sources are now: it takes a second or two. */
export const bundleTools = () => run('node', ['scripts/lib/bundle.mjs']);

/** Builds web server and worker when sources changed. What runs beside goes on meanwhile. */
export const buildProgram = () =>
  once(
    'build',
    SOURCES,
    () => existsSync('build/index.js') && existsSync('build/tools/worker/main.mjs'),
    () => {
      console.log('Building');
      run('npx', ['vite', 'build', '--logLevel', 'error'], { quiet: true });
      bundleTools();
    },
  );
