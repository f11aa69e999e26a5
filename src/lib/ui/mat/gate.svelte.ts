/** How many tiles are made at once: with more, the page would stand still while they are. */
const AT_ONCE = 10;

/** Lets tiles onto the mat a few a frame; those that are there stay. */
export class Gate {
  private turn = $state(0);
  private there: ReadonlySet<string> = new Set();
  private waiting = false;

  /** Of the tiles in sight, by id, those that may be on the mat now. */
  admit(inSight: readonly string[]): ReadonlySet<string> {
    void this.turn;
    let room = AT_ONCE;
    const next = new Set(inSight.filter((id) => this.there.has(id) || room-- > 0));
    this.there = next;
    if (next.size < inSight.length && !this.waiting) {
      this.waiting = true;
      requestAnimationFrame(() => {
        this.waiting = false;
        this.turn++;
      });
    }
    return next;
  }
}
