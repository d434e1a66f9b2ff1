import type { Random } from './random.js';

type Part = Record<string, unknown>;

/** A random shot with dressing along its paths, riders that spray, dynamic riders and hanging parts. */
export function withBuilt(shot: Part, random: Random): Part {
  const paths = (shot.paths as Part[]).map(({ id }) => id);
  const models = (shot.models as Part[]).map(({ id }) => id);
  const laid = paths.length === 0 ? [] : random.list(0, 3, (i) => oneLaid(i, paths, models, random));
  const riders = (shot.riders as Part[]).map((rider): Part => ({
    ...rider,
    emitter: random.chance(0.2) ? emitter(models, random) : null,
    rigidBody: random.chance(0.15) ? forces(random) : null,
    hangingParts: random.chance(0.1) ? [hanging(random)] : [],
  }));
  return { ...shot, dressing: laid, riders };
}

function oneLaid(i: number, paths: unknown[], models: unknown[], random: Random): Part {
  const pieces = random.chance(0.5);
  return {
    id: `laid-${i}`,
    name: `Laid ${i}`,
    path: random.of(paths),
    kind: pieces ? 'pieces' : 'profile',
    model: models.length > 0 && random.chance(0.7) ? random.of(models) : null,
    every: random.size(0.01, 1e4),
    fit: random.chance(0.5),
    bend: random.chance(0.3),
    profile: random.list(2, 9, () => [random.between(-3, 3), random.between(-1, 1)]),
    ring: random.chance(0.4),
    from: random.of([0, random.between(-10, 500)]),
    to: random.of([null, random.between(-10, 500)]),
    offset: { side: random.between(-5, 5), rise: random.between(-1, 1) },
    both: random.chance(0.3),
    stand: random.of(['path', 'level', 'ground']),
    jitter: random.of([0, random.size(0.01, 10)]),
    jitterTurn: random.of([0, 90]),
    jitterSize: random.of([0, 0.5]),
    seed: random.whole(0, 99),
    ground: !pieces && random.chance(0.2),
  };
}

function emitter(models: unknown[], random: Random): Part {
  return {
    rate: random.size(0.1, 1e4),
    by: random.of(['time', 'distance']),
    life: random.size(0.01, 1e3),
    speed: random.size(0.01, 100),
    spread: random.between(0, 180),
    gravity: random.of([0, 1, -0.1, 50]),
    drag: random.of([0, 1e-9, 0.5, 900]),
    inherit: random.of([0, 1, -2]),
    size: [random.size(0.01, 2), random.of([0, 1])],
    model: models.length > 0 && random.chance(0.3) ? random.of(models) : null,
    seed: random.whole(0, 99),
    ...random.of([{}, { from: 'wheels' }, { from: 'part', node: random.of(['body', 'nothing']) }]),
    when: random.of(['always', 'moving', 'sliding']),
    bursts: random.list(0, 2, () => ({ frame: random.between(-20, 120), count: random.whole(1, 200) })),
  };
}

function forces(random: Random): Part {
  return {
    shape: random.of(['ball', 'box', 'hull']),
    size: random.size(0.01, 20),
    mass: random.size(0.01, 1e4),
    friction: random.of([0, 0.5, 5]),
    bounce: random.of([0, 0.5, 1]),
    pull: random.of([0, 0.3, 1]),
    turnPull: random.of([0, 0.3, 1]),
    damping: random.of([0, 3]),
    spinDamping: random.of([0, 3]),
    drag: random.of([0, 0.5, 100]),
    blend: random.of([0, 12, 500]),
  };
}

function hanging(random: Random): Part {
  return {
    node: random.of(['body', 'wheel_fl', 'nothing']),
    joint: random.of(['ball', 'hinge']),
    axis: random.of(['+x', '-y', '+z']),
    middle: random.of([
      [0, -0.5, 0],
      [0, 0, 0],
      [1, 2, -3],
    ]),
    mass: random.size(0.01, 1e3),
    stiffness: random.of([0, 10, 1e6]),
    damping: random.of([0, 0.5, 900]),
  };
}
