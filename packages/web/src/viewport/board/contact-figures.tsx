import type { Rider, SampledGauge } from '@fleet-rail/core';
import styled from 'styled-components';
import { useDesk } from '../../state/desk-store';
import { wheelPlace } from '../../ui/words/wheel-place';
import { Figure, Figures, fixed } from './figures';

const Table = styled(Figures)`
  padding-top: 6px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
`;

/** Below this speed a sliding wheel is invisible, m/s. */
const SLIP = 0.005;
const SHOWN: ReadonlySet<SampledGauge['kind']> = new Set(['turns', 'phase', 'roll']);

/** Figures of a rider's wheels, walk and feet at the shown frame. */
export function ContactFigures({ rider }: { rider: Rider }) {
  const evaluation = useDesk((state) => state.evaluation);
  const frame = useDesk((state) => state.frame);
  const gauges = evaluation?.riders.get(rider.id)?.gauges ?? [];
  if (!evaluation || !gauges.some(({ kind }) => SHOWN.has(kind))) return null;
  const at = (gauge: SampledGauge) => valueAt(gauge.values, (frame - evaluation.first) / evaluation.step);
  const of = (kind: SampledGauge['kind']) => gauges.filter((gauge) => gauge.kind === kind);
  const wheel = (node: string) => rider.wheels.find((one) => one.node === node);
  const named = (node: string) => {
    const found = wheel(node);
    return found ? wheelPlace(rider, found) : node;
  };
  const slips = Math.max(0, ...of('slip').map((gauge) => Math.abs(at(gauge))));
  return (
    <Table aria-label="Contact">
      {of('turns').map((gauge, i) => (
        <Figure key={`turns ${i}`} name={named(gauge.part)} value={`${fixed(at(gauge), 3)} turns`} />
      ))}
      {of('steer').map((gauge, i) => (
        <Figure
          key={`steer ${i}`}
          name={`Steer ${named(gauge.part).toLowerCase()}`}
          value={`${fixed(at(gauge), 1)}°`}
        />
      ))}
      {slips > SLIP && <Figure name="Sideways slide" value={`${fixed(slips, 2)} m/s`} />}
      {of('steering').map((gauge) => (
        <Figure key="steering" name="Steering wheel" value={`${fixed(at(gauge), 0)}°`} />
      ))}
      {of('roll').map((gauge) => (
        <Figure key="roll" name="Body lean" value={`${fixed(at(gauge), 1)}°`} />
      ))}
      {of('phase').map((gauge) => (
        <Figure key="phase" name="Gait" value={`${fixed(100 * (at(gauge) - Math.floor(at(gauge))), 0)} %`} />
      ))}
      {of('cadence').map((gauge) => (
        <Figure key="cadence" name="Steps" value={`${fixed(at(gauge), 1)} /s`} />
      ))}
      {of('slide').map((gauge) => (
        <Figure
          key={`slide ${gauge.part}`}
          name={`Slide ${gauge.part}`}
          value={`${fixed(at(gauge), 1)} mm`}
        />
      ))}
    </Table>
  );
}

/** A value between two samples. */
function valueAt(values: Float64Array, sample: number): number {
  const held = Math.min(values.length - 1, Math.max(0, sample));
  const i = Math.floor(held);
  const next = Math.min(values.length - 1, i + 1);
  return values[i] + (held - i) * (values[next] - values[i]);
}
