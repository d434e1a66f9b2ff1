import type { JobCard, RendererCard } from '@fleet-rail/core';
import { ArrowLeft, Download, HandHelping, RotateCw, Trash2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { jobFileUrl, usePool, useRemoveJob, useTryAgain, type Pool } from '../../api/pool';
import { sentenceOf } from '../../api/request';
import type { RendererState } from '../../workers/pictures/picture-renderer';
import { useRenderer } from '../../workers/pictures/use-renderer';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { notify } from '../../ui/notices';
import { Page, PageHead } from '../../ui/page';
import { Hint } from '../../ui/panel';
import { FilmBar } from './film-bar';
import { Lamps } from './lamps';

const Title = styled.h1`
  flex: 1;
  font: 600 28px/1.1 ${LABEL_FONT};
`;

const Heading = styled.h2`
  margin: 28px 0 8px;
  font: 600 15px/1.3 ${LABEL_FONT};
  letter-spacing: 0.03em;
  color: ${({ theme }) => theme.quiet};
`;

const Rows = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  & > li + li {
    border-top: 1px solid ${({ theme }) => theme.hairline};
  }
`;

const RendererRow = styled.li`
  display: grid;
  grid-template-columns: 150px 110px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
  padding: 8px 14px;
  & > b {
    font-weight: 600;
  }
  & > span {
    color: ${({ theme }) => theme.quiet};
  }
`;

const JobRow = styled.li`
  display: grid;
  gap: 8px;
  padding: 12px 14px;
`;

const JobHead = styled.div`
  display: flex;
  align-items: baseline;
  gap: 12px;
  & > b {
    font-weight: 600;
  }
  & > span {
    flex: 1;
    color: ${({ theme }) => theme.quiet};
  }
`;

const KINDS: Record<RendererCard['kind'], string> = {
  desk: 'desk',
  window: 'window',
  server: 'server',
};

/** Renderers and jobs, as on a signal panel. */
export function PoolPage() {
  const [params] = useSearchParams();
  const asked = params.get('lend');
  const [lent, setLent] = useState(asked !== null);
  const name = asked ?? 'This window';
  const doing = useRenderer(lent, name, asked === null ? 'window' : 'server', null);
  const { data, error } = usePool();
  useCloseWhenLost(asked !== null, doing);
  useEffect(() => {
    document.title = 'Render pool – Fleet Rail';
  }, []);
  return (
    <Page>
      <PageHead>
        <Title>Render pool</Title>
        <Button onPress={() => setLent(!lent)}>
          {lent ? <X aria-hidden /> : <HandHelping aria-hidden />}{' '}
          {lent ? 'Stop rendering here' : 'Render in this window'}
        </Button>
        <Link to="/">
          <ArrowLeft aria-hidden size={14} /> Shots
        </Link>
      </PageHead>
      <Hint role="status">
        {lent ? sentenceOfState(doing) : 'Pictures and films of all shots, and what renders them.'}
      </Hint>
      {error && <Hint role="alert">{sentenceOf(error)}</Hint>}
      {data && <Panels pool={data} />}
    </Page>
  );
}

function Panels({ pool: { jobs, renderers } }: { pool: Pool }) {
  const runs = new Map(jobs.flatMap((job) => job.runs.map((run) => [run.id, { job, run }] as const)));
  return (
    <>
      <Heading>Renderers</Heading>
      {renderers.length === 0 ? (
        <Hint>No renderers. Render in this window, or start the server with FLEET_RAIL_RENDERERS=2.</Hint>
      ) : (
        <Rows aria-label="Renderers">
          {renderers.map(({ id, name, kind, run }) => (
            <RendererRow key={id} aria-label={name}>
              <b>{name}</b>
              <span>{KINDS[kind]}</span>
              <span>{whatIsDrawn(run === null ? undefined : runs.get(run))}</span>
            </RendererRow>
          ))}
        </Rows>
      )}
      <Heading>Pictures</Heading>
      {jobs.length === 0 ? (
        <Hint>No pictures yet. Start some at the Hand over step of a shot.</Hint>
      ) : (
        <Rows aria-label="Jobs">
          {jobs.map((job) => (
            <Job key={job.id} job={job} renderers={renderers} />
          ))}
        </Rows>
      )}
    </>
  );
}

function Job({ job, renderers }: { job: JobCard; renderers: readonly RendererCard[] }) {
  const remove = useRemoveJob();
  const again = useTryAgain();
  const take = () => remove.mutate(job.id, { onError: (error) => notify('error', sentenceOf(error)) });
  return (
    <JobRow aria-label={job.fileName}>
      <JobHead>
        <b>{job.fileName}</b>
        <span>
          {job.pictures} {job.pictures === 1 ? 'picture' : 'pictures'}, {job.width} × {job.height}
        </span>
        {job.state === 'done' && (
          <a href={jobFileUrl(job.id)} download={job.fileName}>
            <Download aria-hidden size={14} /> {((job.bytes ?? 0) / 1e6).toFixed(1)} MB
          </a>
        )}
        {job.problem && (
          <Button
            aria-label={`Try ${job.fileName} again`}
            isPending={again.isPending}
            onPress={() => again.mutate(job.id, { onError: (error) => notify('error', sentenceOf(error)) })}
          >
            <RotateCw aria-hidden /> Try again
          </Button>
        )}
        <IconButton label={`${job.state === 'done' ? 'Delete' : 'Cancel'} ${job.fileName}`} onPress={take}>
          {job.state === 'done' ? <Trash2 aria-hidden /> : <X aria-hidden />}
        </IconButton>
      </JobHead>
      <Lamps job={job} renderers={renderers} />
      <FilmBar job={job} />
      {job.problem && <Hint role="alert">{job.problem}</Hint>}
    </JobRow>
  );
}

function whatIsDrawn(found: { job: JobCard; run: JobCard['runs'][number] } | undefined): string {
  if (!found) return 'waiting';
  const { job, run } = found;
  if (run.kind === 'join') return `joining ${job.fileName}`;
  return `drawing pictures ${run.first + 1} to ${run.first + run.count} of ${job.fileName}`;
}

function sentenceOfState(state: RendererState | null): string {
  if (state === null || state.doing === 'waits') return 'This window renders. Waiting for work.';
  if (state.doing === 'lost the server') return 'The server does not answer; trying again.';
  if (state.doing === 'opens') return 'Loading a shot.';
  return `${state.doing === 'joins' ? 'Joining' : 'Drawing'} pictures: ${state.done} of ${state.of}.`;
}

/** Milliseconds after which a browser that the server started, and that has lost it, ends. */
const LOST = 30_000;

function useCloseWhenLost(mine: boolean, doing: RendererState | null): void {
  const lost = mine && doing?.doing === 'lost the server';
  useEffect(() => {
    if (!lost) return;
    const wait = setTimeout(() => window.close(), LOST);
    return () => clearTimeout(wait);
  }, [lost]);
}
