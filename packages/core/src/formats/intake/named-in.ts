import { textOf } from '../text-of.js';
import { endingOf, type GivenFile } from './given-files.js';

/** Files beside an OBJ that it or its materials name. */
export function namedIn({ name, bytes }: GivenFile): string[] {
  const ending = endingOf(name);
  const named =
    ending === '.obj'
      ? /^[ \t]*mtllib[ \t]+(.+?)[ \t]*$/gm
      : ending === '.mtl'
        ? /^[ \t]*map_Kd[ \t]+(.+?)[ \t]*$/gim
        : null;
  return named ? [...textOf(bytes).matchAll(named)].map(([, one]) => pictureName(one)) : [];
}

/** A name without the options before it. */
export function pictureName(told: string): string {
  return told.replace(/^(\s*-\w+(\s+[-\d.]+|\s+on|\s+off)*)+\s+/, '').trim();
}
