import { isGroundDressing, type GroundContact, type Rider } from '@fleet-rail/core';
import { chooseGround, layFloor } from '../../edits/contact-edits';
import { changeAttachment } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Row, RowList, RowName } from '../../ui/row-list';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { UploadButton } from '../shared/upload-button';
import { useDesk } from '../../state/desk-store';

const [NONE, FLOOR] = [' none', ' floor'];

const MODES = [
  { id: 'none', name: 'Path height' },
  { id: 'stick', name: 'On the ground' },
] as const;

/** Ground of the shot, and whether the selected rider is on it. */
export function GroundSection({ rider }: { rider: Rider | null }) {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const kept = useDesk((state) => state.models);
  const model = shot.models.find(({ id }) => id === shot.ground.model);
  const asset = model?.source.asset;
  const { level } = shot.ground;
  const laid = shot.dressing.filter(isGroundDressing);
  // A ground whose file is not here is still named.
  const own = model && asset === undefined ? [{ id: model.id, name: model.name }] : [];
  return (
    <Section aria-label="Ground">
      <SectionTitle>Ground</SectionTitle>
      <Select
        label="Ground"
        options={[
          { id: FLOOR, name: 'Level floor' },
          { id: NONE, name: 'None' },
          ...own,
          ...kept.map(({ id, name }) => ({ id, name })),
        ]}
        value={asset ?? model?.id ?? (level === null ? NONE : FLOOR)}
        onChange={(id) => {
          const found = kept.find((one) => one.id === id);
          if (found) edit('Ground', chooseGround(found));
          else if (id === NONE || id === FLOOR) edit('Ground', layFloor(id === NONE ? null : (level ?? 0)));
        }}
      />
      {model === undefined && level !== null && (
        <QuantityField
          label="Height of the floor"
          kind="length"
          step={0.1}
          min={-1e6}
          max={1e6}
          value={level}
          onChange={(height, gesture) => edit('Floor', layFloor(height), gesture)}
        />
      )}
      {laid.length > 0 && (
        <Hint>
          {laid.map(({ name }) => name).join(', ')} {laid.length === 1 ? 'is' : 'are'} ground as well, along{' '}
          {laid.length === 1 ? 'a path' : 'paths'}.
        </Hint>
      )}
      <Buttons>
        <UploadButton
          name="Upload a ground"
          onModel={(one) => edit(`Ground ${one.name}`, chooseGround(one))}
        />
      </Buttons>
      {asset !== undefined && <GroundNodes asset={asset} />}
      {rider?.attachment && <Contact rider={rider} ground={rider.attachment.ground} />}
    </Section>
  );
}

/** Which nodes of the ground's model count; all of them where none is chosen. */
function GroundNodes({ asset }: { asset: string }) {
  const nodes = useDesk(({ shot }) => shot.ground.nodes);
  const names = useDesk(({ models }) => models.find(({ id }) => id === asset)?.facts.nodes);
  const edit = useDesk((state) => state.edit);
  if (!names || names.length < 2) return null;
  const all = [...new Set(names)].filter((name) => name !== '').slice(0, 400);
  return (
    <Fold title={nodes.length === 0 ? 'All parts count' : `${nodes.length} of its parts count`}>
      <Hint>
        Choose the parts that count as ground, with everything under them. Choose none to use the whole model.
      </Hint>
      <RowList
        aria-label="Parts of the ground"
        selectionMode="multiple"
        selectedKeys={nodes}
        onSelectionChange={(keys) =>
          edit('Ground', (before) => ({
            ...before,
            ground: { ...before.ground, nodes: keys === 'all' ? [] : [...keys].map(String) },
          }))
        }
      >
        {all.map((name) => (
          <Row key={name} id={name} textValue={name}>
            <RowName>{name}</RowName>
          </Row>
        ))}
      </RowList>
    </Fold>
  );
}

function Contact({ rider, ground }: { rider: Rider; ground: GroundContact }) {
  const edit = useDesk((state) => state.edit);
  const has = useDesk(
    ({ shot }) =>
      shot.ground.model !== null || shot.ground.level !== null || shot.dressing.some(isGroundDressing),
  );
  const change = (part: Partial<GroundContact>, gesture?: string) =>
    edit(
      'Ground contact',
      changeAttachment(rider.id, (attachment) => ({
        ...attachment,
        ground: { ...attachment.ground, ...part },
      })),
      gesture,
    );
  return (
    <>
      <Choice
        label="Height"
        options={MODES}
        value={ground.mode}
        onChange={(mode) =>
          // A walker stays upright on a slope; a vehicle tilts with it.
          change({ mode, ...(mode === 'stick' && rider.gait ? { tilt: false } : {}) })
        }
      />
      {ground.mode === 'stick' && (
        <>
          <Hint>
            {has
              ? 'Search range above and below the path; the nearest ground counts.'
              : 'Choose the ground above.'}
          </Hint>
          <FieldGrid>
            <QuantityField
              label="Above"
              kind="length"
              min={0}
              step={0.1}
              value={ground.up}
              onChange={(up, gesture) => change({ up }, gesture)}
            />
            <QuantityField
              label="Below"
              kind="length"
              min={0}
              step={0.1}
              value={ground.down}
              onChange={(down, gesture) => change({ down }, gesture)}
            />
            <QuantityField
              label="Rise"
              kind="length"
              step={0.01}
              value={ground.rise}
              onChange={(rise, gesture) => change({ rise }, gesture)}
            />
          </FieldGrid>
          <Tick isSelected={ground.tilt} onChange={(tilt) => change({ tilt })}>
            Tilt with the ground
          </Tick>
        </>
      )}
    </>
  );
}
