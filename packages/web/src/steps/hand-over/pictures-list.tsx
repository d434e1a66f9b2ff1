import type { JobCard } from '@fleet-rail/core';
import { Download, RotateCw, Trash2, X } from 'lucide-react';
import styled from 'styled-components';
import { jobFileUrl, jobPictureUrl, useRemoveJob, useTryAgain } from '../../api/pool';
import { sentenceOf } from '../../api/request';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Hint } from '../../ui/panel';
import { Progress } from '../../ui/progress';

const Item = styled.li`
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Thumb = styled.div`
  display: grid;
  place-items: center;
  height: 44px;
  overflow: hidden;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 4px;
  background: ${({ theme }) => theme.wash};
  & > img {
    display: block;
    max-width: 100%;
    max-height: 100%;
    object-fit: contain;
  }
`;

const About = styled.div`
  display: grid;
  gap: 3px;
  min-width: 0;
  & > b {
    overflow: hidden;
    font-weight: 500;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** The pictures of a shot that were made, or are being made, the newest first. */
export function PicturesList({ jobs }: { jobs: readonly JobCard[] }) {
  const remove = useRemoveJob();
  const again = useTryAgain();
  if (jobs.length === 0) return null;
  const take = (job: JobCard) =>
    remove.mutate(job.id, {
      onSuccess: () => job.state !== 'done' && notify('done', 'Cancelled; nothing was made.'),
      onError: (error) => notify('error', sentenceOf(error)),
    });
  return (
    <List aria-label="Finished pictures">
      {jobs.map((job) => (
        <Item key={job.id} aria-label={job.fileName}>
          <Thumb>
            {job.shown !== null && (
              <img
                src={jobPictureUrl(job.id, job.shown)}
                alt={`Picture ${job.shown + 1} of ${job.pictures}`}
              />
            )}
          </Thumb>
          <About>
            <b title={job.fileName}>{job.fileName}</b>
            {job.state !== 'done' && <Progress label="Pictures" part={partOf(job)} />}
            <Hint role={job.state === 'drawing' ? 'status' : undefined}>{sentence(job)}</Hint>
            {job.problem && <Hint role="alert">{job.problem}</Hint>}
          </About>
          <div>
            {job.state === 'done' && (
              <IconButton label={`Download ${job.fileName}`} onPress={() => downloadJob(job)}>
                <Download aria-hidden />
              </IconButton>
            )}
            {job.problem && (
              <IconButton
                label={`Try ${job.fileName} again`}
                onPress={() =>
                  again.mutate(job.id, { onError: (error) => notify('error', sentenceOf(error)) })
                }
              >
                <RotateCw aria-hidden />
              </IconButton>
            )}
            <IconButton
              label={job.state === 'done' ? `Delete ${job.fileName}` : 'Cancel the pictures'}
              onPress={() => take(job)}
            >
              {job.state === 'done' ? <Trash2 aria-hidden /> : <X aria-hidden />}
            </IconButton>
          </div>
        </Item>
      ))}
    </List>
  );
}

/** Lets the browser fetch and keep a job's file. */
export function downloadJob({ id, fileName }: JobCard): void {
  const link = document.createElement('a');
  link.href = jobFileUrl(id);
  link.download = fileName;
  link.click();
}

/** How far a job is, 0 to 1; joining is a tenth of it. */
export function partOf({ pictures, drawn, runs }: JobCard): number {
  const joined = runs.find(({ kind }) => kind === 'join');
  return (
    0.9 * (drawn / pictures) +
    0.1 * (joined && joined.count > 0 ? Math.min(1, joined.done / joined.count) : 0)
  );
}

function sentence(job: JobCard): string {
  const { state, bytes, pictures, drawn, runs } = job;
  if (state === 'paused') return `Paused with ${drawn} of ${pictures} pictures drawn.`;
  if (state === 'done') return `${job.width} × ${job.height}, ${((bytes ?? 0) / 1e6).toFixed(1)} MB`;
  if (drawn === pictures) return 'Joining the pictures.';
  const left = secondsLeft(job);
  if (drawn === 0)
    return runs.some((run) => run.state === 'taken') ? 'Getting ready.' : 'Waiting for a renderer.';
  const more =
    left === null ? '' : `, about ${left < 90 ? `${Math.ceil(left)} s` : `${Math.ceil(left / 60)} min`} more`;
  return `Picture ${drawn} of ${pictures}${more}.`;
}

function secondsLeft({ createdAt, drawn, pictures }: JobCard): number | null {
  const gone = (Date.now() - Date.parse(createdAt)) / 1e3;
  return drawn > 0 ? ((pictures - drawn) * gone) / drawn : null;
}
