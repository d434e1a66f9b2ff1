import type { Emitter } from '../../document/shot-emitter.js';

/** A spray to begin with. */
export interface ReadySpray {
  readonly name: string;
  readonly parts: Partial<Emitter>;
}

/** Presets of sprays by their look. */
export const READY_SPRAYS: readonly ReadySpray[] = [
  {
    name: 'Dust',
    parts: {
      rate: 30,
      life: 1.6,
      speed: 0.6,
      spread: 70,
      gravity: -0.01,
      drag: 1.5,
      inherit: 0.15,
      size: [0.12, 0.5],
      color: '#b9a27a',
      fade: '#d8ccb2',
      look: 'points',
      when: 'moving',
    },
  },
  {
    name: 'Sparks',
    parts: {
      rate: 120,
      life: 0.6,
      speed: 4,
      spread: 60,
      gravity: 1,
      drag: 0.3,
      inherit: 0.4,
      size: [0.05, 0.01],
      color: '#ffd27a',
      fade: '#c4501f',
      look: 'points',
      when: 'sliding',
    },
  },
  {
    name: 'Leaves',
    parts: {
      rate: 12,
      life: 3,
      speed: 1.6,
      spread: 60,
      gravity: 0.12,
      drag: 1.2,
      inherit: 0.2,
      size: [0.09, 0.09],
      color: '#a8802c',
      fade: '#7d5a26',
      when: 'moving',
    },
  },
  {
    name: 'Water',
    parts: {
      rate: 200,
      life: 0.9,
      speed: 4,
      spread: 14,
      gravity: 1,
      drag: 0.1,
      inherit: 1,
      size: [0.04, 0.1],
      color: '#9fc3d0',
      fade: '#d8e8ec',
      look: 'points',
      when: 'always',
    },
  },
];
