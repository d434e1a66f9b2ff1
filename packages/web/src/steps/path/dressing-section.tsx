import {
  Dressing,
  READY_PROFILES,
  compiledPathOf,
  defaultsOf,
  PathError,
  type ShotPath,
} from '@fleet-rail/core';
import { Trash2 } from 'lucide-react';
import { Suspense } from 'react';
import { Button as Press } from 'react-aria-components';
import styled from 'styled-components';
import { useModels, type KeptModel } from '../../api/models';
import { deleteDressing, addDressing } from '../../edits/dressing-edits';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { IconButton } from '../../ui/icon-button';
import { Hint, Section, SectionTitle } from '../../ui/panel';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { Select } from '../../ui/select';
import { UploadButton } from '../shared/upload-button';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { chosenDressing } from '../../state/selection';
import { LaidCard } from './cards';
import { DressingSketch, type LaidLook } from './dressing-sketch';

const Catalogue = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
`;

const Ware = styled(Press)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 4px 4px 3px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  font: 600 12px/1.2 ${LABEL_FONT};
  cursor: pointer;
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
`;

/** Shipped models for dressing; missing ones are not offered. */
const READY_PIECES: readonly { file: string; name: string; parts: Partial<Dressing> }[] = [
  { file: 'tie.glb', name: 'Ties', parts: { every: 0.6, fit: true } },
  {
    file: 'post.glb',
    name: 'Posts',
    parts: { every: 2.5, fit: true, both: true, stand: 'ground', offset: { side: 3.4, rise: 0 } },
  },
  {
    file: 'lamp.glb',
    name: 'Lamps',
    parts: { every: 18, fit: true, stand: 'ground', offset: { side: 3.6, rise: 0 } },
  },
  {
    file: 'cone.glb',
    name: 'Cones',
    parts: { every: 3, both: true, stand: 'ground', offset: { side: 1.8, rise: 0 }, jitterTurn: 180 },
  },
];

/** Dressing of a path, and a catalogue of what can be added. */
export function DressingSection({ path }: { path: ShotPath }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const laid = useDesk(({ shot }) => shot.dressing);
  const models = useModels();
  const own = laid.filter((one) => one.path === path.id);
  const chosen = useDesk(chosenDressing);
  const setShown = (id: string | null) => desk.getState().set({ dressingId: id });
  const lay = (name: string, parts: Partial<Dressing>, model: KeptModel | null = null) => {
    let id: string | null = null;
    const label = `Add ${name.toLowerCase()} along ${path.name}`;
    if (
      attempt(desk, label, (shot) => {
        const after = addDressing(shot, path.id, name, parts, model);
        id = after.id;
        return after.shot;
      })
    )
      setShown(id);
  };
  const layModel = (model: KeptModel) =>
    lay(model.name, { every: Number(Math.max(0.1, lengthOf(model)).toFixed(3)) }, model);
  const shipped = READY_PIECES.flatMap(({ file, name, parts }) => {
    const model = models.data?.find((one) => one.fileName === file && one.shipped);
    return model ? [{ name, parts, model }] : [];
  });
  const profiles = READY_PROFILES.map(({ name, profile, ...parts }) => ({
    name,
    parts: { ...parts, kind: 'profile' as const, profile: profile.map(([x, y]): [number, number] => [x, y]) },
    model: null,
  }));
  return (
    <Section aria-label="Dressing">
      <SectionTitle>Dressing</SectionTitle>
      {own.length === 0 && <Hint>Pick what to place along this path.</Hint>}
      <Catalogue>
        {[...shipped, ...profiles].map(({ name, parts, model }) => (
          <Ware key={name} aria-label={`Add ${name.toLowerCase()}`} onPress={() => lay(name, parts, model)}>
            <DressingSketch laid={lookOf(parts)} model={model} />
            {name}
          </Ware>
        ))}
      </Catalogue>
      <Select
        label="Or a model"
        options={[
          { id: NONE, name: 'Choose a model' },
          ...(models.data ?? []).map(({ id, name }) => ({ id, name })),
        ]}
        value={NONE}
        onChange={(id) => {
          const model = models.data?.find((one) => one.id === id);
          if (model) layModel(model);
        }}
      />
      <UploadButton name="Upload a model for it" onModel={layModel} />
      {own.length > 0 && (
        <RowList
          aria-label={`Dressing of ${path.name}`}
          selectionMode="single"
          selectionBehavior="replace"
          disallowEmptySelection
          selectedKeys={chosen ? [chosen.id] : []}
          onSelectionChange={(keys) => keys !== 'all' && setShown([...keys][0] as string)}
        >
          {own.map((one) => (
            <Row key={one.id} id={one.id} textValue={one.name}>
              <RowName>{one.name}</RowName>
              <RowFigure>{stretchOf(one, path)}</RowFigure>
              <IconButton
                label={`Delete ${one.name}`}
                onPress={() => edit(`Delete ${one.name}`, deleteDressing(one.id))}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </Row>
          ))}
        </RowList>
      )}
      {chosen && (
        <Suspense>
          <LaidCard key={chosen.id} laid={chosen} path={path} models={models.data ?? []} />
        </Suspense>
      )}
    </Section>
  );
}

const NONE = ' none';

const lookOf = (parts: Partial<Dressing>): LaidLook => ({ ...defaultsOf(Dressing), ...parts });

/** How long a model is from nose to tail, metres. */
const lengthOf = ({ facts }: KeptModel) => facts.high[2] - facts.low[2];

function stretchOf({ from, to }: Dressing, path: ShotPath): string {
  if (from === 0 && to === null) return 'whole path';
  const curve = compiledPathOf(path);
  const end = to ?? (curve instanceof PathError ? from : curve.length);
  return `${from.toFixed(1)} – ${end.toFixed(1)} m`;
}
