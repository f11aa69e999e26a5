/**
 * The same work, which for what it was asked lately gives what it gave then; of that, the `most` latest are known. Much of a
 * document is as what stands before it. What is asked and given is held, and must not be changed.
 */
export function remembering<Asked, Given>(
  isSame: (one: Asked, other: Asked) => boolean,
  work: (asked: Asked) => Given,
  most = 1,
): (asked: Asked) => Given {
  let known: readonly { asked: Asked; given: Given }[] = [];
  return (asked) => {
    const same = known.find((each) => isSame(each.asked, asked));
    if (same) return same.given;
    const given = work(asked);
    known = [{ asked, given }, ...known.slice(0, most - 1)];
    return given;
  };
}
