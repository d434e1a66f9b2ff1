import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { flushSync } from 'react-dom';
import { nextTask } from '../evaluation/next-task';

/** In what order a desk is drawn as it opens. */
export const DESK_ORDER = ['panel', 'diagram', 'stage'] as const;

/** In what order the panel of a step is drawn when its code has come, be that before the rest of the desk or after it. */
export const PANEL_ORDER = ['points', 'heights'] as const;

type TurnName = (typeof DESK_ORDER | typeof PANEL_ORDER)[number];

const Waiting = createContext<readonly TurnName[]>([]);

/** Draws what is {@link InTurn} in it one after the other, each in a task of its own: a click waits for one of them, and not for all. */
export function Turns({ order, children }: { order: readonly TurnName[]; children: ReactNode }) {
  const [drawn, setDrawn] = useState(0);
  useEffect(() => {
    if (drawn === order.length) return;
    let gone = false;
    // Drawn before the task ends: two turns of a desk and its panel would else be drawn together.
    void nextTask().then(() => gone || flushSync(() => setDrawn(drawn + 1)));
    return () => {
      gone = true;
    };
  }, [drawn, order]);
  const waiting = useMemo(() => order.slice(drawn), [order, drawn]);
  return <Waiting.Provider value={waiting}>{children}</Waiting.Provider>;
}

/** What is drawn when its turn has come, and from then on; at once where nothing around it waits for turns. */
export function InTurn({ of, children }: { of: TurnName; children: ReactNode }) {
  return useContext(Waiting).includes(of) ? null : children;
}
