import { FileUp, PenLine, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { deletePath } from '../../edits/path-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { showNumber } from '../../ui/quantity';
import { Row, RowFigure, RowList, RowName } from '../../ui/row-list';
import { useDesk, useDeskStore, useSelectedPath } from '../desk-store';
import { startDrawing } from './drawing';
import { importSvg } from './import-svg';
import { PathDetails } from './path-details';

/** Lay paths: import, draw, choose, move points. */
export function PathStation() {
  const desk = useDeskStore();
  const paths = useDesk((state) => state.shot.paths);
  const riders = useDesk((state) => state.shot.riders);
  const pathId = useDesk((state) => state.pathId);
  const evaluated = useDesk((state) => state.evaluation?.paths);
  const set = useDesk((state) => state.set);
  const edit = useDesk((state) => state.edit);
  const path = useSelectedPath();
  const [scale, setScale] = useState(1);
  const remove = (id: string, name: string) => {
    const carried = riders.filter((rider) => rider.hitch?.path === id).map((rider) => rider.badge);
    edit('Delete path', deletePath(id));
    const back = carried.length > 0 ? ` ${carried.join(', ')} went back to where they rested.` : '';
    notify('done', `Deleted "${name}".${back}`, { name: 'Undo', run: () => desk.getState().undo() });
  };
  return (
    <>
      <PanelTitle>Path</PanelTitle>
      <Section>
        {paths.length === 0 && (
          <Hint>Nothing to ride on yet. Click a path into the plan, or bring one from an SVG drawing.</Hint>
        )}
        <Buttons>
          <PrimaryButton onPress={() => startDrawing(desk)}>
            <PenLine aria-hidden /> Draw a path
          </PrimaryButton>
          <FileTrigger
            acceptedFileTypes={['.svg', 'image/svg+xml']}
            onSelect={(files) => files?.[0] && void importSvg(desk, files[0], scale)}
          >
            <Button>
              <FileUp aria-hidden /> Import SVG
            </Button>
          </FileTrigger>
        </Buttons>
        <QuantityField
          label="Metres for one SVG unit"
          kind="length"
          value={scale}
          min={1e-6}
          max={1e6}
          step={0.01}
          digits={6}
          onChange={setScale}
        />
      </Section>
      {paths.length > 0 && (
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
            {paths.map(({ id, name }) => (
              <Row key={id} id={id} textValue={name}>
                <RowName>{name}</RowName>
                <RowFigure>{lengthOf(evaluated?.get(id))}</RowFigure>
                <IconButton label={`Delete ${name}`} onPress={() => remove(id, name)}>
                  <Trash2 aria-hidden />
                </IconButton>
              </Row>
            ))}
          </RowList>
        </Section>
      )}
      {path && <PathDetails key={path.id} path={path} />}
    </>
  );
}

function lengthOf(path: { length: number; problem: string | null } | undefined): string {
  if (!path) return '';
  return path.problem === null ? `${showNumber(path.length, 2)} m` : 'no curve';
}
