import { Component, FileUp, PenLine, Shapes, Trash2 } from 'lucide-react';
import { memo, Suspense, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useShallow } from 'zustand/react/shallow';
import { Button, PrimaryButton } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { Progress } from '../../ui/progress';
import { QuantityField } from '../../ui/quantity-field';
import { showNumber } from '../../ui/quantity';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { useDesk, useDeskStore, useSelectedPath } from '../../state/desk-store';
import { useAddModel } from '../shared/use-add-model';
import { AtDistance } from './at-distance';
import { DrawSettings, ImportCard, OperationCard, ShapeCard } from './cards';
import { DeletePathDialog, removePath } from './delete-path-dialog';
import { startDrawing } from '../../commands/drawing';
import { importOrOffer, useReading } from './import-paths';
import { PathDetails } from './path-details';

const FILES = ['.svg', '.obj', '.csv', '.glb', '.gltf', '.bvh'];

/** Lay paths: draw, import, choose, change. */
export function PathStep() {
  const tool = useDesk((state) => state.tool.kind);
  const operation = useDesk((state) => state.operation);
  const importing = useDesk((state) => state.importing);
  const path = useSelectedPath();
  const [shaping, setShaping] = useState(false);
  return (
    <>
      <PanelTitle>Path</PanelTitle>
      <Suspense>
        {importing ? (
          <ImportCard importing={importing} />
        ) : operation && path ? (
          <OperationCard operation={operation} path={path} />
        ) : tool === 'draw' ? (
          <DrawSettings />
        ) : path && (tool === 'insert' || tool === 'mark') ? (
          <AtDistance path={path} kind={tool} />
        ) : shaping ? (
          <ShapeCard onDone={() => setShaping(false)} />
        ) : (
          <>
            <Begin onShape={() => setShaping(true)} />
            <PathList />
            {path && <PathDetails key={path.id} path={path} />}
          </>
        )}
      </Suspense>
    </>
  );
}

/** The ways to a path: draw it, take a ready shape, import it from a file, or from a model's edges. */
function Begin({ onShape }: { onShape: () => void }) {
  const desk = useDeskStore();
  const none = useDesk((state) => state.shot.paths.length === 0);
  const set = useDesk((state) => state.set);
  const addModel = useAddModel();
  const reading = useReading((state) => state.reading);
  const [scale, setScale] = useState(1);
  const [tolerance, setTolerance] = useState(0.01);
  return (
    <Section>
      {none && <Hint>No path yet. Draw one in the plan, or import one from a file.</Hint>}
      <Buttons>
        <PrimaryButton onPress={() => startDrawing(desk)}>
          <PenLine aria-hidden /> Draw a path
        </PrimaryButton>
        <Button onPress={onShape}>
          <Shapes aria-hidden /> Ready shape
        </Button>
        <FileTrigger
          acceptedFileTypes={FILES}
          onSelect={(files) => files?.[0] && importOrOffer(desk, files[0], scale, tolerance, addModel)}
        >
          <Button isDisabled={reading !== null}>
            <FileUp aria-hidden /> Import a file
          </Button>
        </FileTrigger>
        <Button onPress={() => set({ tool: { kind: 'edges', runs: [] }, playing: false })}>
          <Component aria-hidden /> Model edges
        </Button>
      </Buttons>
      {reading ? (
        <>
          <Hint role="status">Reading {reading.file}…</Hint>
          <Progress label={`Reading ${reading.file}`} part={reading.part} />
          <Button onPress={reading.cancel}>Cancel reading</Button>
        </>
      ) : (
        <FieldGrid>
          <QuantityField
            label="File unit is"
            kind="length"
            value={scale}
            min={1e-6}
            max={1e6}
            step={0.01}
            digits={6}
            onChange={setScale}
          />
          <QuantityField
            label="Fit within"
            kind="length"
            value={tolerance}
            min={1e-4}
            max={100}
            step={0.01}
            digits={4}
            onChange={setTolerance}
          />
        </FieldGrid>
      )}
    </Section>
  );
}

const PathList = memo(function PathList() {
  const desk = useDeskStore();
  // Ids and names alone: the list does not re-render while a path is changed.
  const ids = useDesk(useShallow(({ shot }) => shot.paths.map(({ id }) => id)));
  const names = useDesk(useShallow(({ shot }) => shot.paths.map(({ name }) => name)));
  const pathId = useDesk((state) => state.pathId);
  const set = useDesk((state) => state.set);
  const [asked, setAsked] = useState<string | null>(null);
  const doomed = useDesk(({ shot }) => shot.paths.find(({ id }) => id === asked));
  if (ids.length === 0) return null;
  const remove = (id: string) => {
    const { paths, riders } = desk.getState().shot;
    const path = paths.find((other) => other.id === id);
    if (riders.some((rider) => rider.attachment?.path === id)) setAsked(id);
    else if (path) void removePath(desk, path, 'back');
  };
  return (
    <Section>
      <SectionTitle>Paths</SectionTitle>
      <RowList
        aria-label="Paths"
        selectionMode="single"
        disallowEmptySelection
        selectionBehavior="replace"
        selectedKeys={pathId === null ? [] : [pathId]}
        onSelectionChange={(keys) =>
          keys !== 'all' && set({ pathId: [...keys][0] as string, points: new Set() })
        }
      >
        {ids.map((id, i) => (
          <Row key={id} id={id} textValue={names[i]}>
            <RowName>{names[i]}</RowName>
            <PathLength id={id} />
            <IconButton label={`Delete ${names[i]}`} onPress={() => remove(id)}>
              <Trash2 aria-hidden />
            </IconButton>
          </Row>
        ))}
      </RowList>
      {doomed && <DeletePathDialog path={doomed} onClose={() => setAsked(null)} />}
    </Section>
  );
});

function PathLength({ id }: { id: string }) {
  const evaluated = useDesk((state) => state.evaluation?.paths.get(id));
  return <RowFigure>{lengthText(evaluated)}</RowFigure>;
}

function lengthText(path: { length: number; problem: string | null } | undefined): string {
  if (!path) return '';
  return path.problem === null ? `${showNumber(path.length, 2)} m` : 'no curve';
}
