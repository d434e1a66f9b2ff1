// Paths with closed forms, and a pace, that tests of riders share.

/** A circle of 20 m radius that starts at x = −20 along +Z and turns left: 125.66 m round. */
export const circle = {
  id: 'ring',
  name: 'Ring',
  basis: 'nurbs',
  degree: 2,
  knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
  points: Array.from({ length: 9 }, (_, i) => {
    const reach = i % 2 === 0 ? 20 : 20 * Math.SQRT2;
    const a = (i * Math.PI) / 4;
    return {
      position: [-reach * Math.cos(a), 0, reach * Math.sin(a)],
      weight: i % 2 === 0 ? 1 : Math.SQRT1_2,
    };
  }),
};
export const straight = {
  id: 'lane',
  name: 'Lane',
  basis: 'polyline',
  points: [{ position: [0, 0, 0] }, { position: [0, 0, 60] }],
};
export const range = { first: 1, last: 121 };
/** Once round, or along, in five seconds. */
export const once = {
  unit: 'laps',
  keys: [
    { frame: 1, value: 0 },
    { frame: 121, value: 1 },
  ],
};
export const chassis = { frontAxle: 1, rearAxle: -1, frontCoupling: 1.5, rearCoupling: -1.5 };
