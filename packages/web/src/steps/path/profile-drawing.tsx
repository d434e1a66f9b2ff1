import type { Dressing } from '@fleet-rail/core';
import { FileUp } from 'lucide-react';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { Tick } from '../../ui/tick';
import { readProfile } from './read-profile';
import { dragEnd } from '../../ui/drag-end';

const [WIDTH, HEIGHT] = [268, 150] as const;

const Drawing = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  touch-action: none;
  & text {
    font: 500 10px ${LABEL_FONT};
    fill: ${({ theme }) => theme.quiet};
  }
  & .outline {
    fill: none;
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5;
  }
  & .axis {
    stroke: ${({ theme }) => theme.hairline};
  }
  & [role='slider'] {
    fill: ${({ theme }) => theme.panel};
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5;
    cursor: move;
  }
  & [role='slider']:focus-visible {
    stroke: ${({ theme }) => theme.signal};
    outline: none;
  }
`;

/** A step with an arrow key, metres. */
const STEP = 0.01;

/**
 * Cross-section of a profile, seen along the path: its corners are dragged, or moved with arrow keys; a click on the
 * line adds one.
 */
export function ProfileDrawing(props: {
  laid: Dressing;
  onChange: (part: Partial<Dressing>, gesture?: string) => void;
}) {
  const { laid, onChange } = props;
  const { profile, ring } = laid;
  const drawing = useRef<SVGSVGElement>(null);
  const held = useRef<{ index: number; gesture: string; scale: number; middle: [number, number] } | null>(
    null,
  );
  const { scale, middle } = frameOf(profile);
  const at = ([x, y]: readonly [number, number], by = { scale, middle }): [number, number] => [
    // Left of the path is left on paper.
    WIDTH / 2 - (x - by.middle[0]) * by.scale,
    HEIGHT / 2 - (y - by.middle[1]) * by.scale,
  ];
  const put = (index: number, [x, y]: readonly [number, number], gesture?: string) => {
    const rounded: [number, number] = [round(x), round(y)];
    onChange({ profile: profile.map((point, i) => (i === index ? rounded : point)) }, gesture);
  };
  const place = (event: PointerEvent, by = { scale, middle }): [number, number] => {
    const box = drawing.current?.getBoundingClientRect() ?? new DOMRect();
    const pixel = box.width / WIDTH || 1;
    return [
      (WIDTH / 2 - (event.clientX - box.left) / pixel) / by.scale + by.middle[0],
      (HEIGHT / 2 - (event.clientY - box.top) / pixel) / by.scale + by.middle[1],
    ];
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    const [x, y] = profile[index];
    const by = event.shiftKey ? 10 * STEP : STEP;
    const moved: Partial<Record<string, [number, number]>> = {
      ArrowLeft: [x + by, y],
      ArrowRight: [x - by, y],
      ArrowUp: [x, y + by],
      ArrowDown: [x, y - by],
    };
    const next = moved[event.key];
    if (next) put(index, next, `profile ${laid.id} ${index}`);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && profile.length > 2)
      onChange({ profile: profile.filter((_, i) => i !== index) });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const add = (event: PointerEvent) => {
    const [x, y] = place(event);
    const after = nearestEdge(profile, ring, [x, y]);
    if (profile.length < 500)
      onChange({
        profile: [...profile.slice(0, after + 1), [round(x), round(y)], ...profile.slice(after + 1)],
      });
  };
  const outline = profile.map((point) => at(point).join()).join(' ');
  const [width, height] = sizeOf(profile);
  return (
    <>
      <Drawing
        ref={drawing}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="group"
        aria-label={`Profile of ${laid.name}`}
        onPointerMove={(event) => {
          const { current } = held;
          if (current) put(current.index, place(event, current), current.gesture);
        }}
        {...dragEnd(() => {
          held.current = null;
        })}
      >
        <line className="axis" x1={0} x2={WIDTH} y1={at([0, 0])[1]} y2={at([0, 0])[1]} />
        <line className="axis" x1={at([0, 0])[0]} x2={at([0, 0])[0]} y1={0} y2={HEIGHT} />
        {ring ? (
          <polygon
            className="outline"
            points={outline}
            fillOpacity={0}
            pointerEvents="stroke"
            onPointerDown={add}
          />
        ) : (
          <polyline className="outline" points={outline} pointerEvents="stroke" onPointerDown={add} />
        )}
        {profile.length <= 60 &&
          profile.map((point, i) => (
            <circle
              key={i}
              role="slider"
              tabIndex={0}
              aria-label={`Corner ${i + 1} of the profile`}
              aria-valuenow={point[1]}
              aria-valuetext={`${showNumber(point[0], 3)} m left, ${showNumber(point[1], 3)} m up`}
              cx={at(point)[0]}
              cy={at(point)[1]}
              r={4.5}
              onKeyDown={(event) => onKey(event, i)}
              onPointerDown={(event) => {
                event.stopPropagation();
                event.currentTarget.focus();
                drawing.current?.setPointerCapture(event.pointerId);
                held.current = { index: i, gesture: crypto.randomUUID(), scale, middle };
              }}
            />
          ))}
        <text x={6} y={HEIGHT - 6}>
          {showNumber(width, 2)} × {showNumber(height, 2)} m, left of the path is left
        </text>
      </Drawing>
      <Tick isSelected={ring} isDisabled={profile.length < 3} onChange={(on) => onChange({ ring: on })}>
        Closed outline
      </Tick>
      <Buttons>
        <FileTrigger
          acceptedFileTypes={['.svg']}
          onSelect={(files) => {
            const file = files?.[0];
            if (!file) return;
            void readProfile(file, width || 1).then(onChange, (error: unknown) =>
              notify('error', sentenceOf(error)),
            );
          }}
        >
          <Button>
            <FileUp aria-hidden /> Profile from an SVG
          </Button>
        </FileTrigger>
      </Buttons>
      <Hint>Drag a corner to move it, click the line to add one; the Delete key deletes one.</Hint>
    </>
  );
}

const round = (value: number) => Number(value.toFixed(4));

function sizeOf(profile: Dressing['profile']): [number, number] {
  return [0, 1].map(
    (k) => Math.max(...profile.map((point) => point[k])) - Math.min(...profile.map((point) => point[k])),
  ) as [number, number];
}

function frameOf(profile: Dressing['profile']): { scale: number; middle: [number, number] } {
  const [width, height] = sizeOf(profile);
  const middle = [0, 1].map(
    (k) =>
      (Math.max(...profile.map((point) => point[k])) + Math.min(...profile.map((point) => point[k]))) / 2,
  ) as [number, number];
  const scale = Math.min((WIDTH - 50) / Math.max(width, 0.02), (HEIGHT - 50) / Math.max(height, 0.02));
  return { scale, middle };
}

/** After which corner a place of the outline lies. */
function nearestEdge(profile: Dressing['profile'], ring: boolean, [x, y]: [number, number]): number {
  let [best, least] = [0, Infinity];
  const count = ring ? profile.length : profile.length - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [profile[i], profile[(i + 1) % profile.length]];
    const [u, v] = [b[0] - a[0], b[1] - a[1]];
    const t = Math.min(1, Math.max(0, ((x - a[0]) * u + (y - a[1]) * v) / (u * u + v * v || 1)));
    const far = Math.hypot(x - a[0] - t * u, y - a[1] - t * v);
    if (far < least) [best, least] = [i, far];
  }
  return best;
}
