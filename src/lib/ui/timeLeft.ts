/** Roughly how long work that began at a moment (ms) goes on, in words; empty while it is too early to say, or nearly over. */
export function timeLeft(began: number, done: number, total: number): string {
  const spent = (Date.now() - began) / 1000;
  const left = done ? Math.round((spent * (total - done)) / done) : 0;
  if (spent <= 3 || left <= 1) return '';
  return left < 100 ? `about ${left} s left` : `about ${Math.round(left / 60)} min left`;
}
