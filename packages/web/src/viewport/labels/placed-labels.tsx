import { memo } from 'react';
import styled from 'styled-components';
import { useStore, type StoreApi } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { showNumber } from '../../ui/quantity';
import { SeverityRing } from '../../ui/severity-ring';
import { useDesk } from '../../state/desk-store';
import { ImportCorner } from './import-corner';
import { DressingEnd } from './dressing-end';
import type { StageLabel } from './stage-labels';

export const Tag = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  padding: 0 4px;
  border-radius: 3px;
  background: ${({ theme }) => theme.panel};
  font: 500 11px/16px ${LABEL_FONT};
  pointer-events: none;
  white-space: nowrap;
  will-change: transform;
`;

/** A ring on a post at its position. */
const Post = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  display: grid;
  justify-items: center;
  pointer-events: none;
  will-change: transform;
  & > svg {
    border-radius: 50%;
    background: ${({ theme }) => theme.panel};
  }
  &::after {
    content: '';
    width: 2px;
    height: 16px;
    background: ${({ theme }) => theme.ink};
  }
`;

/** Positions of labels on the screen: they change with every picture, so they are no state of the stage as a whole. */
export type LabelPlaces = StoreApi<readonly StageLabel[]>;

export const newLabelPlaces = (): LabelPlaces => createStore<readonly StageLabel[]>(() => []);

/** All labels that the page writes over the stage. */
export function PlacedLabels({ places }: { places: LabelPlaces }) {
  const labels = useStore(places);
  return labels.map(({ key, x, y }) => (
    <PlacedLabel key={key} name={key} x={Math.round(x)} y={Math.round(y)} />
  ));
}

/** A point's height, a mark or what else has a name, beside its place on the stage. */
const PlacedLabel = memo(function PlacedLabel({ name, x, y }: { name: string; x: number; y: number }) {
  const [kind, id] = name.split(/ (.*)/);
  const height = useDesk(({ shot, pathId }) => {
    const path = kind === 'point' ? shot.paths.find((other) => other.id === pathId) : undefined;
    return path?.points[Number(id)]?.position[1];
  });
  const mark = useDesk(({ shot, pathId }) =>
    kind === 'mark'
      ? shot.paths.find((other) => other.id === pathId)?.marks.find((other) => other.id === id)?.name
      : undefined,
  );
  const severity = useDesk(({ checked }) =>
    kind === 'post' ? checked?.findings[Number(id)]?.severity : undefined,
  );
  if (severity)
    return (
      <Post style={{ transform: `translate(${x}px, ${y}px) translate(-50%, -100%)` }}>
        <SeverityRing severity={severity} />
      </Post>
    );
  if (kind === 'import') return <ImportCorner x={x} y={y} />;
  if (kind === 'laid') return <DressingEnd end={id as 'from' | 'to'} x={x} y={y} />;
  const style = { transform: `translate(${x + 9}px, ${y - 8}px)` };
  if (kind === 'ghost') return <Tag style={style}>{id}</Tag>;
  if (mark !== undefined) return <Tag style={style}>{mark}</Tag>;
  if (height === undefined) return null;
  return (
    <Tag aria-hidden style={style}>
      {showNumber(height, 2)} m
    </Tag>
  );
});
