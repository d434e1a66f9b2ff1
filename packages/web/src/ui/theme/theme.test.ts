import { DAY, LINE_COLORS, NIGHT, lineColor, textOn } from './theme';

/** Contrast of two colours (WCAG 2.1), written out from the standard. */
function contrast(a: string, b: string): number {
  const luminance = (color: string) => {
    const [r, g, b2] = [color.slice(1, 3), color.slice(3, 5), color.slice(5, 7)].map((hex) => {
      const c = Number.parseInt(hex, 16) / 255;
      return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * b2;
  };
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light + 0.05) / (dark + 0.05);
}

it('knows black and white', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
});

for (const theme of [DAY, NIGHT]) {
  it.each(['ink', 'quiet', 'signalText', 'settled', 'attention'] as const)(
    `by ${theme.mode}, %s reads on panel`,
    (role) => expect(contrast(theme[role], theme.panel)).toBeGreaterThanOrEqual(4.5),
  );

  it.each(['ink', 'quiet'] as const)(`by ${theme.mode}, %s reads on what is chosen`, (role) =>
    expect(contrast(theme[role], theme.wash)).toBeGreaterThanOrEqual(4.5),
  );

  it(`by ${theme.mode}, the board reads on paper`, () => {
    expect(contrast(theme.ink, theme.paper)).toBeGreaterThanOrEqual(7);
  });
}

it.each(LINE_COLORS)('a badge reads on %s', (color) => {
  expect(contrast(textOn(color), color)).toBeGreaterThanOrEqual(4.5);
});

it('the primary action reads', () => {
  expect(contrast('#FFFFFF', DAY.signal)).toBeGreaterThanOrEqual(4.5);
});

it('a ninth line takes the first colour again', () => {
  expect(lineColor(8)).toBe(LINE_COLORS[0]);
});
