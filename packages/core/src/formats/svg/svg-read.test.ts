import fc from 'fast-check';
import { distance3, type Vec3 } from '../../geometry/math/vec.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { FormatError } from '../format-error.js';
import { readSvg } from './svg-read.js';

const svg = (inside: string) => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10">${inside}</svg>`;
const read = (inside: string, scale?: number) => readSvg(svg(inside), 'drawing.svg', scale).paths;
const curve = (inside: string) => compilePath(read(inside)[0]);
const d = (data: string) => `<path d="${data}"/>`;
const at = (inside: string, part: number): Vec3 => {
  const path = curve(inside);
  const out: Vec3 = [0, 0, 0];
  path.position(path.length * part, out);
  return out;
};

describe('every command, absolute and relative', () => {
  it.each([
    ['M L', 'M1 2 L4 6', 5, [4, 6]],
    ['m l', 'm1 2 l3 4', 5, [4, 6]],
    ['further pairs after M are lines', 'M0 0 3 4 6 8', 10, [6, 8]],
    ['H V', 'M0 0 H3 V4', 7, [3, 4]],
    ['h v', 'M1 1 h3 v4', 7, [4, 5]],
    ['C straight', 'M0 0 C1 0 2 0 3 0', 3, [3, 0]],
    ['c straight', 'M1 1 c1 0 2 0 3 0', 3, [4, 1]],
    ['S mirrors the handle before', 'M0 0 C1 0 2 0 3 0 S5 0 6 0', 6, [6, 0]],
    ['s', 'M0 0 c1 0 2 0 3 0 s2 0 3 0', 6, [6, 0]],
    ['Q straight', 'M0 0 Q2 0 4 0', 4, [4, 0]],
    ['q straight', 'M1 0 q2 0 4 0', 4, [5, 0]],
    ['T mirrors the handle before', 'M0 0 Q1 0 2 0 T4 0', 4, [4, 0]],
    ['t', 'M0 0 q1 0 2 0 t2 0', 4, [4, 0]],
    ['Z goes back to the start', 'M0 0 H3 V4 Z', 12, [0, 0]],
    ['z after a move goes back to that move', 'M5 5 h3 v4 z', 12, [5, 5]],
  ])('%s', (_, data, length, end) => {
    const path = curve(d(data));
    expect(path.length).toBeCloseTo(length, 9);
    const last: Vec3 = [0, 0, 0];
    path.position(path.closed ? 0 : path.length, last);
    expect(distance3(last, [end[0], 0, end[1]])).toBeLessThan(1e-9);
  });

  it.each([
    ['a quarter turn to the right', 'M10 0 A10 10 0 0 1 0 10', Math.PI * 5],
    ['relative', 'M10 0 a10 10 0 0 1 -10 10', Math.PI * 5],
    ['the long way round', 'M10 0 A10 10 0 1 0 0 10', Math.PI * 15],
    ['flags written together', 'M10 0a10 10 0 01-10 10', Math.PI * 5],
    ['radii too small are enlarged', 'M0 0 A1 1 0 0 1 20 0', Math.PI * 10],
    ['no radius is a straight line', 'M0 0 A0 5 0 0 1 3 4', 5],
  ])('A: %s', (_, data, length) => {
    // Cubics of an eighth of a turn are within 4e-6 of the arc.
    expect(Math.abs(curve(d(data)).length - length) / length).toBeLessThan(4e-6);
  });

  it('an arc stays on its ellipse, however it is turned', () => {
    const angle = fc.double({ min: 0, max: 360, noNaN: true });
    const turns = fc.double({ min: 2, max: 358, noNaN: true });
    fc.assert(
      fc.property(angle, angle, turns, (tilt, from, turn) => {
        const to = from + turn;
        const phi = (tilt * Math.PI) / 180;
        const on = (degrees: number) => {
          const a = (degrees * Math.PI) / 180;
          const [x, y] = [7 * Math.cos(a), 3 * Math.sin(a)];
          return [x * Math.cos(phi) - y * Math.sin(phi), x * Math.sin(phi) + y * Math.cos(phi)];
        };
        const data = `M${on(from).join(' ')} A7 3 ${tilt} ${turn > 180 ? 1 : 0} 1 ${on(to).join(' ')}`;
        for (const part of [0.1, 0.35, 0.8]) {
          const [x, , y] = at(d(data), part);
          const u = x * Math.cos(phi) + y * Math.sin(phi);
          const v = -x * Math.sin(phi) + y * Math.cos(phi);
          expect(Math.abs(Math.hypot(u / 7, v / 3) - 1)).toBeLessThan(2e-5);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('quadratics are raised exactly: a parabola has its closed-form length', () => {
    // y = x² from 0 to 2.
    const exact = Math.sqrt(17) + Math.asinh(4) / 4;
    expect(curve(d('M0 0 Q1 0 2 4')).length).toBeCloseTo(exact, 10);
  });

  it('each unbroken run is a path of its own', () => {
    const paths = read(d('M0 0 H5 M0 2 H5 Z'));
    expect(paths.map((path) => [path.name, path.closed])).toEqual([
      ['drawing 1', false],
      ['drawing 2', true],
    ]);
  });
});

describe('shapes', () => {
  it.each([
    ['line', '<line x1="1" y1="1" x2="4" y2="5"/>', 5, false],
    ['polyline', '<polyline points="0,0 3,4 3 9"/>', 10, false],
    ['polygon', '<polygon points="0 0 3 0 3 4"/>', 12, true],
    ['rect', '<rect x="1" y="2" width="3" height="4"/>', 14, true],
    ['circle', '<circle cx="5" cy="5" r="10"/>', 20 * Math.PI, true],
    ['rounded rect', '<rect width="10" height="10" rx="2"/>', 24 + 4 * Math.PI, true],
    ['rounded rect, one radius too large', '<rect width="10" height="10" ry="50"/>', 10 * Math.PI, true],
  ])('%s', (_, element, length, closed) => {
    const path = curve(element);
    expect(Math.abs(path.length - length) / length).toBeLessThan(4e-6);
    expect(path.closed).toBe(closed);
  });

  it('an ellipse has the length of its integral', () => {
    let exact = 0;
    for (let i = 0; i < 4000; i++) {
      const a = (2 * Math.PI * (i + 0.5)) / 4000;
      exact += (Math.hypot(6 * Math.sin(a), 2 * Math.cos(a)) * 2 * Math.PI) / 4000;
    }
    expect(Math.abs(curve('<ellipse rx="6" ry="2"/>').length - exact) / exact).toBeLessThan(1e-5);
  });

  it('straight drawings are polylines, the rest Béziers', () => {
    expect(read(d('M0 0 H3 V4'))[0].basis).toBe('polyline');
    expect(read(d('M0 0 H3 C4 0 5 1 5 2'))[0].basis).toBe('bezier');
  });
});

it('x goes to X, y to Z, at height 0, in metres by the scale', () => {
  expect(read(d('M1 2 L3 4'), 0.5)[0].points.map((point) => point.position)).toEqual([
    [0.5, 0, 1],
    [1.5, 0, 2],
  ]);
});

it('transforms of groups and elements apply from the inside out', () => {
  const turned =
    '<g transform="translate(10 0) rotate(90)"><g transform="scale(2)"><path transform="translate(1,0)" d="M0 0 H1"/></g></g>';
  const points = read(turned)[0].points.map(({ position }) => position);
  expect(distance3(points[0], [10, 0, 2])).toBeLessThan(1e-12);
  expect(distance3(points[1], [10, 0, 4])).toBeLessThan(1e-12);
  const matrix = '<g transform="matrix(1 0 0 1 3 4)"><line x2="1" transform="skewX(45)"/></g>';
  expect(distance3(read(matrix)[0].points[1].position, [4, 0, 4])).toBeLessThan(1e-12);
});

it('draws as a browser does up to what is wrong, and says what', () => {
  const noted = (inside: string) => readSvg(svg(inside), 'a.svg');
  const spun = noted('<path transform="spin(3)" d="M0 0H1"/>');
  expect(spun.notes).toEqual([
    '<path> in line 1 has the transform "spin(3)", which is none: it is left out.',
  ]);
  const cut = noted('<path d="M0 0 L3 4 5 x 7 8"/>');
  expect(compilePath(cut.paths[0]).length).toBeCloseTo(5, 9);
  expect(cut.notes[0]).toMatch(/cannot be read from "/);
  const odd = noted('<polyline points="0,0 3-4 7"/>');
  expect(compilePath(odd.paths[0]).length).toBeCloseTo(5, 9);
});

it('a straight curve whose handles lead beyond its ends goes there and back', () => {
  // x = 3 (1 − t)² t a + 3 (1 − t) t² b + t³ c with a = −6, b = 9, c = 3 turns back at both sides.
  const x = (t: number) => 3 * (1 - t) ** 2 * t * -6 + 3 * (1 - t) * t * t * 9 + 3 * t ** 3;
  const turns = Array.from({ length: 2001 }, (_, i) => x(i / 2000));
  const way = turns.slice(1).reduce((sum, value, i) => sum + Math.abs(value - turns[i]), 0);
  expect(curve(d('M0 0 C-6 0 9 0 3 0')).length).toBeCloseTo(way, 4);
});

it('knows how large a drawing is meant to be where it says so in the world’s units', () => {
  const sized = (head: string) =>
    readSvg(`<svg xmlns="http://www.w3.org/2000/svg" ${head}><path d="M0 0H1"/></svg>`, 'a.svg')
      .metresPerUnit;
  expect(sized('width="210mm" viewBox="0 0 2100 2970"')).toBeCloseTo(1e-4, 12);
  expect(sized('width="10in"')).toBeCloseTo(0.0254 / 96, 12);
  expect(sized('width="300" viewBox="0 0 3 3"')).toBeNull();
});

it('puts backgrounds and areas without a line last', () => {
  const inside =
    '<rect id="page" width="10" height="10" stroke="red"/><circle id="spot" r="1" fill="red"/><path id="lane" d="M0 0H1"/>' +
    '<circle id="ring" r="2" stroke="red"/>';
  const { paths } = readSvg(svg(inside), 'a.svg');
  expect(paths.map(({ id }) => id)).toEqual(['lane', 'ring', 'page', 'spot']);
});

it('a ring of uses ends, and shows within shows are looked at only so often', () => {
  const rings = '<g id="a"><use href="#b"/><path d="M0 0H1"/></g><g id="b"><use href="#a"/></g>';
  expect(read(rings).length).toBeGreaterThan(0);
  const many = Array.from(
    { length: 12 },
    (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`,
  ).join('');
  expect(() => readSvg(svg(`<path id="g0" d="M0 0H1"/>${many}`), 'a.svg')).toThrow(
    /shows more than 300000 elements/,
  );
});

it('names paths by their id, apart from each other, and passes over what is no path', () => {
  const inside =
    '<defs><path id="hidden" d="M0 0H1"/></defs><path id="Lane" d="M0 0H1"/><path id="Lane" d="M0 0H2"/><text>no</text><path display="none" d="M0 0H9"/>';
  const result = readSvg(svg(inside), 'a.svg');
  expect(result.paths.map((path) => path.id)).toEqual(['lane', 'lane-2']);
  expect(result.paths.map((path) => path.name)).toEqual(['Lane', 'Lane 2']);
  expect(result.passedOver).toEqual(['text']);
});

it.each([
  ['not XML', '<svg><path d="M0 0"', /bad\.svg: is not well-formed XML/],
  ['empty text', '', /bad\.svg: /],
  ['another root', '<html xmlns="http://www.w3.org/1999/xhtml"/>', /its root is <html>; expected <svg>/],
  ['no path', svg('<text>hello</text>'), /no path in this SVG; expected a path, line.*It holds only: text/],
  [
    'broken data',
    svg('<path id="p" d="M0 0 L nonsense"/>'),
    /no path in this SVG.*<path id="p"> in line 1 has path data that cannot be read from "nonsense" on/,
  ],
  ['data without a start', svg('<path d="L 3 4 5"/>'), /cannot be read/],
  [
    'groups without end',
    svg(`${'<g>'.repeat(9000)}<path d="M0 0H1"/>${'</g>'.repeat(9000)}`),
    /groups nested more than 500 deep/,
  ],
  [
    'a number without end',
    svg('<path d="M0 0 L1e999 4"/>'),
    /<path> in line 1 has a place that is no number/,
  ],
  ['a wrong number', svg('<circle r="ten"/>'), /<circle> in line 1 has r="ten", which is no length/],
  ['an odd list', svg('<polygon points="0 0 1"/>'), /drawn up to the last pair of numbers/],
])('refuses %s and says where', (_, text, message) => {
  expect(() => readSvg(text, 'bad.svg')).toThrow(FormatError);
  expect(() => readSvg(text, 'bad.svg')).toThrow(message);
});
