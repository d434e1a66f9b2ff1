import { useRef, type PointerEvent } from 'react';
import styled from 'styled-components';
import { dragEnd } from '../../ui/drag-end';

const WIDTH = 168;
const TALLEST = 120;

const Frame = styled.svg`
  display: block;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 4px;
  background: ${({ theme }) => theme.wash};
  cursor: move;
  touch-action: none;
`;

type Framing = readonly [number, number];

/** Small picture of the camera: drag the target to its position in the frame. The fields below do the same by numbers. */
export function FramingPicture(props: {
  /** Width over height. */
  aspect: number;
  /** From the middle, to the right and up; 1 at the edge. */
  framing: Framing;
  onChange: (framing: [number, number], gesture: string) => void;
}) {
  const { aspect, framing, onChange } = props;
  const gesture = useRef<string | null>(null);
  const width = Math.min(WIDTH, TALLEST * aspect);
  const height = width / aspect;
  const [x, y] = [(width * (1 + framing[0])) / 2, (height * (1 - framing[1])) / 2];
  const put = (event: PointerEvent<SVGSVGElement>) => {
    if (gesture.current === null) return;
    const box = event.currentTarget.getBoundingClientRect();
    const within = (share: number) => Number(Math.min(1, Math.max(-1, 2 * share - 1)).toFixed(2));
    const across = within((event.clientX - box.left) / box.width);
    const up = -within((event.clientY - box.top) / box.height);
    onChange([across, up === 0 ? 0 : up], gesture.current);
  };
  return (
    <Frame
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label="Target in the frame"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        gesture.current = `framing ${event.timeStamp}`;
        put(event);
      }}
      onPointerMove={put}
      {...dragEnd(() => {
        gesture.current = null;
      })}
    >
      <path
        d={`M${width / 2},0V${height}M0,${height / 2}H${width}`}
        stroke="currentColor"
        strokeOpacity={0.25}
      />
      <circle cx={x} cy={y} r={5} fill="none" stroke="currentColor" strokeWidth={1.75} />
      <circle cx={x} cy={y} r={1.5} fill="currentColor" />
    </Frame>
  );
}
