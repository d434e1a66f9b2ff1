import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { nextTask } from '../evaluation/next-task';

/** In what order a desk is drawn as it opens; what has no turn is there at once. */
const ORDER = ['panel', 'diagram', 'stage', 'points', 'heights'] as const;

type TurnName = (typeof ORDER)[number];

const Drawn = createContext<number>(ORDER.length);

/** Draws what is {@link InTurn} in it one after the other, each in a task of its own: a click waits for one of them, and not for all. */
export function Turns({ children }: { children: ReactNode }) {
  const [drawn, setDrawn] = useState(0);
  useEffect(() => {
    if (drawn === ORDER.length) return;
    let gone = false;
    void nextTask().then(() => gone || setDrawn(drawn + 1));
    return () => {
      gone = true;
    };
  }, [drawn]);
  return <Drawn.Provider value={drawn}>{children}</Drawn.Provider>;
}

/** What is drawn when its turn has come, and from then on. */
export function InTurn({ of, children }: { of: TurnName; children: ReactNode }) {
  return useContext(Drawn) > ORDER.indexOf(of) ? children : null;
}
