import { beginBlock, endBlock, moveBlock, type ClipBlock, type Rider } from '@fleet-rail/core';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled, { useTheme } from 'styled-components';
import { changeClips } from '../../edits/clip-edits';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useGaits } from '../../state/use-gaits';
import { useKeptModel } from '../../state/use-kept-model';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { AxisText } from './diagram-text';
import { MARGIN, type DiagramScales } from './diagram-scales';
import { svgPlace } from './svg-place';
import { dragEnd } from '../../ui/drag-end';

/** How high the row of clips is, pixels. */
export const CLIP_ROW = 22;
/** Width of the grips at the ends of a block, and what remains to drag it as a whole. */
const EDGE = 7;

const Block = styled.path`
  stroke-width: 1.5;
  stroke-linejoin: round;
  cursor: grab;
  &:focus-visible {
    outline: none;
    stroke-width: 3;
  }
`;

const End = styled.rect`
  fill: transparent;
  cursor: ew-resize;
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.ink};
  }
`;

const Name = styled.text`
  font: 500 11px ${LABEL_FONT};
  fill: ${({ theme }) => theme.ink};
  pointer-events: none;
`;

type Grip = 'whole' | 'begins' | 'ends';

/** Acts at stops, and clips over the gait, as blocks in time. Clips are dragged whole or by an end; where two
 * overlap they blend along the slant. */
export function ClipRow({ scales, top, rider }: { scales: DiagramScales; top: number; rider: Rider }) {
  const desk = useDeskStore();
  const theme = useTheme();
  const { fps, range } = useDesk((state) => state.shot);
  const gaits = useGaits(rider, useKeptModel(rider));
  const held = useRef<{ px: number; clips: readonly ClipBlock[]; gesture: string } | null>(null);
  const stops = useDesk(({ evaluation }) => evaluation?.riders.get(rider.id)?.timing?.stops) ?? [];
  const { x } = scales;
  const { clips } = rider;
  const acts = rider.gait?.acts ?? [];
  const seconds = (clip: string) => gaits.find((one) => one.clip === clip)?.seconds ?? Infinity;
  const moved = (before: readonly ClipBlock[], i: number, grip: Grip, frames: number): ClipBlock[] => {
    const by = Math.round(frames);
    if (grip === 'whole') return moveBlock(before, i, by);
    if (grip === 'ends') return endBlock(before, i, before[i].until + by);
    return beginBlock(before, i, before[i].frame + by, { fps, seconds: seconds(before[i].clip) });
  };
  const put = (label: string, next: ClipBlock[], gesture?: string) =>
    desk.getState().edit(
      label,
      changeClips(rider.id, () => next),
      gesture,
    );
  const events = (i: number, grip: Grip) => ({
    tabIndex: 0,
    role: 'slider',
    onPointerDown(event: PointerEvent<SVGElement>) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { px: svgPlace(event).px, clips, gesture: `clip ${event.timeStamp}` };
    },
    onPointerMove(event: PointerEvent<SVGElement>) {
      if (held.current === null) return;
      const { px, clips: before, gesture } = held.current;
      const frames = x.invert(svgPlace(event).px) - x.invert(px);
      put(LABELS[grip], moved(before, i, grip, frames), gesture);
    },
    ...dragEnd(() => {
      held.current = null;
    }),
    onKeyDown(event: KeyboardEvent) {
      const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
      const gone = event.key === 'Delete' || event.key === 'Backspace';
      if (way === 0 && !(gone && grip === 'whole')) return;
      event.preventDefault();
      event.stopPropagation();
      if (gone)
        put(
          'Delete a clip',
          clips.filter((_, n) => n !== i),
        );
      else put(LABELS[grip], moved(clips, i, grip, way * (event.shiftKey ? 10 : 1)));
    },
  });
  const value = (frame: number) => ({
    'aria-valuenow': Number(frame.toFixed(2)),
    'aria-valuemin': range.first,
    'aria-valuemax': range.last,
    'aria-valuetext': `frame ${showNumber(frame, 1)}`,
  });
  return (
    <g aria-label="Clips" role="group">
      <AxisText x={MARGIN.left - 8} y={top + CLIP_ROW / 2 + 4} textAnchor="end">
        Clips
      </AxisText>
      <g clipPath="url(#run-diagram-lines)">
        {acts.map(({ stop, clip }) => {
          const at = stops[stop];
          if (at === undefined) return null;
          const [from, to] = [x(at.from), x(Math.min(at.to, range.last + 1))];
          return (
            <g key={`act ${stop}`} data-act={clip}>
              <rect
                x={from}
                y={top + 1}
                width={Math.max(0, to - from)}
                height={CLIP_ROW - 3}
                fill={theme.wash}
                stroke={theme.quiet}
                strokeDasharray="3 2"
              />
              {to - from > 24 && (
                <Name x={from + 8} y={top + CLIP_ROW / 2 + 4}>
                  {shortened(clip, to - from - 12)}
                </Name>
              )}
            </g>
          );
        })}
        {clips.map((block, i) => {
          const [from, to] = [x(block.frame), x(block.until)];
          const comes = i > 0 ? Math.max(from, Math.min(to, x(clips[i - 1].until))) : from;
          const goes = i < clips.length - 1 ? Math.max(from, Math.min(to, x(clips[i + 1].frame))) : to;
          const [high, low] = [top + 1, top + CLIP_ROW - 2];
          const edge = Math.min(EDGE, Math.max(2, (to - from) / 4));
          const label = { 'aria-label': `Clip ${i + 1}, ${block.clip}` };
          return (
            <g key={i} data-clip={block.clip}>
              <Block
                {...events(i, 'whole')}
                {...label}
                {...value(block.frame)}
                d={`M${from} ${high}H${goes}L${to} ${low}H${comes}Z`}
                fill={theme.panel}
                stroke={lineColor(rider.color)}
              />
              {(['begins', 'ends'] as const).map((grip) => (
                <End
                  key={grip}
                  {...events(i, grip)}
                  {...value(grip === 'begins' ? block.frame : block.until)}
                  aria-label={`${label['aria-label']} ${grip}`}
                  x={grip === 'begins' ? from - 1 : to - edge + 1}
                  y={high}
                  width={edge}
                  height={low - high}
                />
              ))}
              <Block
                as="path"
                d={repeats(block, seconds(block.clip), fps)
                  .map((frame) => `M${x(frame)} ${low - 4}V${low}`)
                  .join('')}
                stroke={lineColor(rider.color)}
                pointerEvents="none"
                aria-hidden
              />
              {to - comes > 24 && (
                <Name x={comes + 8} y={top + CLIP_ROW / 2 + 4}>
                  {shortened(block.clip, to - comes - 12)}
                </Name>
              )}
            </g>
          );
        })}
      </g>
    </g>
  );
}

const LABELS: Record<Grip, string> = { whole: 'Move clip', begins: 'Trim clip', ends: 'Lengthen clip' };

/** Approximate width of a letter, pixels. */
const LETTER = 6.2;

function shortened(name: string, pixels: number): string {
  const letters = Math.floor(pixels / LETTER);
  return name.length <= letters ? name : letters > 1 ? `${name.slice(0, letters - 1)}…` : '';
}

/** More marks than this are a smear. */
const MOST = 60;

/** Frames at which a clip by its own time repeats. */
function repeats(
  { frame, until, from, to, rate, by, end }: ClipBlock,
  seconds: number,
  fps: number,
): number[] {
  const length = ((Math.min(to ?? seconds, seconds) - from) / Math.abs(rate)) * fps;
  const count = Math.floor((until - frame) / length);
  if (by !== 'time' || end === 'hold' || !(length > 0.5) || count < 1 || count > MOST) return [];
  return Array.from({ length: count }, (_, n) => frame + (n + 1) * length).filter((at) => at < until - 0.01);
}
