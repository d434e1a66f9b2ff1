import type { ChannelId } from '@fleet-rail/core';

/** Name, unit and step of a channel. */
export const CHANNELS: Readonly<
  Record<ChannelId, { readonly name: string; readonly unit: string; readonly step: number }>
> = {
  along: { name: 'Offset ahead', unit: 'm', step: 0.05 },
  side: { name: 'Offset to the left', unit: 'm', step: 0.05 },
  rise: { name: 'Offset up', unit: 'm', step: 0.05 },
  yaw: { name: 'Turn left', unit: '°', step: 1 },
  pitch: { name: 'Nose up', unit: '°', step: 1 },
  roll: { name: 'Roll right', unit: '°', step: 1 },
  focal: { name: 'Focal length', unit: 'mm', step: 1 },
  attachment: { name: 'Path influence', unit: '', step: 0.05 },
  facing: { name: 'Rotation influence', unit: '', step: 0.05 },
  aim: { name: 'Aim influence', unit: '', step: 0.05 },
};
