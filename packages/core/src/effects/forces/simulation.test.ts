import fc from 'fast-check';
import { runToEnd } from '../../geometry/math/run-to-end.js';
import { KeptSteps, type Stepped } from './simulation.js';

/** A running sum of inputs that counts its steps and can return to earlier ones. */
class Sum implements Stepped {
  readonly size = 1;
  steps = 0;
  private value = 0;
  begin([first]: Float64Array, out: Float64Array, at: number): void {
    this.value = first;
    out[at] = this.value;
  }
  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void {
    this.steps++;
    this.value = this.value * 1.000001 + before[0] + 2 * after[0];
    out[at] = this.value;
  }
  rounded(value: number): number {
    return value;
  }
  save(): Uint8Array {
    return new Uint8Array(Float64Array.of(this.value).buffer);
  }
  load(saved: Uint8Array): void {
    [this.value] = new Float64Array(saved.slice().buffer);
  }
  close(): void {
    this.value = NaN;
  }
}

const inputsOf = (values: readonly number[]) => (frame: number, out: Float64Array, at: number) => {
  out[at] = values[frame];
};
const run = (kept: KeptSteps, values: readonly number[]) => {
  runToEnd(kept.advance(values.length, inputsOf(values)));
  return [...kept.read().subarray(0, values.length)];
};

it('whatever was edited before, the states are those of a run from the beginning', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 2, maxLength: 80 }),
      fc.array(fc.tuple(fc.nat(79), fc.double({ min: -10, max: 10, noNaN: true })), { maxLength: 6 }),
      (begun, edits) => {
        const kept = new KeptSteps(new Sum(), 1);
        let values = begun;
        run(kept, values);
        for (const [at, value] of edits) {
          values = values.map((old, i) => (i === at % values.length ? value : old));
          expect(run(kept, values)).toEqual(run(new KeptSteps(new Sum(), 1), values));
        }
      },
    ),
  );
});

it('an edit of something late steps on from what was saved before it', () => {
  const sum = new Sum();
  const kept = new KeptSteps(sum, 1);
  const values = Array.from({ length: 480 }, (_, i) => i);
  run(kept, values);
  expect(sum.steps).toBe(479);
  const changes = kept.changes;
  run(kept, values);
  expect([sum.steps, kept.changes]).toEqual([479, changes]);
  run(
    kept,
    values.map((value, i) => (i >= 470 ? -value : value)),
  );
  // The last ten, and at most as many again as lie between two that were saved.
  expect(sum.steps - 479).toBeLessThanOrEqual(10 + 12);
});
