import { useState } from 'react';

/** Corner of the board, and whether it is folded. */
export interface BoardPlace {
  readonly corner: Corner;
  readonly folded: boolean;
}

/** Anticlockwise from its first corner. */
export const CORNERS = ['bottomRight', 'topRight', 'topLeft', 'bottomLeft'] as const;
export type Corner = (typeof CORNERS)[number];

const STORED = 'fleet-rail.board';
const FIRST: BoardPlace = { corner: 'bottomRight', folded: false };

/** Corner of the board, remembered in this browser. */
export function useBoardPlace(): [BoardPlace, (place: BoardPlace) => void] {
  const [place, setPlace] = useState(read);
  return [
    place,
    (next) => {
      setPlace(next);
      localStorage.setItem(STORED, JSON.stringify(next));
    },
  ];
}

export const nextCorner = (corner: Corner): Corner => CORNERS[(CORNERS.indexOf(corner) + 1) % CORNERS.length];

function read(): BoardPlace {
  try {
    const { corner, folded } = JSON.parse(localStorage.getItem(STORED) ?? '') as Partial<BoardPlace>;
    return { corner: CORNERS.find((one) => one === corner) ?? FIRST.corner, folded: folded === true };
  } catch {
    return FIRST;
  }
}
