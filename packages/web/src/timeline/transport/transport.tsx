import {
  ChevronFirst,
  ChevronLast,
  Pause,
  Play,
  Repeat,
  SkipBack,
  StepBack,
  StepForward,
} from 'lucide-react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { frameTime } from '@fleet-rail/core';
import { useState, type KeyboardEvent } from 'react';
import { IconButton } from '../../ui/icon-button';
import { readQuantity } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { keyFrom } from './key-frames';

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
  & button,
  & input {
    width: 118px;
    padding: 0;
    border: 0;
    border-bottom: 1px dotted ${({ theme }) => theme.quiet};
    background: transparent;
    color: inherit;
    font: inherit;
    text-align: left;
  }
  & button {
    cursor: text;
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
      <IconButton label="To the previous key" onPress={() => go(keyFrom(desk.getState(), -1))}>
        <ChevronFirst aria-hidden />
      </IconButton>
      <IconButton label="One frame back" onPress={() => go(desk.getState().frame - 1)}>
        <StepBack aria-hidden />
      </IconButton>
      <IconButton label={playing ? 'Pause' : 'Play'} onPress={() => set({ playing: !playing })}>
        {playing ? <Pause aria-hidden /> : <Play aria-hidden />}
      </IconButton>
      <IconButton label="One frame forward" onPress={() => go(desk.getState().frame + 1)}>
        <StepForward aria-hidden />
      </IconButton>
      <IconButton label="To the next key" onPress={() => go(keyFrom(desk.getState(), 1))}>
        <ChevronLast aria-hidden />
      </IconButton>
      <Time onFrame={go} />
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

/** Playhead and typed frame; only this is rendered by every frame. */
function Time({ onFrame }: { onFrame: (frame: number) => void }) {
  const shot = useDesk((state) => state.shot);
  const frame = useDesk((state) => state.frame);
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    const read = typed === null ? NaN : readQuantity(typed, 'frame', shot.fps, frame);
    if (typeof read === 'number' && Number.isFinite(read)) onFrame(Math.round(read));
    setTyped(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') take();
    else if (event.key === 'Escape') setTyped(null);
    else return;
    event.stopPropagation();
  };
  return (
    <Clock aria-label="Clock">
      {typed === null ? (
        <b title="Click to type a frame, or a time such as 2 s">
          <button type="button" onClick={() => setTyped(String(frame))}>
            frame {frame} / {shot.range.last}
          </button>
        </b>
      ) : (
        <b>
          <input
            aria-label="Go to frame"
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onFocus={(event) => event.target.select()}
            onBlur={take}
            onKeyDown={onKeyDown}
          />
        </b>
      )}
      <span>{frameTime(shot, frame).toFixed(2)} s</span>
      <span>{shot.fps} fps</span>
    </Clock>
  );
}
