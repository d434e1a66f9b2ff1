import { leaderIdOf, putBack, type Rider } from '@fleet-rail/core';
import { MousePointerClick, Trash2, Unlink } from 'lucide-react';
import { useState } from 'react';
import { changeRider, findModel, replaceModel } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/fields';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { beginAttaching } from '../../commands/attach-previews';
import { CarrierKeys } from '../shared/place/carrier-keys';
import { ModelSize } from './model-size';
import { FormationCard } from './formation-card';
import { AttachCard } from './attach-card';
import { StandCopiesCard } from './stand-copies-card';
import { StringCard } from './string-card';
import { ShakeFold } from '../shared/shake-fold';
import { TiesSection } from './ties-section';
import { UploadButton } from '../shared/upload-button';
import { attemptAsked } from '../../commands/attempt';

/** The path that riders ride, or are to ride, and their way onto it and off. */
export function RideSection({ rider, chosen }: { rider: Rider; chosen: readonly string[] }) {
  const desk = useDeskStore();
  const paths = useDesk((state) => state.shot.paths);
  const riders = useDesk((state) => state.shot.riders);
  const attaching = useDesk((state) => state.attaching);
  const set = useDesk((state) => state.set);
  const tool = useDesk((state) => state.tool);
  const path = paths.find(({ id }) => id === rider.attachment?.path);
  const ids = chosen.includes(rider.id) ? chosen : [rider.id];
  const badges = riders.filter(({ id }) => ids.includes(id)).map(({ badge }) => badge);
  const title = badges.length > 1 ? badges.join(', ') : `${rider.badge} ${rider.name}`;
  const lands = attaching !== null && attaching.riders.join() === ids.join() ? attaching : null;
  const leader = riders.find(({ id }) => rider.attachment && id === leaderIdOf(rider.attachment));
  const label = `Detach ${badges.join(', ')}`;
  return (
    <Section>
      <SectionTitle>{title}</SectionTitle>
      {path ? (
        <>
          <Hint>
            Rides {path.name}
            {leader &&
              (rider.attachment?.coupledTo
                ? `, hung behind ${leader.badge}`
                : `, with the pace of ${leader.badge}`)}
            .
          </Hint>
          <Buttons>
            <Button onPress={() => void attemptAsked(desk, label, 'detachHere', ids, desk.getState().frame)}>
              <Unlink aria-hidden /> Detach, stay here
            </Button>
            <Button onPress={() => void attemptAsked(desk, label, 'detachBack', ids)}>Detach, go back</Button>
            {leader && (
              <Button onPress={() => void attemptAsked(desk, 'Own pace', 'ownTiming', rider.id)}>
                Give it its own pace
              </Button>
            )}
          </Buttons>
        </>
      ) : (
        <Hint>
          {paths.length > 0
            ? 'Not attached. Choose a path.'
            : 'Not attached. Add a path first, at the Path step.'}
        </Hint>
      )}
      {rider.attachment && ids.length === 1 && <TiesSection rider={rider} attachment={rider.attachment} />}
      {lands && <AttachCard attaching={lands} />}
      {paths.length > 0 && !lands && (
        <>
          <Buttons>
            <Button
              isDisabled={tool.kind === 'pickPath'}
              onPress={() => set({ tool: { kind: 'pickPath', riders: ids }, attaching: null })}
            >
              <MousePointerClick aria-hidden /> Pick a path on the stage
            </Button>
          </Buttons>
          <RowList aria-label="Paths to ride" onAction={(key) => beginAttaching(desk, ids, String(key))}>
            {paths.map(({ id, name }) => (
              <Row key={id} id={id} textValue={name}>
                <RowName>{name}</RowName>
                <RowFigure>{id === path?.id ? 'rides it' : ''}</RowFigure>
              </Row>
            ))}
          </RowList>
        </>
      )}
    </Section>
  );
}

/** Selected rider: its name, model and carrier; strings and formations; deletion. */
export function RiderSection({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const models = useDesk((state) => state.models);
  const riders = useDesk((state) => state.shot.riders);
  const source = useDesk(({ shot }) => shot.models.find((model) => model.id === rider.model)?.source);
  const [keeps, setKeeps] = useState(true);
  const formed = useDesk(({ shot }) =>
    shot.formations.some(({ leader, members }) => leader === rider.id || members.includes(rider.id)),
  );
  const worn = models.find(({ id }) => id === source?.asset);
  const isOdd = worn !== undefined && worn.facts.unit !== 'm';
  // It stays open when what was odd is put right.
  const [odd, setOdd] = useState<string | null>(null);
  if (isOdd && odd !== rider.id) setOdd(rider.id);
  const replace = (model: (typeof models)[number]) =>
    edit(`Replace the model of ${rider.badge}`, replaceModel(rider.id, model, worn));
  const sit = (carrier: string) =>
    void attemptAsked(
      desk,
      carrier === '' ? 'Detach from its carrier' : 'Attach to a carrier',
      'sitOn',
      [rider.id],
      carrier || null,
      desk.getState().frame,
      keeps,
    );
  return (
    <>
      {rider.attachment === null && (
        <Fold title="Copies">
          <StandCopiesCard rider={rider} />
        </Fold>
      )}
      <Fold title="String">
        <StringCard leader={rider} />
      </Fold>
      <Fold key={`formation ${rider.id}`} title="Formation" isOpen={formed}>
        <FormationCard leader={rider} />
      </Fold>
      <Fold
        title={
          rider.parentKeys.length > 0 ? `Carrier switches (${rider.parentKeys.length})` : 'Carrier switches'
        }
        isOpen={rider.parentKeys.length > 0}
      >
        <CarrierKeys rider={rider} />
      </Fold>
      <Fold
        // Remounted, and so open, when there is something to report.
        key={`model ${rider.id} ${odd === rider.id}`}
        title="Model, name and carrier"
        isOpen={source?.file !== undefined || odd === rider.id}
      >
        <TextField
          label="Name"
          value={rider.name}
          maxLength={200}
          onChange={(name) =>
            name.trim() !== '' &&
            edit(
              'Rename rider',
              changeRider(rider.id, (before) => ({ ...before, name })),
              `rename ${rider.id}`,
            )
          }
        />
        {source?.file !== undefined && (
          <>
            <Hint role="alert">Its model {source.file} is missing; a stand-in is shown.</Hint>
            <Buttons>
              <UploadButton
                name={`Upload ${source.file}`}
                onModel={(model) => edit(`Find ${source.file}`, findModel(rider.model as string, model.id))}
              />
            </Buttons>
          </>
        )}
        {models.length > 0 && (
          <Select
            label="Model"
            options={[
              ...(worn ? [] : [{ id: '', name: source?.file ?? 'A stand-in' }]),
              ...models.map(({ id, name }) => ({ id, name })),
            ]}
            value={worn?.id ?? ''}
            onChange={(id) => {
              const model = models.find((other) => other.id === id);
              if (model) replace(model);
            }}
          />
        )}
        <Buttons>
          <UploadButton name="Upload another model" onModel={replace} />
        </Buttons>
        {worn && <ModelSize key={worn.id} rider={rider} model={worn} />}
        <Select
          label="Carrier"
          options={[
            { id: '', name: 'Nothing' },
            ...riders
              .filter(({ id }) => id !== rider.id)
              .map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` })),
          ]}
          value={rider.parent ?? ''}
          onChange={sit}
        />
        {rider.restBeforeParent !== null && (
          <Buttons>
            <Button onPress={() => edit('Put back', (shot) => putBack(shot, rider.id))}>
              Put it back where it was
            </Button>
          </Buttons>
        )}
        <Tick isSelected={keeps} onChange={setKeeps}>
          Keep its position when attached to a carrier
        </Tick>
        {rider.parent !== null && rider.attachment !== null && (
          <Hint>A rider on its own path is not carried.</Hint>
        )}
        {rider.parent !== null && rider.camera === null && <ShakeFold rider={rider} />}
        <Buttons>
          <IconButton
            label={`Delete ${rider.badge} ${rider.name}`}
            onPress={async () => {
              const { frame } = desk.getState();
              if (!(await attemptAsked(desk, `Delete ${rider.badge}`, 'removeRider', rider.id, frame)))
                return;
              notify('done', `Deleted ${rider.badge} ${rider.name}.`, {
                name: 'Undo',
                run: () => desk.getState().undo(),
              });
            }}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Buttons>
      </Fold>
    </>
  );
}
