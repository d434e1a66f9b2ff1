import {
  evaluateShot,
  ownFrameOf,
  withRider,
  type TransformKeys,
  type Rider,
  type Shot,
  withKey,
} from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import { sceneAssets } from '../../../workers/scene-assets/ground-height';
import { Button } from '../../../ui/button';
import { IconButton } from '../../../ui/icon-button';
import { Buttons } from '../../../ui/panel';
import { Row, RowFigure, RowList, RowName } from '../../../ui/row-list';
import { Select } from '../../../ui/select';
import { attempt, attemptAsked } from '../../../commands/attempt';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { KEY_EASE_LABELS } from '../../../ui/words/eases';
import { showNumber } from '../../../ui/quantity';
import { useShownFrames } from '../../../timeline/diagram/use-shown-frames';

/** Keys of a rider moved by hand: a click goes there; ease, copy, delete. */
export function HandKeysList({ rider, keyed }: { rider: Rider; keyed: TransformKeys }) {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const shown = useShownFrames(shot, rider);
  const { keys } = keyed;
  const withKeys = (now: Shot, next: TransformKeys['keys']) =>
    withRider(now, rider.id, (one) => ({ ...one, transformKeys: { keys: next } }));
  const setKeys = (label: string, next: TransformKeys['keys']) =>
    attempt(desk, label, (now) => withKeys(now, next));
  const standStill = () =>
    void attemptAsked(desk, 'Stand still', 'standStill', rider.id, desk.getState().frame);
  const own = () => {
    const state = desk.getState();
    return ownFrameOf(evaluateShot(state.shot, sceneAssets(state)), rider, state.frame);
  };
  const copyHere = () => {
    const frame = own();
    const before = [...keys].reverse().find((key) => key.frame < frame);
    if (before) setKeys('Copy the key', withKey(keys, { ...before, frame }));
  };
  /** Moves the next key to this frame, and all that follow by the same. */
  const shiftHere = () => {
    const frame = own();
    const i = keys.findIndex((key) => key.frame >= frame);
    const by = i < 0 ? 0 : frame - keys[i].frame;
    if (by !== 0)
      setKeys(
        'Shift keys',
        keys.map((key, n) => (n < i ? key : { ...key, frame: key.frame + by })),
      );
  };
  return (
    <>
      <RowList
        aria-label="Keys by hand"
        onAction={(key) => {
          const at = shown.shown(Number(key));
          if (at !== null) desk.getState().goToFrame(Math.round(at));
        }}
      >
        {keys.map(({ frame, translation, ease }, i) => (
          <Row key={frame} id={String(frame)} textValue={`Frame ${showNumber(frame, 2)}`}>
            <RowName>f {showNumber(frame, 2)}</RowName>
            <RowFigure>{translation.map((value) => value.toFixed(1)).join(', ')}</RowFigure>
            <Select
              label="Ease"
              isLabelHidden
              options={KEY_EASE_LABELS}
              value={ease}
              onChange={(next) => setKeys('Ease', withKey(keys, { ...keys[i], ease: next }))}
            />
            <IconButton
              label={`Delete the key at frame ${showNumber(frame, 2)}`}
              onPress={() =>
                keys.length > 1
                  ? setKeys(
                      'Delete key',
                      keys.filter((_, n) => n !== i),
                    )
                  : standStill()
              }
            >
              <Trash2 aria-hidden />
            </IconButton>
          </Row>
        ))}
      </RowList>
      <Buttons>
        <Button onPress={copyHere}>Copy the last key here</Button>
        <Button onPress={shiftHere}>Move the next key here</Button>
        <Button onPress={standStill}>Stand still</Button>
      </Buttons>
    </>
  );
}
