import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const POSTGRES = '/usr/lib/postgresql';

/** The folder with the newest PostgreSQL's programs, or undefined. */
export function postgresPrograms() {
  if (!existsSync(POSTGRES)) return undefined;
  const versions = readdirSync(POSTGRES).filter((version) =>
    existsSync(join(POSTGRES, version, 'bin', 'initdb')),
  );
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest && join(POSTGRES, newest, 'bin');
}

const onPath = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;
const THERE = {
  postgresql: () => postgresPrograms() !== undefined && onPath('psql'),
  chromium: () => existsSync('/usr/bin/chromium'),
  qpdf: () => onPath('qpdf'),
  'poppler-utils': () => onPath('pdftotext') && onPath('pdfinfo'),
  ghostscript: () => onPath('gs'),
  'mupdf-tools': () => onPath('mutool'),
  'libpaper-utils': () => onPath('paperconf'),
  unzip: () => onPath('unzip'),
};

/** Installs the Debian packages that are missing, as root; otherwise names the command that does and stops. */
export function needPackages(names) {
  const missing = names.filter((name) => !THERE[name]());
  if (!missing.length) return;
  const install = `apt-get install -y ${missing.join(' ')}`;
  if (process.getuid() !== 0) {
    console.error(
      `Missing Debian packages: ${missing.join(', ')}. Install them, then start again:\n\n  sudo sh -c 'apt-get update && ${install}'\n`,
    );
    process.exit(1);
  }
  console.log(`Installing Debian packages: ${missing.join(', ')}`);
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const command of ['apt-get update -q', `${install} -q --no-install-recommends`]) {
    const { status } = spawnSync('sh', ['-c', command], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: environment,
    });
    if (status !== 0) {
      console.error(`“${command}” failed. Mend that, then start again.`);
      process.exit(1);
    }
  }
}
