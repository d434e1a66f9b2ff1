import { Maximize } from 'lucide-react';
import styled from 'styled-components';
import { Choice } from '../../ui/choice';
import { IconButton } from '../../ui/icon-button';
import { useDesk, type DiagramShown } from '../desk-store';

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

/** What the run diagram shows. */
export function DiagramBar() {
  const diagram = useDesk((state) => state.diagram);
  const set = useDesk((state) => state.set);
  const change = (part: Partial<DiagramShown>) => set({ diagram: { ...diagram, ...part } });
  return (
    <Bar role="toolbar" aria-label="Run diagram shows">
      <Choice
        label="Riders of"
        options={PATHS}
        value={diagram.paths}
        onChange={(paths) => change({ paths, metres: null })}
      />
      <Choice label="Axis" options={AXES} value={diagram.axis} onChange={(axis) => change({ axis })} />
      <Choice label="Strip" options={STRIPS} value={diagram.strip} onChange={(strip) => change({ strip })} />
      <IconButton label="Show the whole run" onPress={() => change({ frames: null, metres: null })}>
        <Maximize aria-hidden />
      </IconButton>
    </Bar>
  );
}
