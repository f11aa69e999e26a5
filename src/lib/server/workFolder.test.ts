import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, mkdirSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { beforeEach, expect, test } from 'vitest';
import { inWorkFolder, leaveNoWork, sweepWorkFolders } from './workFolder';

const root = tmpdir();
beforeEach(() => {
  process.env.TMPDIR = mkdtempSync(join(root, 'folder-test-'));
});

test('what a killed process left of its work is swept once it is old; that of one that lives is not', async () => {
  // It has ended, and its number is not given again so soon.
  const ended = spawnSync('true').pid;
  const leave = (name: string, hours: number) => {
    const path = join(tmpdir(), name);
    mkdirSync(path);
    writeFileSync(join(path, 'half.pdf'), '%PDF');
    const at = Date.now() / 1000 - hours * 3600;
    utimesSync(path, at, at);
  };
  leave(`folder-work-${ended}-old`, 2);
  leave(`folder-work-${ended}-new`, 0);
  leave(`folder-work-${process.pid}-mine`, 2);
  leave('folder-work-none', 2);
  await sweepWorkFolders();
  expect(readdirSync(tmpdir()).sort()).toEqual(
    [`folder-work-${ended}-new`, `folder-work-${process.pid}-mine`, 'folder-work-none'].sort(),
  );
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
