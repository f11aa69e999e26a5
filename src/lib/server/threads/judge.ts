import { parentPort } from 'node:worker_threads';
import { judgeText, type ToJudge } from '../judged';

parentPort!.on('message', ({ id, task }: { id: number; task: ToJudge }) => {
  try {
    parentPort!.postMessage({ id, judged: judgeText(task) });
  } catch (error) {
    parentPort!.postMessage({ id, error: String(error instanceof Error ? error.stack : error) });
  }
});
