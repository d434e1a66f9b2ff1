import { useCallback } from 'react';
import { useUploadModel } from '../../api/models';
import { notify } from '../../ui/notices';
import { addModel } from './add-model';
import { useDeskStore } from '../../state/desk-store';

/**
 * Takes in a model from its files and adds it as a rider; offers to position it by click, unless others follow.
 *
 * @throws Refusal in what comes back, with a sentence to show
 */
export function useAddModel(): (files: readonly File[], others?: boolean) => Promise<void> {
  const desk = useDeskStore();
  const { mutateAsync } = useUploadModel();
  return useCallback(
    async (files, others = false) => {
      const model = await mutateAsync(files);
      const id = addModel(desk, model);
      const put = () => desk.getState().set({ riderId: id, tool: { kind: 'putRider', riderId: id } });
      notify('done', `${model.name} is added.`, others ? undefined : { name: 'Position by click', run: put });
    },
    [desk, mutateAsync],
  );
}
