import { focalAt, sourceFrame } from '@fleet-rail/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { useSize } from '../../ui/use-size';
import { lookedThrough } from '../views/looked-through';
import { pictureRect } from './picture-rect';

/** The part of the picture that every screen shows. */
const SAFE = 0.9;

const Cover = styled.div`
  position: absolute;
  inset: 0;
  pointer-events: none;
  & > svg {
    position: absolute;
    inset: 0;
  }
`;

const Caption = styled.text`
  font: 600 13px ${LABEL_FONT};
  fill: #ffffff;
`;

/** The picture of the camera that is looked through: its edge, what is safe on every screen, and its thirds. */
export function Picture() {
  const cover = useRef<HTMLDivElement>(null);
  const view = useDesk((state) => state.view);
  const shot = useDesk((state) => state.shot);
  const through = useDesk((state) => state.through);
  const frame = useDesk((state) => state.frame);
  const shown = view === 'through';
  const { width, height } = useSize(cover, { width: 0, height: 0 }, shown);
  const evaluation = useDesk((state) => state.evaluation);
  const rider = lookedThrough({ shot, evaluation, through, frame });
  if (!shown || !rider?.camera) return null;
  const { x, y, width: wide, height: high } = pictureRect(width, height, rider.camera.aspect);
  const inset = (1 - SAFE) / 2;
  return (
    <Cover ref={cover}>
      <svg width={width} height={height} role="img" aria-label={`Picture of ${rider.badge} ${rider.name}`}>
        <path
          d={`M0 0H${width}V${height}H0Z M${x} ${y}V${y + high}H${x + wide}V${y}Z`}
          fill="#10181c"
          fillOpacity={0.72}
        />
        <rect x={x} y={y} width={wide} height={high} fill="none" stroke="#ffffff" strokeWidth={1.5} />
        <rect
          x={x + inset * wide}
          y={y + inset * high}
          width={SAFE * wide}
          height={SAFE * high}
          fill="none"
          stroke="#ffffff"
          strokeOpacity={0.8}
          strokeDasharray="6 5"
        />
        {[1, 2].map((n) => (
          <g key={n} stroke="#ffffff" strokeOpacity={0.45}>
            <line x1={x + (n * wide) / 3} x2={x + (n * wide) / 3} y1={y} y2={y + high} />
            <line x1={x} x2={x + wide} y1={y + (n * high) / 3} y2={y + (n * high) / 3} />
          </g>
        ))}
        <Caption x={x} y={y - 8}>
          {rider.badge} {rider.name} · {showNumber(focalAt(rider.camera, sourceFrame(shot, frame)), 1)} mm
        </Caption>
      </svg>
    </Cover>
  );
}
