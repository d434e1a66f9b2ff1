import { Camera, Transform, defaultsOf, type Shot } from '@fleet-rail/core';
import { Box, Trash2, Video } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { useDeleteModel, useModels, type KeptModel } from '../../api/models';
import { sentenceOf } from '../../api/request';
import { addPlainRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { addModel } from '../shared/add-model';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { UploadButton } from '../shared/upload-button';

/** New riders: with a model, a camera to look through, a carrier for others. */
export function AddSection() {
  const desk = useDeskStore();
  const models = useModels();
  const remove = useDeleteModel();
  const inShot = useDesk(({ shot }) => shot.models);
  const worn = new Set(inShot.map(({ source }) => source.asset));
  const title = useRef<HTMLHeadingElement>(null);
  const [search] = useSearchParams();
  const asked = search.has('add');
  useEffect(() => {
    if (asked) title.current?.scrollIntoView({ block: 'start' });
  }, [asked]);
  const add = (name: string, make: (shot: Shot) => { shot: Shot; id: string }) => {
    try {
      const { id } = make(desk.getState().shot);
      desk.getState().edit(`Add ${name}`, (shot) => make(shot).shot);
      desk.getState().set({ riderId: id });
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  const discard = (model: KeptModel) =>
    remove.mutateAsync(model.id).then(
      () => notify('done', `Deleted the model ${model.name}.`),
      (error: unknown) => notify('error', sentenceOf(error)),
    );
  const addOne = (model: KeptModel) => {
    try {
      addModel(desk, model);
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  return (
    <Section>
      <SectionTitle ref={title}>Add a rider</SectionTitle>
      <Hint>Choose a model, or upload one.</Hint>
      <Buttons>
        <UploadButton name="Upload a model" onModel={addOne} />
        <Button
          onPress={() =>
            add('camera', (shot) =>
              addPlainRider(shot, 'Camera', {
                kind: 'camera',
                camera: defaultsOf(Camera),
                // It gets the placement of the view.
                rest: { ...defaultsOf(Transform), ...desk.getState().eye?.() },
              }),
            )
          }
        >
          <Video aria-hidden /> Add a camera
        </Button>
        <Button onPress={() => add('carrier', (shot) => addPlainRider(shot, 'Carrier', { kind: 'carrier' }))}>
          <Box aria-hidden /> Add a carrier
        </Button>
      </Buttons>
      {models.isError && <Hint role="alert">{sentenceOf(models.error)}</Hint>}
      <RowList
        aria-label="Models"
        onAction={(key) => {
          const model = models.data?.find((other) => other.id === key);
          if (model) addOne(model);
        }}
      >
        {(models.data ?? []).map((model) => (
          <Row key={model.id} id={model.id} textValue={model.name}>
            <RowName>{model.name}</RowName>
            <RowFigure>{sizeOf(model)}</RowFigure>
            {!model.shipped && !worn.has(model.id) && (
              <IconButton label={`Delete the model ${model.name}`} onPress={() => discard(model)}>
                <Trash2 aria-hidden />
              </IconButton>
            )}
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
