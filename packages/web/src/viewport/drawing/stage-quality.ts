import { create } from 'zustand';

/**
 * Cost of the stage's pictures: `full` has everything, `light` fewer pixels and neither shadows nor outline, `still` is
 * drawn only when asked.
 */
export const STAGE_QUALITIES = ['full', 'light', 'still'] as const;
export type StageQuality = (typeof STAGE_QUALITIES)[number];

const STORED = 'fleet-rail.stage-quality';

/** Part of the screen's pixels along each side that a light stage draws. */
export const LIGHT_PIXELS = 2 / 3;

/** Stage quality, remembered in this browser. */
export const useStageQuality = create<{ quality: StageQuality; choose: (quality: StageQuality) => void }>(
  (set) => ({
    quality: STAGE_QUALITIES.find((one) => one === localStorage.getItem(STORED)) ?? 'full',
    choose: (quality) => {
      set({ quality });
      localStorage.setItem(STORED, quality);
    },
  }),
);
