/** The colours and sizes everything is drawn from. */
export interface Theme {
  readonly mode: 'day' | 'night';
  readonly paper: string;
  readonly panel: string;
  readonly ink: string;
  readonly quiet: string;
  readonly hairline: string;
  /** A faint fill for what is chosen or under the pointer. */
  readonly wash: string;
  readonly stageGround: string;
  readonly sky: string;
  /** The sky low down, in which what is far away fades. */
  readonly horizon: string;
  readonly gridFine: string;
  readonly gridCoarse: string;
  /** The playhead, the primary action, errors' edge. */
  readonly signal: string;
  /** Signal as text on panel. */
  readonly signalText: string;
  readonly settled: string;
  readonly attention: string;
  /** A path that nothing rides. */
  readonly idlePath: string;
}

export const DAY: Theme = {
  mode: 'day',
  paper: '#F5F3EC',
  panel: '#FFFFFF',
  ink: '#1B2A33',
  quiet: '#5B6B73',
  hairline: '#D9D4C6',
  wash: '#EFECE2',
  stageGround: '#CBD2C6',
  sky: '#DDE5E6',
  horizon: '#F5F3EC',
  gridFine: '#BDC5B8',
  gridCoarse: '#A3AEA0',
  signal: '#D3452C',
  signalText: '#B93A23',
  settled: '#2C7A57',
  attention: '#8F5E0C',
  idlePath: '#5B6B73',
};

export const NIGHT: Theme = {
  mode: 'night',
  paper: '#12191E',
  panel: '#1A242B',
  ink: '#E7ECEA',
  quiet: '#9FB0B7',
  hairline: '#2C3A43',
  wash: '#24313A',
  stageGround: '#2A343A',
  sky: '#1C262C',
  horizon: '#2B3740',
  gridFine: '#313D44',
  gridCoarse: '#42525B',
  signal: '#D3452C',
  signalText: '#FF8A73',
  settled: '#6CC79C',
  attention: '#E5AE4B',
  idlePath: '#9FB0B7',
};

/** The eight line colours, distinguishable with colour blindness, always shown with a badge. */
export const LINE_COLORS = [
  '#1F6FB2',
  '#D3802C',
  '#2E8B6A',
  '#A8467F',
  '#5B5FC7',
  '#8A6D1F',
  '#C4504A',
  '#3E8FA3',
] as const;

/** A line colour by its number in the document. */
export function lineColor(color: number): string {
  return LINE_COLORS[color % LINE_COLORS.length];
}

/** White or near-black, whichever reads better on a colour. */
export function textOn(background: string): string {
  const light = luminance(background);
  const onWhite = 1.05 / (light + 0.05);
  const onDark = (light + 0.05) / (luminance('#0A0F12') + 0.05);
  return onWhite >= onDark ? '#FFFFFF' : '#0A0F12';
}

/** Relative luminance of #RRGGBB (WCAG 2.1). */
function luminance(color: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const value = parseInt(color.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : Math.pow((value + 0.055) / 1.055, 2.4);
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
