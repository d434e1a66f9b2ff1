import {
  MOST_PIECES,
  PathError,
  compiledPathOf,
  groundItself,
  placedDressings,
  type CompiledPath,
  type Dressing,
  type ShotPath,
} from '@fleet-rail/core';
import { Download, Plus, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { useParams } from 'react-router';
import styled from 'styled-components';
import { downloadFile } from '../../api/download';
import { sentenceOf } from '../../api/request';
import type { KeptModel } from '../../api/models';
import { changeDressing } from '../../edits/dressing-edits';
import { withModel } from '../../edits/rider-edits';
import { groundOf } from '../../workers/scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/fields';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { useAutosave } from '../../app/saving/save-context';
import { ColorField } from '../../ui/color-field';
import { ProfileDrawing } from './profile-drawing';

const Card = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 0 2px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px auto;
  align-items: end;
  gap: 8px;
`;

const STANDS: readonly { id: Dressing['stand']; name: string }[] = [
  { id: 'path', name: 'Along the path' },
  { id: 'level', name: 'Upright' },
  { id: 'ground', name: 'On the ground' },
];
const VARIES: readonly NumberOf<Dressing>[] = [
  { of: 'jitter', label: 'Distance', kind: 'length', min: 0, step: 0.05 },
  { of: 'jitterTurn', label: 'Heading', kind: 'angle', min: 0, max: 180, step: 5 },
  { of: 'jitterSize', label: 'Size', kind: 'count', min: 0, max: 0.9, step: 0.05 },
  { of: 'seed', label: 'Seed', kind: 'count', whole: true, min: 0, max: 2 ** 31 - 1 },
];

/** One dressing: its stretch, spacing, orientation and look. */
export function DressingCard(props: { laid: Dressing; path: ShotPath; models: readonly KeptModel[] }) {
  const { laid, path } = props;
  const { shotId } = useParams();
  const autosave = useAutosave();
  const edit = useDesk((state) => state.edit);
  const curve = compiledPathOf(path);
  if (curve instanceof PathError) return <Hint>{path.name} has no curve to place anything along.</Hint>;
  const change = (part: Partial<Dressing>, gesture?: string) =>
    edit(
      `Change ${laid.name}`,
      changeDressing(laid.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  const pieces = laid.kind === 'pieces';
  return (
    <Card role="group" aria-label={laid.name}>
      <TextField
        label="Name"
        value={laid.name}
        maxLength={200}
        onChange={(name) => name.trim() !== '' && change({ name }, `laid name ${laid.id}`)}
      />
      <Ends laid={laid} curve={curve} onChange={change} />
      <FieldPair>
        <QuantityField
          label="To the left"
          kind="length"
          value={laid.offset.side}
          step={0.1}
          onChange={(side, gesture) => change({ offset: { ...laid.offset, side } }, gesture)}
        />
        <QuantityField
          label="Up"
          kind="length"
          value={laid.offset.rise}
          step={0.05}
          onChange={(rise, gesture) => change({ offset: { ...laid.offset, rise } }, gesture)}
        />
      </FieldPair>
      <Tick isSelected={laid.both} onChange={(both) => change({ both })}>
        On both sides
      </Tick>
      {pieces ? (
        <Pieces {...props} onChange={change} />
      ) : (
        <>
          <ProfileDrawing laid={laid} onChange={change} />
          <ColorField label="Colour" value={laid.color} onChange={(color) => change({ color })} />
          {laid.ring && (
            <Tick isSelected={laid.caps} onChange={(caps) => change({ caps })}>
              Closed ends
            </Tick>
          )}
          <Tick isSelected={laid.ground} onChange={(ground) => change({ ground })}>
            Riders stand on it
          </Tick>
          <Choice
            label="Edges"
            options={[
              { id: 'path', name: 'Banked with the path' },
              { id: 'level', name: 'Level' },
            ]}
            value={laid.stand === 'path' ? 'path' : 'level'}
            onChange={(stand) => change({ stand })}
          />
        </>
      )}
      <Buttons>
        <Button
          onPress={() => {
            const file = `/api/shots/${shotId}/files/laid/${laid.id}`;
            const saved = autosave.flush().then(() => downloadFile(file));
            void saved.catch((error: unknown) => notify('error', sentenceOf(error)));
          }}
        >
          <Download aria-hidden /> Download as GLB
        </Button>
      </Buttons>
    </Card>
  );
}

type Change = (part: Partial<Dressing>, gesture?: string) => void;

function Ends({ laid, curve, onChange }: { laid: Dressing; curve: CompiledPath; onChange: Change }) {
  const whole = laid.from === 0 && laid.to === null;
  return (
    <>
      <FieldPair>
        <QuantityField
          label="From"
          kind="length"
          value={laid.from}
          min={0}
          max={curve.length}
          step={0.5}
          onChange={(from, gesture) => onChange({ from }, gesture)}
        />
        <QuantityField
          label="To"
          kind="length"
          value={laid.to ?? laid.from * Number(curve.closed) + curve.length}
          min={0}
          max={curve.closed ? 2 * curve.length : curve.length}
          step={0.5}
          onChange={(to, gesture) => onChange({ to }, gesture)}
        />
      </FieldPair>
      {!whole && (
        <Buttons>
          <Button onPress={() => onChange({ from: 0, to: null })}>Along the whole path</Button>
        </Buttons>
      )}
    </>
  );
}

function Pieces(props: { laid: Dressing; models: readonly KeptModel[]; onChange: Change }) {
  const { laid, models, onChange } = props;
  const edit = useDesk((state) => state.edit);
  const shot = useDesk((state) => state.shot);
  const ground = useDesk((state) => state.ground);
  const known = useMemo(
    () =>
      placedDressings({ paths: shot.paths, dressing: [laid] }, groundItself(ground && groundOf(ground)))[0]
        ?.pieces,
    [shot.paths, laid, ground],
  );
  const keptOf = (id: string | null) => {
    const asset = shot.models.find((model) => model.id === id)?.source.asset;
    return models.find((model) => model.id === asset) ?? null;
  };
  const own = keptOf(laid.model);
  const length = own && own.facts.high[2] - own.facts.low[2];
  const options = models.map(({ id, name }) => ({ id, name }));
  const wear = (assetId: string, put: (modelId: string, before: Dressing) => Partial<Dressing>) => {
    const model = models.find(({ id }) => id === assetId);
    if (!model) return;
    edit(`Change ${laid.name}`, (now) => {
      const dressed = withModel(now, model);
      return changeDressing(laid.id, (before) => ({ ...before, ...put(dressed.modelId, before) }))(
        dressed.shot,
      );
    });
  };
  return (
    <>
      <Select
        label="Model"
        options={own ? options : [{ id: '', name: 'Choose a model' }, ...options]}
        value={own?.id ?? ''}
        onChange={(id) => wear(id, (model) => ({ model }))}
      />
      <FieldPair>
        <QuantityField
          label="Spacing"
          kind="length"
          value={laid.every}
          min={0.001}
          step={0.1}
          onChange={(every, gesture) => onChange({ every }, gesture)}
        />
        <Select
          label="Orientation"
          options={STANDS}
          value={laid.stand}
          onChange={(stand) => onChange({ stand })}
        />
      </FieldPair>
      <Tick isSelected={laid.fit} onChange={(fit) => onChange({ fit })}>
        Fit a whole number
      </Tick>
      <Tick isSelected={laid.bend} onChange={(bend) => onChange({ bend })}>
        Bend pieces along the curve
      </Tick>
      {length !== null && length > 0.01 && Math.abs(laid.every - length) > 1e-3 && (
        <Buttons>
          <Button
            onPress={() =>
              onChange({
                every: Number(length.toFixed(3)),
                from: laid.from + length / 2,
                fit: true,
                bend: true,
              })
            }
          >
            {' '}
            Add them end to end{' '}
          </Button>
        </Buttons>
      )}
      {known && (
        <Hint role="status">
          {known.count} pieces, {known.step.toFixed(3)} m apart.
          {known.wanted > known.count && ` No more than ${MOST_PIECES} pieces of one kind.`}
        </Hint>
      )}
      {laid.others.map((other, i) => (
        <Line key={i}>
          <Select
            label="Alternative"
            options={options}
            value={keptOf(other.model)?.id ?? ''}
            onChange={(id) =>
              wear(id, (model, before) => ({
                others: before.others.map((one, k) => (k === i ? { ...one, model } : one)),
              }))
            }
          />
          <QuantityField
            label="One in"
            kind="count"
            whole
            min={1}
            max={10_000}
            value={other.every}
            onChange={(every, gesture) =>
              onChange({ others: laid.others.map((one, k) => (k === i ? { ...one, every } : one)) }, gesture)
            }
          />
          <IconButton
            label="Delete the alternative model"
            onPress={() => onChange({ others: laid.others.filter((_, k) => k !== i) })}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      {laid.model !== null && laid.others.length < 20 && (
        <Buttons>
          <Button
            onPress={() => onChange({ others: [...laid.others, { model: laid.model as string, every: 5 }] })}
          >
            <Plus aria-hidden /> Add an alternative model
          </Button>
        </Buttons>
      )}
      <Fold title="Vary" isOpen={laid.jitter + laid.jitterTurn + laid.jitterSize > 0}>
        <Hint>Random variation of each piece, up to:</Hint>
        <FieldGrid>
          <QuantityFields fields={VARIES} value={laid} onChange={onChange} />
        </FieldGrid>
      </Fold>
    </>
  );
}
