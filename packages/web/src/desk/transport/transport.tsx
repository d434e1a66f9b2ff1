import { Pause, Play, Repeat, SkipBack, StepBack, StepForward } from 'lucide-react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { frameTime } from '@fleet-rail/core';
import { IconButton } from '../../ui/icon-button';
import { useDesk, useDeskStore } from '../desk-store';

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  height: 38px;
  padding: 0 10px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

const Clock = styled.div`
  display: flex;
  gap: 14px;
  margin: 0 10px;
  white-space: nowrap;
  & > b {
    font-weight: 600;
    min-width: 118px;
  }
  & > span {
    color: ${({ theme }) => theme.quiet};
  }
`;

const Toggle = styled(ToggleButton)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: 26px;
  padding: 0 10px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: transparent;
  white-space: nowrap;
  cursor: pointer;
  & svg {
    width: 14px;
    height: 14px;
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    background: ${({ theme }) => theme.ink};
    color: ${({ theme }) => theme.panel};
  }
`;

const Spacer = styled.span`
  flex: 1;
`;

/** Play, step, and the clock in frames and seconds. */
export function Transport() {
  const shot = useDesk((state) => state.shot);
  const desk = useDeskStore();
  const playing = useDesk((state) => state.playing);
  const everyFrame = useDesk((state) => state.everyFrame);
  const set = useDesk((state) => state.set);
  const edit = useDesk((state) => state.edit);
  const goToFrame = useDesk((state) => state.goToFrame);
  const { first } = shot.range;
  const go = (to: number) => {
    set({ playing: false });
    goToFrame(to);
  };
  return (
    <Strip role="toolbar" aria-label="Transport">
      <IconButton label="To the first frame" onPress={() => go(first)}>
        <SkipBack aria-hidden />
      </IconButton>
      <IconButton label="One frame back" onPress={() => go(desk.getState().frame - 1)}>
        <StepBack aria-hidden />
      </IconButton>
      <IconButton label={playing ? 'Pause' : 'Play'} onPress={() => set({ playing: !playing })}>
        {playing ? <Pause aria-hidden /> : <Play aria-hidden />}
      </IconButton>
      <IconButton label="One frame on" onPress={() => go(desk.getState().frame + 1)}>
        <StepForward aria-hidden />
      </IconButton>
      <Time />
      <Spacer />
      <Toggle
        isSelected={shot.loop}
        onChange={(loop) => edit(loop ? 'Loop' : 'No loop', (before) => ({ ...before, loop }))}
      >
        <Repeat aria-hidden /> Loop
      </Toggle>
      <Toggle isSelected={everyFrame} onChange={(next) => set({ everyFrame: next })}>
        {everyFrame ? 'Every frame' : 'Real time'}
      </Toggle>
    </Strip>
  );
}

/** Where the playhead is; nothing else is drawn by every frame. */
function Time() {
  const shot = useDesk((state) => state.shot);
  const frame = useDesk((state) => state.frame);
  return (
    <Clock aria-label="Clock">
      <b>
        frame {frame} / {shot.range.last}
      </b>
      <span>{frameTime(shot, frame).toFixed(2)} s</span>
      <span>{shot.fps} fps</span>
    </Clock>
  );
}
