import { CLIP_STEPS, addBlock, endBlock, moveBlock, type ClipBlock, type Rider } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import { changeClips } from '../../edits/clip-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { QuickHint } from './quick-hint';
import { useGaits } from '../../state/use-gaits';
import { WheelCard, WheelHead } from './wheel-rows';

const STEPS: Record<ClipBlock['by'], { name: string; rate: string; unit: string }> = {
  time: { name: 'Time', rate: 'Speed ×', unit: '' },
  distance: { name: 'Distance', rate: 'Repeats', unit: '/m' },
  gait: { name: 'The walk', rate: 'Repeats', unit: '/cycle' },
};
const ENDS: readonly { id: ClipBlock['end']; name: string }[] = [
  { id: 'repeat', name: 'Repeats' },
  { id: 'hold', name: 'Hold the last pose' },
];

/** Clips of the model that are played over the gait, or by what has none, each from a frame to another. */
export function ClipsFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const fps = useDesk(({ shot }) => shot.fps);
  const gaits = useGaits(rider, model);
  const { clips } = rider;
  if (gaits.length === 0 && clips.length === 0) return null;
  const change = (next: ClipBlock[], gesture?: string) =>
    edit(
      'Clips',
      changeClips(rider.id, () => next),
      gesture,
    );
  const put = (i: number, part: Partial<ClipBlock>, gesture?: string) =>
    change(
      clips.map((one, n) => (n === i ? { ...one, ...part } : one)),
      gesture,
    );
  const add = () => {
    const own = rider.gait;
    const other = gaits.find(({ clip }) => clip !== own?.clip && clip !== own?.idle) ?? gaits[0];
    change(addBlock(clips, other.clip, Math.round(desk.getState().frame), Math.round(other.seconds * fps)));
  };
  return (
    <Fold title={clips.length === 0 ? 'Clips' : `Clips (${clips.length})`} isOpen={clips.length > 0}>
      <Hint>Clips play over the walk. Drag them in the strip under the diagram; overlaps blend.</Hint>
      {clips.map((block, i) => {
        const found = gaits.find(({ clip }) => clip === block.clip);
        const names = found ? gaits.map(({ clip }) => clip) : [block.clip, ...gaits.map(({ clip }) => clip)];
        const end = block.to ?? found?.seconds ?? block.from + 1;
        const step = STEPS[block.by];
        return (
          <WheelCard key={i} role="group" aria-label={`Clip ${i + 1} of ${rider.badge}`}>
            <WheelHead>
              <strong>{block.clip}</strong>
              <span />
              <IconButton
                label={`Delete clip ${i + 1}, ${block.clip}`}
                onPress={() => change(clips.filter((_, n) => n !== i))}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </WheelHead>
            <FieldPair>
              <Select
                label="Clip"
                options={names.map((id) => ({ id, name: id }))}
                value={block.clip}
                onChange={(clip) => put(i, { clip, from: 0, to: null })}
              />
              <Select
                label="Driven by"
                options={CLIP_STEPS.filter(
                  (id) => id !== 'gait' || rider.gait !== null || block.by === 'gait',
                ).map((id) => ({ id, name: STEPS[id].name }))}
                value={block.by}
                onChange={(by) => put(i, { by, rate: by === 'distance' ? 0.5 : 1 })}
              />
            </FieldPair>
            <FieldGrid>
              <QuantityField
                label="Begins"
                kind="frame"
                value={block.frame}
                onChange={(frame, gesture) => change(moveBlock(clips, i, frame - block.frame), gesture)}
              />
              <QuantityField
                label="Ends"
                kind="frame"
                value={block.until}
                onChange={(until, gesture) => change(endBlock(clips, i, until), gesture)}
              />
              <QuantityFields
                fields={[
                  { of: 'rate', label: step.rate, kind: 'count', unit: step.unit, step: 0.05 },
                  {
                    of: 'from',
                    label: 'From',
                    kind: 'time',
                    min: 0,
                    max: Math.max(0, end - 0.01),
                    step: 0.1,
                  },
                  { of: 'to', label: 'To', kind: 'time', min: block.from + 0.01, step: 0.1 },
                  { of: 'blend', label: 'Blend', kind: 'time', min: 0, step: 0.05 },
                ]}
                value={{ ...block, to: end }}
                onChange={(part, gesture) => put(i, part, gesture)}
              />
            </FieldGrid>
            <QuickHint rider={rider} {...rateOf(block, end - block.from, rider.gait?.stride)} />
            <Select
              label="At its end"
              options={ENDS}
              value={block.end}
              onChange={(of) => put(i, { end: of })}
            />
          </WheelCard>
        );
      })}
      <Buttons>
        <Button isDisabled={gaits.length === 0} onPress={add}>
          <Plus aria-hidden /> Add a clip here
        </Button>
      </Buttons>
    </Fold>
  );
}

/** How often a clip runs, a second or a metre. */
function rateOf({ by, rate }: ClipBlock, seconds: number, stride = Infinity) {
  if (by === 'time') return { rate: rate / seconds, by };
  return { rate: by === 'gait' ? rate / stride : rate, by: 'distance' as const };
}
