import { textBlocks } from './text-blocks.js';

const together = (blocks: Iterable<Uint8Array>) => Buffer.concat([...blocks]).toString('utf8');

describe('texts in blocks', () => {
  it('says nothing of nothing', () => {
    expect([...textBlocks([])]).toEqual([]);
    expect([...textBlocks(['', ''])]).toEqual([]);
  });

  it('puts many small ones into few blocks, in their order', () => {
    const rows = Array.from({ length: 50_000 }, (_, i) => `${i},über,猫,🚚\n`);
    const blocks = [...textBlocks(rows)];
    expect(together(blocks)).toBe(rows.join(''));
    expect(blocks.length).toBeLessThan(10);
  });

  it('keeps a long one whole, between short ones and by itself', () => {
    const long = '猫'.repeat(300_000);
    expect(together(textBlocks(['a', long, 'b']))).toBe(`a${long}b`);
    expect(together(textBlocks([long]))).toBe(long);
  });

  it('can be asked one by one, each to be given away', () => {
    const rows = Array.from({ length: 30_000 }, (_, i) => `${i}`.padStart(20));
    let text = '';
    for (const block of textBlocks(rows)) {
      text += Buffer.from(structuredClone(block, { transfer: [block.buffer] })).toString();
      expect(block.length).toBe(0);
    }
    expect(text).toBe(rows.join(''));
  });
});
