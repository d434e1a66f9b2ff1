import { useQuery } from '@tanstack/react-query';
import { request } from '../../api/request';
import { Choice } from '../../ui/choice';
import { FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { askedFor, type GivenOut } from './export-choice';

interface Fields {
  readonly given: GivenOut;
  readonly chosen: readonly string[];
  readonly onChange: (given: GivenOut) => void;
}

/** Contents of the files. */
export function GivenOutFields({ given, chosen, onChange }: Fields) {
  const { range, loop, riders } = useDesk((state) => state.shot);
  const change = (part: Partial<GivenOut>) => onChange({ ...given, ...part });
  const badges = riders.filter(({ id }) => chosen.includes(id)).map(({ badge }) => badge);
  return (
    <>
      <Choice
        label="Riders"
        options={[
          { id: 'all', name: 'All riders' },
          { id: 'chosen', name: badges.length > 3 ? `${badges.length} chosen` : `Only ${badges.join(', ')}` },
        ]}
        value={badges.length > 0 ? given.riders : 'all'}
        onChange={(which) => change({ riders: which as GivenOut['riders'] })}
      />
      <FieldPair>
        <QuantityField
          label="From frame"
          kind="frame"
          whole
          min={range.first}
          max={given.last}
          value={given.first}
          onChange={(first) => change({ first })}
        />
        <QuantityField
          label="To frame"
          kind="frame"
          whole
          min={given.first}
          max={range.last}
          value={given.last}
          onChange={(last) => change({ last })}
        />
      </FieldPair>
      {loop && (
        <Tick isSelected={given.closing} onChange={(closing) => change({ closing })}>
          Add a closing key for loops
        </Tick>
      )}
    </>
  );
}

/** Facts of the GLB, from the server. */
interface GlbFacts {
  readonly bytes: number;
  readonly keys: number;
  readonly of: number;
  readonly metres: number;
  readonly turn: number;
}

/** Keys that may be left out, and the result. */
export function ThinningFields({
  given,
  chosen,
  onChange,
  shotId,
  flush,
}: Fields & { shotId: string; flush: () => Promise<unknown> }) {
  const shot = useDesk((state) => state.shot);
  const change = (part: Partial<GivenOut>) => onChange({ ...given, ...part });
  const asked = askedFor(given, chosen, 'glb');
  const told = useQuery({
    queryKey: ['about', shotId, asked, shot],
    enabled: given.within > 0,
    // A shot is large and compared by identity.
    queryKeyHashFn: () => `${shotId} ${asked} ${numberOf(shot)}`,
    retry: false,
    gcTime: 60_000,
    queryFn: async ({ signal }) => {
      await flush();
      return request<GlbFacts>('GET', `/api/shots/${shotId}/files/about?${asked}`, undefined, signal);
    },
  });
  return (
    <>
      <FieldPair>
        <QuantityField
          label="Tolerance"
          kind="length"
          min={0}
          max={1}
          step={0.0005}
          digits={4}
          value={given.within}
          onChange={(within) => change({ within })}
        />
        {given.within > 0 && (
          <QuantityField
            label="Angle tolerance"
            kind="angle"
            min={0}
            max={180}
            step={0.05}
            digits={3}
            value={given.turns ?? (given.within * 180) / Math.PI}
            onChange={(turns) => change({ turns })}
          />
        )}
      </FieldPair>
      <Hint aria-live="polite">{given.within === 0 ? 'Full keys.' : inWords(told)}</Hint>
      <Tick isSelected={given.clips} onChange={(clips) => change({ clips })}>
        Include the models’ clips
      </Tick>
    </>
  );
}

const numbers = new WeakMap<object, number>();
let next = 0;
function numberOf(shot: object): number {
  const known = numbers.get(shot) ?? next++;
  numbers.set(shot, known);
  return known;
}

function inWords({
  data,
  error,
  isFetching,
}: {
  data?: GlbFacts;
  error: Error | null;
  isFetching: boolean;
}): string {
  if (isFetching) return 'Thinning keys…';
  if (error) return error.message;
  if (!data) return '';
  const { bytes, keys, of, metres, turn } = data;
  const degrees = (turn * 180) / Math.PI;
  return `${sizeInWords(bytes)}: ${keys.toLocaleString('en-US')} of ${of.toLocaleString('en-US')} keys kept. Position within ${lengthInWords(metres)}, angle within ${degrees.toPrecision(2)}°.`;
}

const sizeInWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

const lengthInWords = (metres: number): string =>
  metres < 0.01
    ? `${Number((metres * 1e3).toPrecision(2))} mm`
    : `${Number((metres * 100).toPrecision(2))} cm`;
