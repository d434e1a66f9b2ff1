import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { IconButton } from '../../ui/icon-button';
import { useDesk, useSelectedRider } from '../../state/desk-store';

const Cover = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 2px;
  background: ${({ theme }) => theme.hairline};
  & > button {
    position: absolute;
    top: 8px;
    right: 8px;
    background: ${({ theme }) => theme.panel};
    border-color: ${({ theme }) => theme.hairline};
  }
`;

const Shot = styled.figure`
  position: relative;
  min-width: 0;
  min-height: 0;
  margin: 0;
  overflow: hidden;
  background: ${({ theme }) => theme.sky};
  & > img {
    position: absolute;
    width: 100%;
    height: 100%;
    object-fit: cover;
  }
  & > img + img {
    opacity: 0.5;
  }
  & > figcaption {
    position: absolute;
    left: 8px;
    top: 8px;
    padding: 0 6px;
    border-radius: 3px;
    background: ${({ theme }) => theme.panel};
    font: 500 13px/20px ${LABEL_FONT};
  }
`;

/** Lets an edit's evaluation and drawing settle before pictures are taken again, milliseconds. */
const SETTLE = 120;

/**
 * The last and the first frame beside each other, and one over the other, close to the selected rider: where they
 * differ, the loop jumps.
 */
export function SeamView(props: {
  closeUps: (frames: readonly number[], riderId: string | null) => string[];
}) {
  const { first, last } = useDesk((state) => state.shot.range);
  const evaluation = useDesk((state) => state.evaluation);
  const rider = useSelectedRider();
  const set = useDesk((state) => state.set);
  const [pictures, setPictures] = useState<readonly string[]>([]);
  const take = useRef(props.closeUps);
  take.current = props.closeUps;
  const riderId = rider?.id ?? null;
  useEffect(() => {
    const timer = setTimeout(() => setPictures(take.current([last, first], riderId)), SETTLE);
    return () => clearTimeout(timer);
  }, [evaluation, first, last, riderId]);
  const [atLast, atFirst] = pictures;
  return (
    <Cover role="group" aria-label="Seam">
      <Shot>
        {atLast && <img src={atLast} alt={`Frame ${last}`} />}
        <figcaption>Last: frame {last}</figcaption>
      </Shot>
      <Shot>
        {atFirst && <img src={atFirst} alt={`Frame ${first}`} />}
        <figcaption>First: frame {first}</figcaption>
      </Shot>
      <Shot>
        {atLast && <img src={atLast} alt="" />}
        {atFirst && <img src={atFirst} alt={`Frame ${first} over frame ${last}`} />}
        <figcaption>Over each other</figcaption>
      </Shot>
      <IconButton label="Back to the stage" onPress={() => set({ seam: false })}>
        <X aria-hidden />
      </IconButton>
    </Cover>
  );
}
