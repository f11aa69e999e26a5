import { mkdtempSync, readFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, vi } from 'vitest';

const { Supervisor } = (await import('../../../scripts/lib/supervise.mjs' as string)) as {
  Supervisor: new () => {
    keep(name: string, args: string[], env: NodeJS.ProcessEnv): void;
    stop(): Promise<void>;
  };
};

test('what dies is started again, each time later, with the reason in one line; what is stopped is not', async () => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  const file = join(mkdtempSync(join(tmpdir(), 'folder-test-')), 'starts');
  const starts = () => (existsSync(file) ? readFileSync(file, 'utf8').trim().split('\n') : []);
  const program = `require('fs').appendFileSync(${JSON.stringify(file)}, process.pid + ' ' + Date.now() + '\\n'); setInterval(() => {}, 1000);`;
  const supervisor = new Supervisor();
  supervisor.keep('web server', ['-e', program], process.env);
  for (let n = 1; n <= 3; n++) {
    await expect.poll(() => starts().length).toBe(n);
    if (n < 3) process.kill(Number(starts().at(-1)!.split(' ')[0]), 'SIGKILL');
  }
  expect(said.mock.calls.map(([line]) => String(line))).toEqual([
    'The web server was ended by SIGKILL. It is started again in 0.3 s.',
    'The web server was ended by SIGKILL. It is started again in 0.6 s.',
  ]);
  await supervisor.stop();
  await new Promise((done) => setTimeout(done, 1500));
  expect(starts()).toHaveLength(3);
  said.mockRestore();
});
