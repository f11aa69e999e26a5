import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { beforeEach, expect, test } from 'vitest';
import { inWorkFolder, leaveNoWork, sweepWorkFolders } from './workFolder';

const root = tmpdir();
beforeEach(() => {
  process.env.TMPDIR = mkdtempSync(join(root, 'folder-test-'));
});

test('what a killed process of this machine left of its work is swept; that of one that lives, or of another machine, is not', async () => {
  // It has ended, and its number is not given again so soon.
  const ended = spawnSync('true').pid;
  const here = `folder-work-${hostname().replace(/[^A-Za-z0-9.-]/g, '_')}`;
  const names = [
    `${here}-${ended}-killed`,
    `${here}-${process.pid}-mine`,
    `folder-work-elsewhere-${ended}-x`,
    `${here}-none`,
  ];
  for (const name of names) {
    mkdirSync(join(tmpdir(), name));
    writeFileSync(join(tmpdir(), name, 'half.pdf'), '%PDF');
  }
  await sweepWorkFolders();
  expect(readdirSync(tmpdir()).sort()).toEqual(names.slice(1).sort());
});

test('a piece of work has a directory of its own until it ends, however it ends; one that somebody cleaned up is made anew', async () => {
  const [one, other] = await Promise.all([
    inWorkFolder(async (path) => path),
    inWorkFolder(async (path) => path),
  ]);
  expect(one).not.toBe(other);
  expect(dirname(one)).toBe(dirname(other));
  rmSync(dirname(one), { recursive: true });
  let seen = '';
  const failing = inWorkFolder((path) => {
    expect(existsSync((seen = path))).toBe(true);
    return Promise.reject(new Error('no'));
  });
  await expect(failing).rejects.toThrow('no');
  expect(existsSync(seen)).toBe(false);
  expect(existsSync(dirname(seen))).toBe(true);
  await leaveNoWork();
  expect(existsSync(dirname(seen))).toBe(false);
});
