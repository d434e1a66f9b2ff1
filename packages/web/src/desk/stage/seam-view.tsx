import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../theme/global-style';
import { IconButton } from '../../ui/icon-button';
import { useDesk } from '../desk-store';

const Cover = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  grid-template-rows: 1fr 1fr;
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

const Shot = styled.figure<{ $wide?: boolean }>`
  position: relative;
  min-width: 0;
  min-height: 0;
  margin: 0;
  overflow: hidden;
  background: ${({ theme }) => theme.sky};
  ${({ $wide }) => $wide && 'grid-column: 1 / -1;'}
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

/** The last and the first frame beside each other, and one over the other: where they differ, the loop jumps. */
export function SeamView({ picture }: { picture: (frame: number) => string }) {
  const { first, last } = useDesk((state) => state.shot.range);
  const evaluation = useDesk((state) => state.evaluation);
  const view = useDesk((state) => state.view);
  const set = useDesk((state) => state.set);
  const [pictures, setPictures] = useState<{ last: string; first: string } | null>(null);
  const take = useRef(picture);
  take.current = picture;
  useEffect(() => {
    const timer = setTimeout(
      () => setPictures({ last: take.current(last), first: take.current(first) }),
      SETTLE,
    );
    return () => clearTimeout(timer);
  }, [evaluation, view, first, last]);
  return (
    <Cover role="group" aria-label="Seam">
      <Shot>
        {pictures && <img src={pictures.last} alt={`Frame ${last}`} />}
        <figcaption>Last: frame {last}</figcaption>
      </Shot>
      <Shot>
        {pictures && <img src={pictures.first} alt={`Frame ${first}`} />}
        <figcaption>First: frame {first}</figcaption>
      </Shot>
      <Shot $wide>
        {pictures && <img src={pictures.last} alt="" />}
        {pictures && <img src={pictures.first} alt={`Frame ${first} over frame ${last}`} />}
        <figcaption>Over each other</figcaption>
      </Shot>
      <IconButton label="Back to the stage" onPress={() => set({ seam: false })}>
        <X aria-hidden />
      </IconButton>
    </Cover>
  );
}
