import { useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { notify } from '../../ui/notices';
import { useDeskStore } from '../../state/desk-store';
import { useAddModel } from '../../steps/shared/use-add-model';
import { importPaths } from '../../steps/path/import-paths';
import { answered, takeEach } from './take-each';
import { droppedFiles, partsOf, type DropPart } from './dropped-files';

const Veil = styled.div`
  position: fixed;
  inset: 8px;
  z-index: 30;
  display: grid;
  place-items: center;
  border: 2px dashed ${({ theme }) => theme.signal};
  border-radius: 10px;
  background: ${({ theme }) => theme.panel}cc;
  font-size: 18px;
  pointer-events: none;
`;

/** How near points are fitted where a path has more than one can hold, metres. */
const FIT = 0.01;

/** Takes files that are dropped anywhere on the desk: models as riders, drawings and tables as paths. */
export function DropPlace() {
  const desk = useDeskStore();
  const navigate = useNavigate();
  const { shotId } = useParams();
  const addModel = useAddModel();
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const onOver = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      // Without this the browser would leave the desk for the file.
      event.preventDefault();
      setOver(true);
    };
    const onLeave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const onDrop = (event: DragEvent) => {
      if (!hasFiles(event) || !event.dataTransfer) return;
      event.preventDefault();
      setOver(false);
      const files = droppedFiles(event.dataTransfer.items);
      void files
        .then(partsOf)
        .then((parts) => takeEach(parts, (part) => take(part, parts.length > 1)))
        .catch((error: unknown) => notify('error', sentenceOf(error)));
    };
    const take = async ({ kind, files }: DropPart, others: boolean) => {
      if (kind === 'model') return addModel(files, others);
      if (kind === 'paths') {
        const before = desk.getState().importing;
        await importPaths(desk, files[0], 1, FIT);
        if (desk.getState().importing === before) return;
        // Questions about it are answered at that step, before the next file.
        void navigate(`/shots/${shotId}/path`);
        return answered(desk);
      }
      if (kind === 'shot') throw new Error(`${files[0].name}: a shot file is imported at the list of shots.`);
      const names = files.slice(0, 3).map(({ name }) => name);
      throw new Error(
        `${names.join(', ')}: found nothing to add; expected a model (.glb, .gltf with its files, .obj, .stl, .ply, .bvh, .zip) or paths (.svg, .csv, .obj).`,
      );
    };
    window.addEventListener('dragover', onOver);
    window.addEventListener('dragleave', onLeave);
    window.addEventListener('drop', onDrop);
    return () => {
      window.removeEventListener('dragover', onOver);
      window.removeEventListener('dragleave', onLeave);
      window.removeEventListener('drop', onDrop);
    };
  }, [desk, addModel, navigate, shotId]);
  if (!isOver) return null;
  return <Veil>Drop models to add them, or files with paths to import</Veil>;
}
