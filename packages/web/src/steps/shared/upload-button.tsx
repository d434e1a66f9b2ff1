import { FileUp, FolderUp } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { useUploadModel, type KeptModel } from '../../api/models';
import { sentenceOf } from '../../api/request';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';

const MODEL_LIMIT = 64 * 1024 * 1024;
/** Models, what they may need beside them, and all of it in one. */
const FILES = ['.glb', '.gltf', '.obj', '.stl', '.ply', '.bvh', '.zip', '.bin', '.mtl', 'image/*', '.ktx2'];

/** Asks for a model's files, or the folder they lie in, and sends them to the server, which reads and checks them. */
export function UploadButton({ name, onModel }: { name: string; onModel: (model: KeptModel) => void }) {
  const upload = useUploadModel();
  const onFiles = (list: FileList | null) => {
    const files = [...(list ?? [])];
    if (files.length === 0) return;
    const size = files.reduce((sum, file) => sum + file.size, 0);
    if (size > MODEL_LIMIT) {
      const what = files.length === 1 ? files[0].name : `${files.length} files`;
      notify('error', `${what}: ${(size / 1e6).toFixed(0)} MB; at most 64 MB are taken.`);
      return;
    }
    // Told even when another step was gone to meanwhile.
    upload.mutateAsync(files).then(onModel, (error: unknown) => notify('error', sentenceOf(error)));
  };
  return (
    <>
      <FileTrigger acceptedFileTypes={FILES} allowsMultiple onSelect={onFiles}>
        <Button isPending={upload.isPending}>
          <FileUp aria-hidden /> {upload.isPending ? 'Reading the model…' : name}
        </Button>
      </FileTrigger>
      <FileTrigger acceptDirectory onSelect={onFiles}>
        <IconButton label="A model’s folder" isDisabled={upload.isPending}>
          <FolderUp aria-hidden />
        </IconButton>
      </FileTrigger>
    </>
  );
}
