import { FileUp, Moon, Plus, Server, Sun } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled, { useTheme } from 'styled-components';
import { parseShotText } from '@fleet-rail/core';
import { sentenceOf } from '../../api/request';
import {
  useCreateShot,
  useDeletedShots,
  useDeleteShot,
  useDuplicateShot,
  useRenameShot,
  useShots,
  useUndeleteShot,
  type ShotCard,
} from '../../api/shots';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { useSwapTheme } from '../../ui/theme/theme-provider';
import { Button, PrimaryButton } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Page, PageHead } from '../../ui/page';
import { Hint } from '../../ui/panel';
import { readTextFile } from '../../ui/read-file';
import { NameDialog } from '../../ui/name-dialog';
import { DeletedShots } from './deleted-shots';
import { LibraryButtons } from './library-buttons';
import { ShotTile } from './shot-tile';

const SHOT_FILE_LIMIT = 64e6;

const Title = styled.h1`
  flex: 1;
  font: 600 28px/1.1 ${LABEL_FONT};
  & > small {
    display: block;
    margin-bottom: 2px;
    color: ${({ theme }) => theme.quiet};
    font-size: 14px;
    font-weight: 500;
    letter-spacing: 0.03em;
  }
`;

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 16px;
`;

const Empty = styled.div`
  display: grid;
  justify-items: start;
  gap: 12px;
  padding: 48px 0;
`;

/** All shots, and ways to a new one. */
export function ShotsPage() {
  const navigate = useNavigate();
  const theme = useTheme();
  const swapTheme = useSwapTheme();
  const shots = useShots();
  const create = useCreateShot();
  const rename = useRenameShot();
  const duplicate = useDuplicateShot();
  const remove = useDeleteShot();
  const undelete = useUndeleteShot();
  const deleted = useDeletedShots();
  const [naming, setNaming] = useState<'new' | ShotCard | null>(null);
  const failed = (error: unknown) => notify('error', sentenceOf(error));

  const importFile = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    try {
      const document = parseShotText(await readTextFile(file, SHOT_FILE_LIMIT));
      const shot = await create.mutateAsync({ document });
      navigate(`/shots/${shot.id}/path`);
    } catch (error) {
      notify('error', `${file.name} was not imported. ${sentenceOf(error)}`);
    }
  };
  const onDelete = (shot: ShotCard) =>
    remove.mutate(shot.id, {
      onSuccess: () =>
        notify('done', `Deleted "${shot.name}".`, {
          name: 'Undo',
          run: () => undelete.mutate(shot.id, { onError: failed }),
        }),
      onError: failed,
    });
  const onName = (name: string) => {
    const done = { onSuccess: () => setNaming(null), onError: failed };
    if (naming === 'new')
      create.mutate({ name }, { ...done, onSuccess: (shot) => navigate(`/shots/${shot.id}/path`) });
    else if (naming) rename.mutate({ id: naming.id, name }, done);
  };
  const newButton = (
    <PrimaryButton onPress={() => setNaming('new')}>
      <Plus aria-hidden /> New shot
    </PrimaryButton>
  );
  return (
    <Page>
      <PageHead>
        <Title>
          <small>Fleet Rail</small>
          Shots
        </Title>
        <Button onPress={() => void navigate('/pool')}>
          <Server aria-hidden /> Render pool
        </Button>
        <FileTrigger acceptedFileTypes={['.json']} onSelect={(files) => void importFile(files)}>
          <Button>
            <FileUp aria-hidden /> Import a shot file
          </Button>
        </FileTrigger>
        {newButton}
        <IconButton label={theme.mode === 'day' ? 'Night' : 'Day'} onPress={swapTheme}>
          {theme.mode === 'day' ? <Moon aria-hidden /> : <Sun aria-hidden />}
        </IconButton>
      </PageHead>
      {shots.isError && <Hint role="alert">{sentenceOf(shots.error)}</Hint>}
      {shots.data?.length === 0 && (
        <Empty>
          <Hint>A shot holds paths, riders and their pace. Start with an empty one.</Hint>
          {newButton}
        </Empty>
      )}
      <Grid>
        {shots.data?.map((shot) => (
          <ShotTile
            key={shot.id}
            shot={shot}
            onRename={() => setNaming(shot)}
            onDuplicate={() => duplicate.mutate(shot.id, { onError: failed })}
            onDelete={() => onDelete(shot)}
          />
        ))}
      </Grid>
      <DeletedShots
        shots={deleted.data ?? []}
        onBringBack={({ id }) => undelete.mutate(id, { onError: failed })}
      />
      <LibraryButtons />
      {naming !== null && (
        <NameDialog
          title={naming === 'new' ? 'New shot' : 'Rename shot'}
          label="Name"
          start={naming === 'new' ? '' : naming.name}
          action={naming === 'new' ? 'Create' : 'Rename'}
          onName={onName}
          onClose={() => setNaming(null)}
        />
      )}
    </Page>
  );
}
