import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { Badge } from '../../ui/badge';
import { IconButton } from '../../ui/icon-button';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { shownCuts } from './looked-through';

const Cover = styled.div`
  position: absolute;
  inset: 0;
  display: flex;
  flex-wrap: wrap;
  align-content: center;
  justify-content: center;
  gap: 8px;
  padding: 12px 44px 12px 12px;
  overflow: auto;
  background: ${({ theme }) => theme.hairline};
  & > button:last-child {
    position: absolute;
    top: 8px;
    right: 8px;
    background: ${({ theme }) => theme.panel};
    border-color: ${({ theme }) => theme.hairline};
  }
`;

const Picture = styled.button<{ $wide: number }>`
  position: relative;
  flex: none;
  width: ${({ $wide }) => $wide}%;
  padding: 0;
  border: 0;
  border-radius: 4px;
  overflow: hidden;
  background: ${({ theme }) => theme.sky};
  cursor: pointer;
  & > img {
    display: block;
    width: 100%;
  }
  & > span {
    position: absolute;
    left: 8px;
    top: 8px;
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 2px 6px 2px 2px;
    border-radius: 10px;
    background: ${({ theme }) => theme.panel};
    font: 500 12px/18px ${LABEL_FONT};
  }
`;

/** Lets an edit's evaluation and drawing settle before pictures are taken again, milliseconds. */
const SETTLE = 120;
/** Cameras that are seen beside each other, and cuts with a picture each. */
const MOST = { cameras: 4, cuts: 24 };
const WIDTH = 480;

/** Pictures of cameras side by side: up to four at the shown frame, or each cut at its frame. */
export function CamerasView(props: {
  shows: 'cameras' | 'cuts';
  take: (wanted: readonly { rider: string; frame: number }[], width: number) => string[];
}) {
  const { shows } = props;
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const shownFrame = useDesk((state) => state.frame);
  const playing = useDesk((state) => state.playing);
  const frame = shows === 'cameras' ? shownFrame : null;
  const [pictures, setPictures] = useState<readonly string[]>([]);
  const take = useRef(props.take);
  take.current = props.take;
  const wanted =
    shows === 'cuts'
      ? shownCuts({ shot, evaluation })
          .slice(0, MOST.cuts)
          .map((cut) => ({ rider: cut.camera, frame: Math.max(shot.range.first, cut.frame) }))
      : shot.riders
          .filter(({ camera }) => camera !== null)
          .slice(0, MOST.cameras)
          .map(({ id }) => ({ rider: id, frame: shownFrame }));
  const latest = useRef(wanted);
  latest.current = wanted;
  useEffect(() => {
    // Pictures cost as much as the stage: while it plays they wait.
    if (playing) return;
    const timer = setTimeout(() => setPictures(take.current(latest.current, WIDTH)), SETTLE);
    return () => clearTimeout(timer);
  }, [evaluation, shot, frame, playing, shows]);
  const wide = wanted.length <= 1 ? 90 : wanted.length <= 4 ? 46 : 30;
  return (
    <Cover role="group" aria-label={shows === 'cuts' ? 'Cuts' : 'Cameras side by side'}>
      {wanted.map(({ rider: id, frame: at }, i) => {
        const rider = shot.riders.find((one) => one.id === id);
        const name = shows === 'cuts' ? `from frame ${at}` : (rider?.name ?? '');
        return (
          <Picture
            key={`${id} ${shows === 'cuts' ? at : ''}`}
            type="button"
            $wide={wide}
            title={`Look through ${rider?.badge}`}
            onClick={() => {
              desk.getState().set({ beside: null, view: 'through', through: id });
              if (shows === 'cuts') desk.getState().goToFrame(Math.round(at));
            }}
          >
            {pictures[i] && <img src={pictures[i]} alt={`${rider?.badge} at frame ${at}`} />}
            <span>
              <Badge $color={rider?.color ?? 0}>{rider?.badge}</Badge>
              {name}
            </span>
          </Picture>
        );
      })}
      <IconButton label="Back to the stage" onPress={() => desk.getState().set({ beside: null })}>
        <X aria-hidden />
      </IconButton>
    </Cover>
  );
}
