import { main } from './main';

process.exitCode = await main(process.argv.slice(2), {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
  isWatched: process.stderr.isTTY,
});
