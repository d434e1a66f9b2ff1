import { expect, it } from '@jest/globals';
import { lineShape, svgOf, type Shape } from './shapes';

it('an SVG has the size it is for, its lines in hundredths, and names whatever signs they have', () => {
  const name: Shape = {
    kind: 'text',
    x: 1.2345,
    y: 2,
    text: '<Rows> & "lanes"',
    size: 11,
    fill: '#123456',
    anchor: 'end',
  };
  const svg = svgOf([lineShape([0, 1 / 3, 10, 20], '#654321', '2 3'), name], 100, 50);
  expect(svg).toContain('width="100" height="50" viewBox="0 0 100 50"');
  expect(svg).toContain('d="M0 0.33L10 20" fill="none" stroke="#654321" stroke-width="1"');
  expect(svg).toContain('stroke-dasharray="2 3"');
  expect(svg).toContain('x="1.23" y="2"');
  expect(svg).toContain('&lt;Rows&gt; &amp; &quot;lanes&quot;');
});
