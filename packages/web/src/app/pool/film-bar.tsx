import type { JobCard } from '@fleet-rail/core';
import styled from 'styled-components';

const Film = styled.div`
  position: relative;
  height: 16px;
  overflow: hidden;
  border-radius: 3px;
  background: ${({ theme }) => theme.wash};
  & > div {
    position: absolute;
    top: 0;
    bottom: 0;
    background: ${({ theme }) => theme.ink};
  }
  /* The holes along both edges. */
  &::after {
    content: '';
    position: absolute;
    inset: 2px 0;
    background:
      repeating-linear-gradient(90deg, transparent 0 5px, ${({ theme }) => theme.panel} 5px 9px) top / 100%
        3px no-repeat,
      repeating-linear-gradient(90deg, transparent 0 5px, ${({ theme }) => theme.panel} 5px 9px) bottom / 100%
        3px no-repeat;
  }
`;

/** A job's pictures as a film that fills where they are drawn, from left to right. */
export function FilmBar({ job }: { job: JobCard }) {
  const percent = (part: number) => `${(100 * part) / job.pictures}%`;
  return (
    <Film role="img" aria-label={`${job.drawn} of ${job.pictures} pictures drawn`}>
      {job.state === 'done' && <div style={{ left: 0, width: '100%' }} />}
      {job.state !== 'done' &&
        job.runs
          .filter(({ kind, done }) => kind === 'draw' && done > 0)
          .map(({ id, first, done }) => (
            <div key={id} style={{ left: percent(first), width: percent(done) }} />
          ))}
    </Film>
  );
}
