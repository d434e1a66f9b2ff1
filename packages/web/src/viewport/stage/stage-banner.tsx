import styled from 'styled-components';
import { Button, PrimaryButton } from '../../ui/button';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { cancelTool, finishDrawing } from '../../commands/drawing';
import { finishEdges } from '../../commands/edge-path';

const Strip = styled.div`
  position: absolute;
  top: 12px;
  left: 12px;
  right: 150px;
  width: fit-content;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 6px 6px 6px 12px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme }) => theme.signal};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  & > div {
    display: flex;
    gap: 6px;
  }
`;

/** Says what a click in the stage does now, and how to leave it. */
export function StageBanner() {
  const desk = useDeskStore();
  const tool = useDesk((state) => state.tool);
  const kind = useDesk((state) => state.drawing.kind);
  const riders = useDesk(({ shot }) => shot.riders);
  if (tool.kind === 'select') return null;
  const cancel = <Button onPress={() => cancelTool(desk)}>Cancel (Esc)</Button>;
  if (tool.kind === 'pickPath' || tool.kind === 'pickTarget' || tool.kind === 'putRider') {
    const ids = tool.kind === 'pickPath' ? tool.riders : [tool.riderId];
    const chosen = riders.filter(({ id }) => ids.includes(id));
    const names =
      chosen.length === 1
        ? `${chosen[0].badge} ${chosen[0].name}`
        : chosen.map(({ badge }) => badge).join(', ');
    return (
      <Strip role="status">
        <span>
          {tool.kind === 'pickPath'
            ? `Click a path for ${names} to ride.`
            : tool.kind === 'putRider'
              ? `Click where ${names} goes.`
              : `Click what ${names} aims at: a rider, a part, or a point on the ground.`}
        </span>
        <div>{cancel}</div>
      </Strip>
    );
  }
  if (tool.kind !== 'draw' && tool.kind !== 'edges') {
    return (
      <Strip role="status">
        <span>{PICKS[tool.kind]}</span>
        <div>{cancel}</div>
      </Strip>
    );
  }
  if (tool.kind === 'edges') {
    return (
      <Strip role="status">
        <span>{edgesText(tool.runs.length)}</span>
        <div>
          {cancel}
          <PrimaryButton isDisabled={tool.runs.length === 0} onPress={() => finishEdges(desk)}>
            {tool.runs.length === 2 ? 'Line between (Enter)' : 'Use this edge (Enter)'}
          </PrimaryButton>
        </div>
      </Strip>
    );
  }
  const count = tool.places.length;
  return (
    <Strip role="status">
      <span>{drawText(count, kind === 'arc')}</span>
      <div>
        {cancel}
        {kind !== 'arc' && (
          <PrimaryButton isDisabled={count < 2} onPress={() => finishDrawing(desk, false)}>
            Finish (Enter)
          </PrimaryButton>
        )}
      </div>
    </Strip>
  );
}

const PICKS = {
  pickStart: 'Click the path where the ride starts.',
  insert: 'Click the path where the new point goes.',
  mark: 'Click the path where the mark goes.',
  pickStop: 'Click the path where it stops.',
  dragZone: 'Drag along the slow stretch.',
  box: 'Drag a box around the points to choose.',
};

function edgesText(count: number): string {
  if (count === 0) return 'Click an edge of a model.';
  if (count === 1) return 'One edge. Click another for the line midway between them.';
  return 'Two edges: the path runs midway between them.';
}

function drawText(count: number, arc: boolean): string {
  if (count === 0) return 'Click where the path starts.';
  if (arc) return count === 1 ? 'Click a point on the arc.' : 'Click where the arc ends.';
  const close = count > 2 ? '; click the first to close' : '';
  return `${count} ${count === 1 ? 'point' : 'points'}. Keep clicking; Backspace removes the last${close}.`;
}
