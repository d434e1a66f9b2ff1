import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { nextTask } from './next-task';

/** Order in which the parts of a desk mount as it opens. */
const SEQUENCES = [['panel', 'points', 'heights'], ['diagram'], ['stage']] as const;

const ALL = SEQUENCES.flat();

type TurnName = (typeof ALL)[number];

/** Parts that are not mounted yet; none outside of a staged mount. */
const Waiting = createContext<readonly TurnName[]>([]);

type Needs = Partial<Record<TurnName, () => Promise<unknown>>>;

/**
 * Mounts its {@link InTurn} children one after the other, each in a task of its own: a click waits for one of them,
 * not for all.
 *
 * @param needs what a turn waits for, such as its code; others come first meanwhile. One that fails is drawn as well, and says why.
 */
export function Turns({ needs, children }: { needs: Needs; children: ReactNode }) {
  const [waiting, setWaiting] = useState<readonly TurnName[]>(ALL);
  const [ready] = useState(() => {
    const settled = (name: TurnName) => Promise.allSettled([needs[name]?.()]).then(() => name);
    return new Map(ALL.map((name) => [name, settled(name)]));
  });
  useEffect(() => {
    if (waiting.length === 0) return;
    let gone = false;
    const firsts = SEQUENCES.flatMap((sequence) => sequence.find((name) => waiting.includes(name)) ?? []);
    const next = Promise.race(firsts.map((name) => ready.get(name)!));
    void next.then(async (name) => {
      await nextTask();
      if (!gone) setWaiting(waiting.filter((other) => other !== name));
    });
    return () => {
      gone = true;
    };
  }, [waiting, ready]);
  return <Waiting.Provider value={waiting}>{children}</Waiting.Provider>;
}

/** Content that mounts in its turn, and stays. */
export function InTurn({ of, children }: { of: TurnName; children: ReactNode }) {
  return useContext(Waiting).includes(of) ? null : children;
}
