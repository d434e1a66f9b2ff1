import fc from 'fast-check';
import { defaultsOf } from './defaults.js';
import { freeId } from './free-name.js';
import { newShot } from './new-shot.js';
import { Attachment } from './shot-attachment.js';
import { ShotPath } from './shot-path.js';

it('a free id is like its name, unlike all taken ones, and one the document accepts', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 80 }), fc.nat(4), (name, times) => {
      const paths: { id: string; name: string }[] = [];
      for (let n = 0; n <= times; n++) paths.push({ id: freeId(name, paths), name: 'P' });
      expect(new Set(paths.map(({ id }) => id)).size).toBe(times + 1);
      expect(newShot({ name: 't', paths }).paths).toHaveLength(times + 1);
    }),
  );
  expect(freeId('Mill Lane (north)', [])).toBe('mill-lane-north');
  expect(freeId('道', [])).toBe('item');
  expect(freeId('lane', [{ id: 'lane' }, { id: 'lane-2' }])).toBe('lane-3');
});

it('defaults are plain data, each call its own', () => {
  const [one, two] = [defaultsOf(Attachment), defaultsOf(Attachment)];
  expect(one).toEqual(two);
  expect(one.offset).not.toBe(two.offset);
  expect(Object.getPrototypeOf(one.offset)).toBe(Object.prototype);
  expect('id' in defaultsOf(ShotPath)).toBe(false);
});
