import { FileUp } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { useUploadModel, type KeptModel } from '../../api/models';
import { sentenceOf } from '../../api/request';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';

const MODEL_LIMIT = 64 * 1024 * 1024;

/** Asks for a model's file and sends it to the server, which reads and checks it. */
export function UploadButton({ name, onModel }: { name: string; onModel: (model: KeptModel) => void }) {
  const upload = useUploadModel();
  const onFile = (file: File | undefined) => {
    if (!file) return;
    if (file.size > MODEL_LIMIT) {
      notify('error', `${file.name}: has ${(file.size / 1e6).toFixed(0)} MB; at most 64 MB are taken.`);
      return;
    }
    // Told even when another step was gone to meanwhile.
    upload.mutateAsync(file).then(onModel, (error: unknown) => notify('error', sentenceOf(error)));
  };
  return (
    <FileTrigger acceptedFileTypes={['.glb', '.gltf', '.bvh']} onSelect={(files) => onFile(files?.[0])}>
      <Button isPending={upload.isPending}>
        <FileUp aria-hidden /> {upload.isPending ? 'Reading the model…' : name}
      </Button>
    </FileTrigger>
  );
}
