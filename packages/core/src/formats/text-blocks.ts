/** Bytes of a block. */
const SIZE = 2 ** 18;

/** The longest a letter may be in UTF-8, bytes a UTF-16 unit. */
const PER_UNIT = 3;

/**
 * Texts as UTF-8 in blocks of some size, whatever theirs is: each is written where it stays, so that thousands of small ones take
 * neither memory of their own nor a message each.
 */
export function* textBlocks(texts: Iterable<string>): Generator<Uint8Array<ArrayBuffer>, void, undefined> {
  const encoder = new TextEncoder();
  let block = new Uint8Array(SIZE);
  let used = 0;
  for (const text of texts) {
    const most = PER_UNIT * text.length;
    if (used > 0 && used + most > block.length) {
      yield block.subarray(0, used);
      block = new Uint8Array(Math.max(SIZE, most));
      used = 0;
    } else if (most > block.length) block = new Uint8Array(most);
    used += encoder.encodeInto(text, block.subarray(used)).written;
  }
  if (used > 0) yield block.subarray(0, used);
}
