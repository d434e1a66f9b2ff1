import { MOST_EYES, PLAIN_WISH, isFilm, isSheet, type PictureWish } from '@fleet-rail/core';
import { Camera, Server } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useTheme } from 'styled-components';
import { useAddJob, usePool } from '../../api/pool';
import { sentenceOf } from '../../api/request';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { Tick } from '../../ui/tick';
import { useDesk, useLiveDeskStore } from '../../state/desk-store';
import { newPictureJob } from './new-picture-job';
import { downloadJob, PicturesList } from './pictures-list';
import { PictureSettings } from './picture-settings';

/** Pictures, films and sheets of the shot: ordered here, rendered by any renderer. */
export function PicturesSection({ shotId }: { shotId: string }) {
  const desk = useLiveDeskStore();
  const theme = useTheme();
  const ready = useDesk(({ seen, evaluation }) => seen !== null && evaluation?.now === null);
  const drawsHere = useDesk((state) => state.drawsHere);
  const [wish, setWish] = useState(PLAIN_WISH);
  const { data } = usePool();
  const add = useAddJob();
  const awaited = useRef(new Set<string>());
  const jobs = data?.jobs.filter((job) => job.shotId === shotId) ?? [];
  // Finished pictures of this page are downloaded.
  useEffect(() => {
    for (const job of data?.jobs ?? []) {
      if (job.state !== 'done' || !awaited.current.delete(job.id)) continue;
      downloadJob(job);
      notify('done', `${job.fileName}, ${((job.bytes ?? 0) / 1e6).toFixed(1)} MB.`);
    }
  }, [data]);
  const make = () => {
    const job = newPictureJob(desk.getState(), wish, theme.mode);
    if (job === null) return;
    add.mutate(
      { ...job, shotId },
      {
        onSuccess: ({ id }) => awaited.current.add(id),
        onError: (error) => notify('error', sentenceOf(error)),
      },
    );
  };
  const others = (data?.renderers ?? []).filter(({ kind }) => kind !== 'desk').length;
  const blind = typeof wish.eye === 'object' && wish.eye.riders.length === 0;
  return (
    <Section aria-label="Pictures and video">
      <SectionTitle>Pictures and video</SectionTitle>
      <PictureSettings wish={wish} onChange={setWish} />
      <Tick isSelected={drawsHere} onChange={(on) => desk.getState().set({ drawsHere: on })}>
        Render in this window
      </Tick>
      <Buttons>
        <Button isDisabled={!ready || add.isPending || blind} onPress={make}>
          <Camera aria-hidden /> {verb(wish)}
        </Button>
      </Buttons>
      {blind && <Hint>Choose one camera to {MOST_EYES}.</Hint>}
      <PicturesList jobs={jobs} />
      <Hint>
        <Server aria-hidden size={13} /> <Link to="/pool">Render pool</Link>:{' '}
        {others === 0 ? 'no other renderers.' : `${others} other ${others === 1 ? 'renderer' : 'renderers'}.`}
      </Hint>
    </Section>
  );
}

function verb({ file, frames }: PictureWish): string {
  if (isSheet(file)) return 'Make the sheet';
  if (isFilm(file)) return 'Make the film';
  return frames === 'range' ? 'Make the pictures' : 'Make the picture';
}
