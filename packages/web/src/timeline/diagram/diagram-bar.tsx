import { channelsOf } from '@fleet-rail/core';
import { Maximize } from 'lucide-react';
import styled from 'styled-components';
import { Choice } from '../../ui/choice';
import { IconButton } from '../../ui/icon-button';
import { Select } from '../../ui/select';
import { CHANNELS } from '../../ui/words/channel-names';
import { useDesk, useSelectedRider, useShownChannel, type DiagramShown } from '../../state/desk-store';

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  height: 34px;
  padding: 0 10px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  & > :last-child {
    margin-left: auto;
  }
`;

const PATHS = [
  { id: 'own', name: 'This path' },
  { id: 'all', name: 'All paths' },
] as const;
const AXES = [
  { id: 'frames', name: 'Frames' },
  { id: 'seconds', name: 'Seconds' },
  { id: 'timecode', name: 'Timecode' },
] as const;
const STRIPS = [
  { id: 'speed', name: 'Speed' },
  { id: 'acceleration', name: 'Acceleration' },
  { id: 'sideways', name: 'Sideways' },
] as const;

/** Which line of the selected rider the diagram shows; nothing where it has but one. */
export function LineChoice() {
  const rider = useSelectedRider();
  const set = useDesk((state) => state.set);
  const channel = useShownChannel();
  const channels = rider ? channelsOf(rider) : [];
  if (channels.length === 0) return null;
  const options = [
    { id: 'distance' as const, name: 'Distance' },
    ...channels.map((id) => ({ id, name: CHANNELS[id].name })),
  ];
  return (
    <Select
      label="Line"
      isRow
      options={options}
      value={channel ?? 'distance'}
      onChange={(next) => set({ line: next })}
    />
  );
}

/** The same by itself, where the diagram has no bar. */
export function LineBar() {
  const rider = useSelectedRider();
  return rider && channelsOf(rider).length > 0 ? (
    <Bar role="toolbar" aria-label="Run diagram shows">
      <LineChoice />
      <span />
    </Bar>
  ) : null;
}

/** Contents of the run diagram. */
export function DiagramBar() {
  const diagram = useDesk((state) => state.diagram);
  const set = useDesk((state) => state.set);
  const change = (part: Partial<DiagramShown>) => set({ diagram: { ...diagram, ...part } });
  return (
    <Bar role="toolbar" aria-label="Run diagram shows">
      <LineChoice />
      <Choice
        label="Riders of"
        options={PATHS}
        value={diagram.paths}
        onChange={(paths) => change({ paths, metres: null })}
      />
      <Choice label="Axis" options={AXES} value={diagram.axis} onChange={(axis) => change({ axis })} />
      <Choice label="Strip" options={STRIPS} value={diagram.strip} onChange={(strip) => change({ strip })} />
      <IconButton label="Show the whole range" onPress={() => change({ frames: null, metres: null })}>
        <Maximize aria-hidden />
      </IconButton>
    </Bar>
  );
}
