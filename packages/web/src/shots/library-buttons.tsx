import { Archive, ArchiveRestore } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { downloadFile } from '../api/download';
import { BACKUP_URL, restoredInWords, useRestore } from '../api/library';
import { sentenceOf } from '../api/request';
import { Button } from '../ui/button';
import { notify } from '../ui/notices';
import { Buttons } from '../ui/panel';

const Foot = styled.footer`
  margin-top: 32px;
  padding-top: 16px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

/** Everything that is kept as one file, and back. */
export function LibraryButtons() {
  const restore = useRestore();
  const [isGiving, setGiving] = useState(false);
  const failed = (error: unknown) => notify('error', sentenceOf(error));
  const give = () => {
    setGiving(true);
    downloadFile(BACKUP_URL)
      .catch(failed)
      .finally(() => setGiving(false));
  };
  const take = (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    restore.mutateAsync(file).then((brought) => {
      const { refused } = brought;
      notify(refused.length > 0 ? 'error' : 'done', restoredInWords(brought), undefined, refused);
    }, failed);
  };
  return (
    <Foot>
      <Buttons>
        <Button isPending={isGiving} onPress={give}>
          <Archive aria-hidden /> {isGiving ? 'Packing…' : 'Back up everything'}
        </Button>
        <FileTrigger acceptedFileTypes={['.zip']} onSelect={take}>
          <Button isPending={restore.isPending}>
            <ArchiveRestore aria-hidden /> {restore.isPending ? 'Restoring…' : 'Restore a backup'}
          </Button>
        </FileTrigger>
      </Buttons>
    </Foot>
  );
}
