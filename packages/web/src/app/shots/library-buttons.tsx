import { Archive, ArchiveRestore, X } from 'lucide-react';
import { useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { downloadFile } from '../../api/download';
import { BACKUP_URL, missingInWords, restoredInWords, useMissingModels, useRestore } from '../../api/library';
import { Cancelled, sentenceOf } from '../../api/request';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons } from '../../ui/panel';
import { Progress } from '../../ui/progress';

const Foot = styled.footer`
  display: grid;
  gap: 12px;
  margin-top: 32px;
  padding-top: 16px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

const Missing = styled.p`
  padding: 8px 12px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme }) => theme.attention};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
`;

const Bar = styled.div`
  max-width: 320px;
`;

/** Everything that is kept as one file, and back. */
export function LibraryButtons() {
  const restore = useRestore();
  const missing = useMissingModels();
  const [isGiving, setGiving] = useState(false);
  const giving = useRef(new AbortController());
  const failed = (error: unknown) => notify(error instanceof Cancelled ? 'done' : 'error', sentenceOf(error));
  const give = () => {
    setGiving(true);
    giving.current = new AbortController();
    downloadFile(BACKUP_URL, giving.current.signal)
      .then(async () => {
        const gone = missingInWords((await missing.refetch()).data ?? []);
        if (gone !== null) notify('error', `Backed up. ${gone}`);
      }, failed)
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
  const gone = missingInWords(missing.data ?? []);
  return (
    <Foot>
      {gone !== null && <Missing role="alert">{gone}</Missing>}
      <Buttons>
        <Button isPending={isGiving} onPress={give}>
          <Archive aria-hidden /> {isGiving ? 'Packing…' : 'Back up everything'}
        </Button>
        {isGiving && (
          <Button onPress={() => giving.current.abort()}>
            <X aria-hidden /> Cancel backup
          </Button>
        )}
        <FileTrigger acceptedFileTypes={['.zip']} onSelect={take}>
          <Button isPending={restore.isPending}>
            <ArchiveRestore aria-hidden /> {restore.isPending ? 'Restoring…' : 'Restore a backup'}
          </Button>
        </FileTrigger>
        {restore.isPending && (
          <Button onPress={() => void restore.cancel().catch(failed)}>
            <X aria-hidden /> Cancel restore
          </Button>
        )}
      </Buttons>
      {restore.isPending && (
        <Bar>
          <Progress label="Restoring" part={restore.part ?? 0} />
        </Bar>
      )}
    </Foot>
  );
}
