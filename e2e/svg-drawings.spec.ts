import { compiledPathOf, PathError } from '@fleet-rail/core';
import { readPaths } from '@fleet-rail/core/paths';
import { expect, test } from './support/test.js';

const line = (more: string) => `<path id="a" ${more} d="M1 2 L7 3 5 9"/>`;
const curve = (more = '') => `<path id="a" ${more} d="M1 2 C3 9 8 -4 9 6 S 4 12 2 8"/>`;

/** Drawings of many kinds, by what is odd about them: what is inside, and how the root is written. */
const DRAWINGS: Record<string, [inside: string, root?: string]> = {
  'every command': [
    '<path id="a" d="M5 5h3v4H2V1l3 3c1 2 3 4 5 1s4-3 5 0q2 4 4 0t4 0a3 5 20 1 0 6 2A4 4 0 0 1 20 20z"/>',
  ],
  'written tightly': ['<path id="a" d="M.5.5-3-.25L1e1-2.5.5,4C1-1,2-2 3-3"/>'],
  'arc flags together': ['<path id="a" d="M0 0a5 3 10 015 5 5 3 10 104-2"/>'],
  'radii too small': ['<path id="a" d="M0 0A1 2 30 0 1 20 5"/>'],
  'several runs': ['<path id="a" d="M0 0L4 0M0 5L4 5 4 9zm10 0l3 3"/>'],
  'data with an error': ['<path id="a" d="M0 0L5 5 9 1 L 3 oops 7 7"/>'],
  rect: ['<rect id="a" x="1" y="2" width="7" height="4"/>'],
  'round rect': ['<rect id="a" x="1" y="2" width="9" height="6" rx="2" ry="1"/>'],
  'one radius': ['<rect id="a" x="1" y="2" width="9" height="6" ry="2.5"/>'],
  'radii over half': ['<rect id="a" width="9" height="6" rx="20" ry="20"/>'],
  circle: ['<circle id="a" cx="4" cy="5" r="3"/>'],
  ellipse: ['<ellipse id="a" cx="4" cy="5" rx="3" ry="1.5" transform="rotate(20)"/>'],
  'line in units': ['<line id="a" x1="1mm" y1="2pt" x2="1in" y2="3pc"/>'],
  percentages: ['<rect id="a" x="10%" y="20%" width="50%" height="30%"/>'],
  'percentage of the diagonal': ['<circle id="a" cx="50%" cy="50%" r="25%"/>'],
  'tight points': ['<polyline id="a" points="0,0 10-5.5.5 3-4"/>'],
  polygon: ['<polygon id="a" points="0 0 4 1 3 5"/>'],
  'odd points': ['<polyline id="a" points="0 0 4 1 3"/>'],
  'list without blanks': [line('transform="translate(3,4)rotate(30)scale(2)"')],
  'commas between': [line('transform="translate(3 4),rotate(30 5 5) , skewX(10)"')],
  matrix: [curve('transform="matrix(1 .2-.3 1.5 4,5)"')],
  'a transform that is none': [line('transform="translate(3) spin(4)"')],
  'CSS transform': [line('style="transform: translate(10px, 2mm) rotate(0.1turn) scale(1.5, 80%)"')],
  'CSS transform instead of the attribute': [line('transform="scale(9)" style="transform: skewY(12deg)"')],
  'origin in the style': [line('style="transform-origin: 5px 4px; transform: rotate(45deg)"')],
  'origin as an attribute': [line('transform="rotate(45)" transform-origin="5 4"')],
  'origin in parts of the view box': [curve('style="transform: rotate(30deg); transform-origin: 50% 25%"')],
  'origin in words': [curve('style="transform: scale(.5); transform-origin: bottom right"')],
  'origin in its own box': [
    '<rect id="a" x="3" y="4" width="6" height="2" style="transform-box: fill-box; transform-origin: center; transform: rotate(30deg)"/>',
  ],
  'own box of a curve': [
    curve('style="transform-box: fill-box; transform-origin: 0 100%; transform: scale(2)"'),
  ],
  'single properties': [line('style="rotate: 20deg; translate: 3px 4px; scale: 2"')],
  'a class': [
    `<style>.far { transform: translate(20px, 3px) } path.far { transform: translateX(7px) }</style>${line('class="far"')}`,
  ],
  'the weight of rules': [
    `<style>#a{transform:scale(2)} g path{transform:scale(3)} *{transform:scale(5)!important} g{transform:none!important}</style><g>${line('style="transform:scale(7)"')}</g>`,
  ],
  'a radius by rule': ['<style>circle { r: 4px; cx: 5px }</style><circle id="a" cy="3" r="1"/>'],
  'hidden ones': [
    `<g display="none">${line('')}</g><g style="visibility:hidden"><path id="b" d="M0 0H3"/><path id="c" visibility="visible" d="M0 0H9"/></g>`,
  ],
  'hidden by a rule': [`<style>.no{display:none}</style><path class="no" id="b" d="M0 0H3"/>${line('')}`],
  'an inner svg': [`<svg x="3" y="4" width="20" height="10" viewBox="0 0 10 10">${curve()}</svg>`],
  'fitted left': [
    `<svg width="30" height="10" viewBox="2 1 10 10" preserveAspectRatio="xMinYMax">${curve()}</svg>`,
  ],
  'cut to fit': [
    `<svg width="30" height="10" viewBox="0 0 10 10" preserveAspectRatio="xMaxYMid slice">${curve()}</svg>`,
  ],
  stretched: [`<svg width="30" height="10" viewBox="0 0 10 10" preserveAspectRatio="none">${curve()}</svg>`],
  'percentages of an inner svg': [
    '<svg x="10%" width="50%" height="50%" viewBox="0 0 40 20"><rect id="a" x="10%" width="50%" height="25%"/></svg>',
  ],
  'groups in groups': [
    `<g transform="translate(4,5)"><g transform="rotate(30)"><g style="transform:scale(2)">${curve()}</g></g></g>`,
  ],
  'a link': [`<a href="https://example.test/" transform="translate(3)">${line('')}</a>`],
  'a switch': [
    '<switch><path id="x" systemLanguage="xx" d="M0 0H2"/><g systemLanguage="en"><path id="a" d="M0 0H5"/></g><path id="y" d="M0 0H7"/></switch>',
  ],
  'path length told wrongly': [curve('pathLength="3"')],
  'units of the page': [curve(), 'width="210mm" height="297mm" viewBox="0 0 2100 2970"'],
  'a page that begins elsewhere': [line('transform="rotate(10)"'), 'viewBox="-50 -20 100 40"'],
  'without a view box': ['<rect id="a" width="50%" height="10"/>', 'width="400" height="200"'],
  'font sizes': ['<g font-size="20"><rect id="a" width="2em" height="1.5em"/></g>'],
  'a shape without a name': ['<path d="M3 3L9 4"/>'],
};

/** A page cannot ask for the position of what `<use>` shows: its box is compared. */
const SHOWN: Record<string, string> = {
  use: `<defs><path id="p" d="M0 0L5 3 1 7"/></defs><use id="a" href="#p" x="10" y="4" transform="rotate(90)"/>`,
  'use of a group': `<g id="g" transform="scale(2)"><rect x="1" width="3" height="2"/></g><use id="a" xlink:href="#g" x="20"/>`,
  symbol: `<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5"/></symbol><use id="a" href="#s" x="4" y="6" width="40" height="20"/>`,
  'symbol without a size': `<symbol id="s" viewBox="0 0 10 20" preserveAspectRatio="xMinYMin"><rect width="10" height="20"/></symbol><use id="a" href="#s"/>`,
  'use of a use': `<defs><rect id="r" width="2" height="3"/><use id="u" href="#r" x="5"/></defs><use id="a" href="#u" y="7"/>`,
};

const document = (inside: string, root = 'viewBox="0 0 100 60"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${inside}</svg>`;

/** Our reading: the places along each unbroken run, in user units. */
async function ours(svg: string, parts: number): Promise<{ length: number; places: [number, number][] }[]> {
  const options = { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.001 };
  const { paths } = await readPaths(new TextEncoder().encode(svg), 'a.svg', options);
  return paths.map((path) => {
    const made = compiledPathOf(path);
    if (made instanceof PathError) throw made;
    const places = Array.from({ length: parts + 1 }, (_, i): [number, number] => {
      const out: [number, number, number] = [0, 0, 0];
      // A closed run comes back to its start at its end.
      made.position(i === parts && made.closed ? 0 : (made.length * i) / parts, out);
      return [out[0], out[2]];
    });
    return { length: made.length, places };
  });
}

test('drawings are read as the browser draws them', async ({ page }) => {
  expect(Object.keys(DRAWINGS).length).toBeGreaterThanOrEqual(40);
  for (const [kind, [inside, root]] of Object.entries(DRAWINGS)) {
    const svg = document(inside, root);
    await page.goto(`data:image/svg+xml,${encodeURIComponent(svg)}`);
    const theirs = await page.evaluate((parts) => {
      const top = window.document.documentElement as unknown as SVGSVGElement;
      const probe = window.document.createElementNS('http://www.w3.org/2000/svg', 'g');
      top.append(probe);
      const back = (probe.getScreenCTM() as DOMMatrix).inverse();
      const shapes = Array.from(
        top.querySelectorAll<SVGGeometryElement>('path,rect,circle,ellipse,line,polyline,polygon'),
      );
      return shapes
        .filter((shape) => {
          const { visibility } = getComputedStyle(shape);
          return (
            visibility === 'visible' &&
            shape.getScreenCTM() &&
            shape.checkVisibility() &&
            shape.getBoundingClientRect().width > 0
          );
        })
        .map((shape) => {
          const matrix = back.multiply(shape.getScreenCTM() as DOMMatrix);
          const total = shape.getTotalLength();
          const places = Array.from({ length: parts + 1 }, (_, i) => {
            const { x, y } = shape.getPointAtLength((total * i) / parts).matrixTransform(matrix);
            return [x, y] as [number, number];
          });
          return { places, several: (shape.getAttribute('d') ?? '').match(/m/gi)?.length ?? 1 };
        });
    }, 240);
    const mine = await ours(svg, 240);
    const size = Math.max(...theirs.flatMap(({ places }) => places.flat().map(Math.abs)), 1);
    expect(mine.length, `${kind}: runs`).toBe(theirs.reduce((sum, { several }) => sum + several, 0));
    // Every place of theirs is on one of ours; the browser's own are single precision.
    const all = mine.flatMap(({ places }) => places);
    const steps = Math.max(...mine.map(({ length }) => length)) / 240;
    for (const { places, several } of theirs) {
      const worst = Math.max(
        ...places.map(([x, y]) => Math.min(...all.map(([a, b]) => Math.hypot(a - x, b - y)))),
      );
      expect(worst, `${kind}: ${JSON.stringify(places[0])}`).toBeLessThan(steps / 2 + 1e-3 * size);
      // Of a single run that a transform leaves alike, places by length are the very same.
      const ends = [places[0], places[240]];
      if (several === 1)
        for (const [x, y] of ends) {
          const near = Math.min(
            ...mine
              .flatMap((run) => [run.places[0], run.places[240]])
              .map(([a, b]) => Math.hypot(a - x, b - y)),
          );
          expect(near, `${kind}: its ends`).toBeLessThan(1e-4 * size);
        }
    }
  }
});

test('what is shown again stands where the browser shows it', async ({ page }) => {
  for (const [kind, inside] of Object.entries(SHOWN)) {
    const svg = document(inside);
    await page.goto(`data:image/svg+xml,${encodeURIComponent(svg)}`);
    const box = await page.evaluate(() => {
      const top = window.document.documentElement as unknown as SVGSVGElement;
      const probe = window.document.createElementNS('http://www.w3.org/2000/svg', 'g');
      top.append(probe);
      const back = (probe.getScreenCTM() as DOMMatrix).inverse();
      const {
        left,
        top: upper,
        right,
        bottom,
      } = (window.document.querySelector('#a') as SVGElement).getBoundingClientRect();
      const [low, high] = [new DOMPoint(left, upper), new DOMPoint(right, bottom)].map((corner) =>
        corner.matrixTransform(back),
      );
      return [low.x, low.y, high.x, high.y];
    });
    const shown = (await ours(svg, 400)).at(kind === 'use of a group' ? 1 : 0);
    const [xs, ys] = [0, 1].map((k) => (shown?.places ?? []).map((place) => place[k]));
    const mine = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
    box.forEach((value, i) =>
      expect(mine[i], `${kind}: ${mine.join()} for ${box.join()}`).toBeCloseTo(value, 1),
    );
  }
});
