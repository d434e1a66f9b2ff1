import { AXES, axesOf, withFacing, withRider, type Axis, type Rider } from '@fleet-rail/core';
import { FlipHorizontal2, FlipVertical2, WandSparkles } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled, { useTheme } from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { Select } from '../../ui/select';
import { observeSize } from '../../ui/use-size';
import { useDesk } from '../../state/desk-store';
import { TurntableView } from './turntable-view';

const Table = styled.div`
  position: relative;
  height: 168px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  overflow: hidden;
  & > canvas {
    display: block;
    width: 100%;
    height: 100%;
    touch-action: none;
  }
`;

const Legend = styled.p`
  position: absolute;
  left: 8px;
  bottom: 4px;
  display: flex;
  gap: 10px;
  pointer-events: none;
  font: 600 12px/18px ${LABEL_FONT};
  & > i {
    font-style: normal;
  }
  & > i:first-child {
    color: ${({ theme }) => theme.signalText};
  }
`;

const PARTS = [
  { id: 'forward', name: 'Click sets the nose' },
  { id: 'up', name: 'the roof' },
] as const;

const opposite = (axis: Axis) => `${axis[0] === '-' ? '+' : '-'}${axis[1]}` as Axis;
const squareTo = (axis: Axis) => AXES.filter((other) => other[1] !== axis[1]);
const nameOf = (axis: Axis) => axis.toUpperCase().replace('-', '−');
const named = (axes: readonly Axis[]) => axes.map((axis) => ({ id: axis, name: nameOf(axis) }));

/** The model on a turntable: which of its sides is its nose, and which its roof. */
export function Turntable({ rider }: { rider: Rider }) {
  const theme = useTheme();
  const edit = useDesk((state) => state.edit);
  const asset = useDesk(({ shot }) => shot.models.find(({ id }) => id === rider.model)?.source.asset ?? null);
  const found = useDesk(({ models }) => models.find(({ id }) => id === asset)?.facts.facing);
  const hierarchy = useDesk(({ hierarchies }) => hierarchies.get(rider.model ?? '') ?? null);
  const table = useRef<HTMLDivElement>(null);
  const view = useRef<TurntableView>(null);
  const [part, setPart] = useState<'forward' | 'up'>('forward');
  const { forward, up } = axesOf(rider);

  const change = (axes: { forward: Axis; up: Axis }) =>
    edit('Facing', (shot) =>
      withRider(shot, rider.id, (one) => withFacing(one, axes.forward, axes.up, hierarchy)),
    );
  // An axis that is no longer perpendicular to the one just set becomes the first that is.
  const setForward = (next: Axis) =>
    change({ forward: next, up: up[1] === next[1] ? squareTo(next)[0] : up });
  const setUp = (next: Axis) =>
    change({
      up: next,
      forward: forward[1] === next[1] ? (squareTo(next)[2] ?? squareTo(next)[0]) : forward,
    });
  const pick = useRef<(axis: Axis) => void>(() => undefined);
  useEffect(() => {
    pick.current = part === 'forward' ? setForward : setUp;
  });

  // Disposed while still in the page: listeners on the document are found from there.
  useLayoutEffect(() => {
    const element = table.current;
    if (!element) return;
    const built = new TurntableView(element, (axis) => pick.current(axis));
    view.current = built;
    const stop = observeSize(element, (width, height) => built.resize(width, height));
    return () => {
      stop();
      built.dispose();
      view.current = null;
    };
  }, []);
  useEffect(() => {
    view.current?.paint(theme);
    view.current?.showModel(asset, lineColor(rider.color));
    view.current?.showAxes(forward, up);
  }, [theme, asset, rider.color, forward, up]);

  const asFound = found?.forward === forward && found.up === up;
  return (
    <>
      <Table
        ref={table}
        role="img"
        aria-label={`Turntable: the nose of ${rider.name} is ${nameOf(forward)}, its roof ${nameOf(up)}`}
      >
        <Legend aria-hidden>
          <i>Nose {nameOf(forward)}</i>
          <i>Roof {nameOf(up)}</i>
        </Legend>
      </Table>
      <Choice label="Clicking a side sets" options={PARTS} value={part} onChange={setPart} />
      <Buttons>
        <Button onPress={() => change({ forward: opposite(forward), up })}>
          <FlipHorizontal2 aria-hidden /> Flip nose
        </Button>
        <Button onPress={() => change({ forward, up: opposite(up) })}>
          <FlipVertical2 aria-hidden /> Flip roof
        </Button>
      </Buttons>
      <FieldGrid>
        <Select label="Nose" options={named(AXES)} value={forward} onChange={setForward} />
        <Select label="Roof" options={named(squareTo(forward))} value={up} onChange={setUp} />
      </FieldGrid>
      {found && (
        <Hint>
          Found in the model: nose {nameOf(found.forward)}, roof {nameOf(found.up)},{' '}
          {sureness(found.confidence)}, by {found.because}.
        </Hint>
      )}
      {found && found.confidence < 0.5 && (
        <>
          <Hint role="status">Front or back is unclear. Please choose.</Hint>
          <Buttons>
            <Button
              isDisabled={forward === found.forward}
              onPress={() => change({ forward: found.forward, up })}
            >
              Nose {nameOf(found.forward)}
            </Button>
            <Button
              isDisabled={forward === opposite(found.forward)}
              onPress={() => change({ forward: opposite(found.forward), up })}
            >
              Nose {nameOf(opposite(found.forward))}
            </Button>
          </Buttons>
        </>
      )}
      {found && !asFound && (
        <Buttons>
          <Button onPress={() => change({ forward: found.forward, up: found.up })}>
            <WandSparkles aria-hidden /> Use the found facing
          </Button>
        </Buttons>
      )}
    </>
  );
}

function sureness(confidence: number): string {
  return confidence >= 0.9 ? 'certain' : confidence >= 0.6 ? 'likely' : 'a guess';
}
