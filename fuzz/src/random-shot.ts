import type { Random } from './random.js';

// Valid shots with everything a document can hold, in sizes from dust to continents.

const AXES = ['+x', '-x', '+y', '-y', '+z', '-z'];
const EASES = ['linear', 'hold', 'smooth'];
const OUTSIDES = ['hold', 'repeat', 'accumulate', 'mirror', 'run'];

export const RANGE = { first: 1, last: 100 };

/** Nodes and clips of the models in random shots. */
export const PARTS = {
  car: ['body', 'wheel 0', 'wheel 1', 'wheel 2', 'wheel 3'],
  walker: ['foot_l', 'foot_r'],
};

export type Part = Record<string, unknown>;

/** A shot as parseShot takes it. */
export function randomShot(random: Random): Part {
  // How large this shot's world is, metres.
  const world = random.of([1, 10, 10, 100, 100, 1_000, 1e5, 3e6, 1e-3, 1e-6]);
  const paths = random.list(1, 3, (i) => randomPath(random, i, world));
  const count = random.whole(1, 5);
  const riders = Array.from({ length: count }, (_, i) => randomRider(random, i, paths, world));
  return {
    format: 'fleet-rail-shot',
    version: 2,
    name: 'Random',
    fps: random.of([24, 25, 29.97, 60, 0.5]),
    range: RANGE,
    loop: random.chance(0.4),
    paths,
    models: [
      { id: 'car', name: 'Car', source: { file: 'car.glb' } },
      { id: 'walker', name: 'Walker', source: { file: 'walker.glb' } },
      { id: 'field', name: 'Field', source: { file: 'field.glb' } },
    ],
    ground: { model: random.chance(0.6) ? 'field' : null },
    riders,
    cuts: riders.some((rider) => rider.camera) ? [{ frame: 1, camera: cameraOf(riders) }] : [],
    retimes: random.chance(0.3) ? random.list(1, 2, () => randomRetime(random, riders)) : [],
    cues: random.chance(0.4) ? random.list(1, 3, (i) => randomCue(random, i, riders, world)) : [],
  };
}

const cameraOf = (riders: readonly Part[]) => riders.find((rider) => rider.camera)?.id;

function randomPath(random: Random, index: number, world: number): Part {
  const basis = random.of(['bezier', 'bspline', 'nurbs', 'through', 'polyline']);
  const flat = random.chance(0.4);
  const at = (): number[] => [
    random.between(-world, world),
    flat ? 0 : random.between(-world, world) * random.of([0.1, 0.1, 1]),
    random.between(-world, world),
  ];
  const points: Part[] = [];
  const count = random.whole(2, 12);
  while (points.length < count) {
    const before = points[points.length - 1]?.position;
    // Doubled points, and points on one line, are what hands make.
    const position = before && random.chance(0.1) ? before : at();
    points.push({
      position,
      in: random.chance(0.3) ? at() : [0, 0, 0],
      out: random.chance(0.3) ? at() : [0, 0, 0],
      handles: random.of(['corner', 'smooth', 'symmetric', 'auto', 'auto']),
      weight: random.chance(0.2) ? random.size(1e-3, 1e3) : 1,
      roll: random.chance(0.2) ? random.between(-400, 400) : 0,
      off: random.chance(0.05),
    });
  }
  return {
    id: `p${index}`,
    name: `Path ${index}`,
    basis,
    closed: random.chance(0.5),
    degree: random.whole(1, 5),
    alpha: random.next(),
    points,
    transform: random.chance(0.2) ? randomTransform(random, world) : {},
  };
}

function randomTransform(random: Random, world: number): Part {
  return {
    translation: [
      random.between(-world, world),
      random.between(-world, world),
      random.between(-world, world),
    ],
    rotation: randomRotation(random),
    scale: [random.size(0.01, 10), random.size(0.01, 10), random.of([1, -1]) * random.size(0.01, 10)],
  };
}

function randomRotation(random: Random): number[] {
  const raw = [random.between(-1, 1), random.between(-1, 1), random.between(-1, 1), random.between(0.1, 1)];
  const size = Math.hypot(...raw);
  return raw.map((value) => value / size);
}

function randomRider(random: Random, i: number, paths: readonly Part[], world: number): Part {
  const model = random.of([null, 'car', 'car', 'walker']);
  const others = Array.from({ length: i }, (_, k) => `r${k}`);
  const ridden = random.chance(0.9);
  const parts = model === 'car' ? PARTS.car : PARTS.walker;
  return {
    id: `r${i}`,
    name: `Rider ${i}`,
    badge: `R${i}`,
    model,
    kind: random.of(['vehicle', 'camera', 'character', 'prop']),
    parent: !ridden && others.length > 0 && random.chance(0.5) ? random.of(others) : null,
    rest: random.chance(0.3) ? randomTransform(random, Math.min(world, 1_000)) : {},
    attachment: ridden ? randomAttachment(random, paths, others, world) : null,
    chassis: random.chance(0.4)
      ? { frontAxle: 1.2, rearAxle: random.of([-1.2, 0, 1.2]), frontCoupling: 1.8, rearCoupling: -1.8 }
      : null,
    camera: random.chance(0.2)
      ? { focal: random.size(1, 1_000), framing: [random.between(-1, 1), 0.2] }
      : null,
    wheels:
      model === 'car' && random.chance(0.8)
        ? parts.slice(1).map((node, w) => ({
            node,
            centre: [w % 2 ? 0.8 : -0.8, 0.4, w < 2 ? 1.2 : -1.2],
            radius: 0.4,
            axle: random.of(['+x', '-x']),
            steers: w < 2 && random.chance(0.7),
          }))
        : [],
    body: model === 'car' && random.chance(0.5) ? { node: 'body', settle: random.of([0, 0.35, 20]) } : {},
    ball: model === null && random.chance(0.2) ? { radius: random.size(0.01, 10) } : null,
    gait:
      model === 'walker' && random.chance(0.8)
        ? {
            clip: 'walk',
            idle: random.of([null, 'stand']),
            stride: random.size(0.1, 10),
            blend: random.of([0, 0.25, 3]),
            plant: random.chance(0.8),
            feet: ['foot_l', 'foot_r'].map((node, f) => ({
              node,
              stances: [{ from: f / 2, to: f / 2 + 0.6 }],
            })),
            acts: random.chance(0.2) ? [{ stop: 0, clip: 'stand', from: 0, to: null }] : [],
          }
        : null,
    cycles:
      model === 'car' && random.chance(0.3)
        ? random.list(1, 2, () => ({
            node: random.of(parts),
            kind: random.of(['turn', 'slide']),
            amplitude: random.between(-90, 90),
            rate: random.between(-20, 20),
            by: random.of(['time', 'distance']),
            shape: random.of(['sine', 'pulse', 'noise', 'steady']),
            whole: random.chance(0.5),
            seed: random.whole(0, 1_000),
          }))
        : [],
  };
}

function randomAttachment(
  random: Random,
  paths: readonly Part[],
  others: readonly string[],
  world: number,
): Part {
  const path = random.of(paths);
  const led = others.length > 0 && random.chance(0.3);
  const follows = led && random.chance(0.5);
  const forward = random.of(['+z', '+z', '+x', '-y']);
  const up = random.of(AXES.filter((axis) => axis[1] !== forward[1]));
  const aims = random.chance(0.25);
  const keys = (most: number) =>
    random.chance(0.2)
      ? random.rising(-20, random.whole(1, 5), 0.01, 40).map((frame) => ({
          frame,
          value: random.next() * most,
          ease: random.of(EASES),
        }))
      : [];
  const far = Math.min(world, 1_000);
  const offset = () => ({
    along: random.chance(0.4) ? random.between(-far, far) : 0,
    side: random.chance(0.4) ? random.between(-far, far) * 0.1 : 0,
    rise: random.chance(0.2) ? random.between(-far, far) * 0.1 : 0,
    yaw: random.chance(0.2) ? random.of([180, random.between(-720, 720)]) : 0,
    pitch: random.chance(0.1) ? random.between(-90, 90) : 0,
    roll: random.chance(0.1) ? random.between(-90, 90) : 0,
  });
  return {
    path: path.id,
    anchor: random.of(['origin', 'origin', 'frontAxle', 'rearAxle', 'bothAxles']),
    facing: {
      mode: aims ? 'aim' : random.of(['path', 'path', 'path', 'keep']),
      forward,
      up,
      reference: random.of(['world', 'path', 'ground']),
      along: random.of(['path', 'path', 'travel']),
      turnTime: random.of([0, 0.5, 30]),
      target: aims && others.length > 0 ? { rider: random.of(others) } : null,
      ahead: aims ? random.between(-10, 10) : 0,
      aim: {
        deadZone: random.of([0, 0, 5, 170]),
        damping: random.of([0, 0, 0.5, 20]),
        yawLimit: random.of([180, 180, 30, 0]),
        pitchLimit: random.of([90, 20]),
        influence: keys(1),
      },
      influence: keys(1),
    },
    bank: {
      mode: random.of(['none', 'amount', 'physical']),
      amount: random.between(-2, 2) * 10,
      limit: random.of([45, 0, 180]),
      window: random.of([0, 1, 100]),
    },
    offset: offset(),
    offsetKeys: random.chance(0.2)
      ? random.rising(-10, random.whole(1, 4), 0.1, 60).map((frame) => ({
          ...offset(),
          frame,
          ease: random.of(EASES),
        }))
      : [],
    pace: randomPace(random, world),
    ground: { mode: random.of(['none', 'stick']), up: random.size(0.1, 100), down: random.size(0.1, 100) },
    influence: keys(1),
    coupledTo: follows ? { rider: random.of(others), gap: random.of([0, 1, 5]) } : null,
    pacedBy:
      led && !follows
        ? { rider: random.of(others), delay: random.between(-100, 100), rate: random.size(0.1, 10) }
        : null,
    rideTransform: random.chance(0.1)
      ? {
          translation: [random.between(-far, far), 0, 3],
          turn: random.between(-180, 180),
          size: random.size(0.1, 10),
        }
      : null,
  };
}

function randomPace(random: Random, world: number): Part {
  const unit = random.of(['metres', 'laps']);
  const reach = unit === 'laps' ? random.of([1, 1, 3, 90]) : world * random.of([1, 3, 10]);
  const sign = random.of([1, 1, -1]);
  return {
    mode: random.of(['keys', 'keys', 'speed', 'drive']),
    unit,
    keys: random.rising(random.whole(-50, 20), random.whole(0, 6), 0.01, 60).map((frame) => ({
      frame,
      value: random.between(-0.2, 1) * reach * random.of([1, 1, 0]),
      ease: random.of([...EASES, 'handles']),
      in: [-random.size(0.01, 100), random.between(-1, 1) * reach],
      out: [random.size(0.01, 100), random.between(-1, 1) * reach],
    })),
    speeds: random.chance(0.5)
      ? random.rising(-10, random.whole(1, 5), 0.01, 50).map((frame) => ({
          frame,
          speed: random.between(-1, 1) * random.size(0.01, world),
          ease: random.of(EASES),
        }))
      : random.rising(-world / 10, random.whole(1, 5), world / 1e3, world).map((distance) => ({
          distance,
          speed: sign * random.size(0.01, Math.max(1, world)),
          ease: random.of(EASES),
        })),
    drive: {
      top: random.size(1e-3, Math.min(1e6, Math.max(1, world))),
      accelerate: random.size(0.01, 100),
      brake: random.size(0.01, 100),
      sideways: random.size(0.01, 100),
      jerk: random.of([null, 8, random.size(0.01, 1_000)]),
      departs: random.of(['rest', 'rolling']),
      arrives: random.of(['rest', 'rolling']),
      way: random.of(['along', 'against']),
      stops: random.list(0, 2, () => ({
        distance: random.of([random.between(-world, 2 * world), 1e-50, 1e-9]),
        seconds: random.size(0.01, 100),
      })),
      zones: random.list(0, 2, () => ({
        from: random.between(-world, world),
        to: random.between(-world, 2 * world),
        speed: random.size(1e-3, Math.min(1e6, Math.max(1, world))),
      })),
    },
    start: { frame: random.whole(-20, 60), value: random.between(0, 1) * reach },
    before: random.of(OUTSIDES),
    after: random.of(OUTSIDES),
    variation: random.chance(0.1) ? { time: random.next() / 2, amount: random.next() / 2, seed: 3 } : null,
    within: random.chance(0.1) ? [0, world] : null,
  };
}

function randomRetime(random: Random, riders: readonly Part[]): Part {
  return {
    riders: random.chance(0.5) ? [] : [random.of(riders).id],
    keys: random.rising(-5, random.whole(1, 4), 0.5, 60).map((frame) => ({
      frame,
      source: random.between(-50, 150),
      ease: random.of(EASES),
    })),
    off: random.chance(0.1),
  };
}

function randomCue(random: Random, i: number, riders: readonly Part[], world: number): Part {
  const kind = random.of(['frame', 'distance', 'gap']);
  // Forward alone: a rider that waits for one after it would be a circle sooner or later.
  const [first, second] = [random.of(riders), random.of(riders)];
  const does = random.of(['turn', 'move', 'start', 'stopEnd']);
  const acts = kind === 'frame' || does === 'turn' || does === 'move' ? does : 'turn';
  return {
    id: `c${i}`,
    name: `Cue ${i}`,
    trigger: {
      kind,
      rider: kind === 'frame' ? null : first.id,
      other: kind === 'gap' ? second.id : null,
    },
    action: { kind: acts, rider: random.of(riders).id, node: 'body', axis: random.of(AXES), stop: 0 },
    keys: random
      .rising(kind === 'frame' ? -5 : -world, random.whole(1, 4), 0.1, kind === 'frame' ? 60 : world + 1)
      .map((at) => ({ at, value: random.between(-1, 2), ease: random.of(EASES) })),
    off: random.chance(0.1),
  };
}
