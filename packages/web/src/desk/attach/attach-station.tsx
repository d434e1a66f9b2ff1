import { FileUp, MousePointerClick, Trash2, Unlink } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import type { Rider } from '@fleet-rail/core';
import { sentenceOf } from '../../api/request';
import { useModels, useUploadModel, type KeptModel } from '../../api/models';
import {
  addRider,
  attachRider,
  changeRider,
  deleteRider,
  detachRider,
  detachRiderHere,
  findModel,
} from '../../edits/rider-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { TextField } from '../../ui/fields';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { useDesk, useDeskStore, useSelectedRider, type DeskStore } from '../desk-store';

const MODEL_LIMIT = 64 * 1024 * 1024;

/** Put things on paths: choose a model, choose a path, look where it lands, accept. */
export function AttachStation() {
  const desk = useDeskStore();
  const rider = useSelectedRider();
  return (
    <>
      <PanelTitle>Attach</PanelTitle>
      {rider ? <RiderSection key={rider.id} rider={rider} /> : null}
      <AddSection desk={desk} />
    </>
  );
}

/** Asks for a model's file and sends it to the server, which reads and checks it. */
function UploadButton({ name, onModel }: { name: string; onModel: (model: KeptModel) => void }) {
  const upload = useUploadModel();
  const onFile = (file: File | undefined) => {
    if (!file) return;
    if (file.size > MODEL_LIMIT) {
      notify('error', `${file.name}: has ${(file.size / 1e6).toFixed(0)} MB; at most 64 MB are taken.`);
      return;
    }
    upload.mutate(file, { onSuccess: onModel, onError: (error) => notify('error', sentenceOf(error)) });
  };
  return (
    <FileTrigger acceptedFileTypes={['.glb', '.gltf']} onSelect={(files) => onFile(files?.[0])}>
      <Button isPending={upload.isPending}>
        <FileUp aria-hidden /> {upload.isPending ? 'Reading the model…' : name}
      </Button>
    </FileTrigger>
  );
}

function AddSection({ desk }: { desk: DeskStore }) {
  const models = useModels();
  const title = useRef<HTMLHeadingElement>(null);
  const [search] = useSearchParams();
  const asked = search.has('add');
  useEffect(() => {
    if (asked) title.current?.scrollIntoView({ block: 'start' });
  }, [asked]);
  const add = (model: KeptModel) => {
    try {
      const { id } = addRider(desk.getState().shot, model);
      desk.getState().edit(`Add ${model.name}`, (shot) => addRider(shot, model).shot);
      desk.getState().set({ riderId: id });
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  return (
    <Section>
      <SectionTitle ref={title}>Add a rider</SectionTitle>
      <Hint>Choose what it looks like, or bring a model of your own.</Hint>
      <Buttons>
        <UploadButton name="Upload a model" onModel={add} />
      </Buttons>
      {models.isError && <Hint role="alert">{sentenceOf(models.error)}</Hint>}
      <RowList
        aria-label="Models"
        onAction={(key) => {
          const model = models.data?.find((other) => other.id === key);
          if (model) add(model);
        }}
      >
        {(models.data ?? []).map((model) => (
          <Row key={model.id} id={model.id} textValue={model.name}>
            <RowName>{model.name}</RowName>
            <RowFigure>{sizeOf(model)}</RowFigure>
          </Row>
        ))}
      </RowList>
    </Section>
  );
}

/** Width × height × length, metres. */
function sizeOf({ facts }: KeptModel): string {
  return [0, 1, 2].map((k) => (facts.high[k] - facts.low[k]).toFixed(1)).join(' × ') + ' m';
}

function RiderSection({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const paths = useDesk((state) => state.shot.paths);
  const landing = useDesk((state) => state.landing);
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const tool = useDesk((state) => state.tool);
  const source = useDesk(({ shot }) => shot.models.find((model) => model.id === rider.model)?.source);
  const path = paths.find((other) => other.id === rider.hitch?.path);
  const target =
    landing?.riderId === rider.id ? paths.find((other) => other.id === landing.pathId) : undefined;
  const accept = () => {
    if (!target) return;
    edit(`Attach ${rider.badge}`, attachRider(rider.id, target.id));
    set({ landing: null, pathId: target.id });
  };
  const detachHere = () => edit(`Detach ${rider.badge}`, detachRiderHere(rider.id, desk.getState().frame));
  return (
    <Section>
      <SectionTitle>
        {rider.badge} {rider.name}
      </SectionTitle>
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
          <Hint role="alert">Its model {source.file} is not here; a stand-in rides instead.</Hint>
          <Buttons>
            <UploadButton
              name={`Bring ${source.file}`}
              onModel={(model) => edit(`Find ${source.file}`, findModel(rider.model as string, model.id))}
            />
          </Buttons>
        </>
      )}
      {path ? (
        <>
          <Hint>Rides {path.name}.</Hint>
          <Buttons>
            <Button onPress={detachHere}>
              <Unlink aria-hidden /> Detach, stay here
            </Button>
            <Button onPress={() => edit(`Detach ${rider.badge}`, detachRider(rider.id))}>
              Detach, go back
            </Button>
          </Buttons>
        </>
      ) : (
        <Hint>
          {paths.length > 0
            ? 'Stands at rest. Choose the path it shall ride.'
            : 'Stands at rest. Lay a path first, under Path.'}
        </Hint>
      )}
      {paths.length > 0 && !target && (
        <>
          <Buttons>
            <Button
              isDisabled={tool.kind === 'pickPath'}
              onPress={() => set({ tool: { kind: 'pickPath', riderId: rider.id }, landing: null })}
            >
              <MousePointerClick aria-hidden /> Pick a path on the stage
            </Button>
          </Buttons>
          <RowList
            aria-label="Paths to ride"
            onAction={(key) =>
              set({
                landing: { riderId: rider.id, pathId: String(key) },
                tool: { kind: 'select' },
                pathId: String(key),
                points: new Set(),
              })
            }
          >
            {paths.map(({ id, name }) => (
              <Row key={id} id={id} textValue={name}>
                <RowName>{name}</RowName>
                <RowFigure>{id === path?.id ? 'rides it' : ''}</RowFigure>
              </Row>
            ))}
          </RowList>
        </>
      )}
      {target && (
        <>
          <Hint role="status">
            The pale figure shows where {rider.badge} lands on {target.name}, and which way it faces.
          </Hint>
          <Buttons>
            <PrimaryButton onPress={accept} autoFocus>
              Attach here
            </PrimaryButton>
            <Button onPress={() => set({ landing: null })}>Cancel</Button>
          </Buttons>
        </>
      )}
      <Buttons>
        <IconButton
          label={`Delete ${rider.badge} ${rider.name}`}
          onPress={() => {
            edit(`Delete ${rider.badge}`, deleteRider(rider.id));
            notify('done', `Deleted ${rider.badge} ${rider.name}.`, {
              name: 'Undo',
              run: () => desk.getState().undo(),
            });
          }}
        >
          <Trash2 aria-hidden />
        </IconButton>
      </Buttons>
    </Section>
  );
}
