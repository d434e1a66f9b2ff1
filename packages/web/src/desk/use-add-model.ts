import { useCallback } from 'react';
import { useUploadModel } from '../api/models';
import { sentenceOf } from '../api/request';
import { addRider } from '../edits/rider-edits';
import { notify } from '../ui/notices';
import { useDeskStore } from './desk-store';

/** Takes in a model from its files and adds it as a rider, whose place is clicked next. */
export function useAddModel(): (files: readonly File[]) => void {
  const desk = useDeskStore();
  const { mutateAsync } = useUploadModel();
  return useCallback(
    (files) => {
      const add = async () => {
        const model = await mutateAsync(files);
        const { id } = addRider(desk.getState().shot, model);
        desk.getState().edit(`Add ${model.name}`, (shot) => addRider(shot, model).shot);
        desk.getState().set({ riderId: id, tool: { kind: 'putRider', riderId: id } });
        notify('done', `${model.name} is added: click where it stands.`);
      };
      add().catch((error: unknown) => notify('error', sentenceOf(error)));
    },
    [desk, mutateAsync],
  );
}
