import type { JobCard, BatchCard, RendererCard } from '@fleet-rail/core';
import styled from 'styled-components';

const Row = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

/** Dark, amber while drawn, lit when given back; vermilion at its rim once it was lost, and all of it while it is paused. */
const Lamp = styled.li<{ $state: BatchCard['state']; $lost: boolean; $wide: boolean }>`
  width: ${({ $wide }) => ($wide ? 26 : 14)}px;
  height: 14px;
  border: 2px solid
    ${({ theme, $lost, $state }) => ($lost ? theme.signal : $state === 'waiting' ? theme.hairline : 'transparent')};
  border-radius: 7px;
  background: ${({ theme, $state }) =>
    ({ given: theme.settled, taken: '#E0A02E', paused: theme.signal, waiting: theme.wash })[$state]};
`;

/** A lamp for each run of a job, and a long one for its joining. */
export function Lamps({ job, renderers }: { job: JobCard; renderers: readonly RendererCard[] }) {
  const names = new Map(renderers.map(({ id, name }) => [id, name]));
  return (
    <Row aria-label="Batches">
      {job.runs.map((run) => {
        const said = sentence(run, names.get(run.renderer ?? '') ?? null);
        return (
          <Lamp
            key={run.id}
            $state={run.state}
            $lost={run.lost > 0}
            $wide={run.kind === 'join'}
            aria-label={said}
            title={said}
          />
        );
      })}
    </Row>
  );
}

function sentence({ kind, first, count, state, lost, done }: BatchCard, renderer: string | null): string {
  const what = kind === 'join' ? 'Joining' : `Pictures ${first + 1} to ${first + count}`;
  const how = {
    waiting: 'waits',
    taken: `${renderer ?? 'somebody'} has ${done} of ${count}`,
    given: 'done',
    paused: 'paused',
  }[state];
  return `${what}: ${how}${lost > 0 ? `; lost ${lost === 1 ? 'once' : `${lost} times`}` : ''}`;
}
