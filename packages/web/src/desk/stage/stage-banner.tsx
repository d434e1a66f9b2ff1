import styled from 'styled-components';
import { Button, PrimaryButton } from '../../ui/button';
import { useDesk, useDeskStore } from '../desk-store';
import { cancelTool, finishDrawing } from '../path/drawing';

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
  const rider = useDesk(({ shot }) =>
    tool.kind === 'pickPath' ? shot.riders.find((other) => other.id === tool.riderId) : undefined,
  );
  if (tool.kind === 'select') return null;
  const cancel = <Button onPress={() => cancelTool(desk)}>Cancel (Esc)</Button>;
  if (tool.kind === 'pickPath') {
    return (
      <Strip role="status">
        <span>
          Click the path that {rider?.badge} {rider?.name} shall ride.
        </span>
        <div>{cancel}</div>
      </Strip>
    );
  }
  const count = tool.places.length;
  return (
    <Strip role="status">
      <span>
        {count === 0
          ? 'Click where the path starts.'
          : `${count} ${count === 1 ? 'point' : 'points'}. Click on; Backspace takes the last back${count > 2 ? '; click the first to close' : ''}.`}
      </span>
      <div>
        {cancel}
        <PrimaryButton isDisabled={count < 2} onPress={() => finishDrawing(desk, false)}>
          Finish (Enter)
        </PrimaryButton>
      </div>
    </Strip>
  );
}
