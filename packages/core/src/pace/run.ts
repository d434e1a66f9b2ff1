/** A run in pieces of even acceleration: at the start of each piece, and at the end of the last. */
export interface Run {
  /** Seconds, from 0. */
  readonly times: Float64Array;
  /** Metres along the track. */
  readonly places: Float64Array;
  /** m/s. */
  readonly speeds: Float64Array;
  /** m/s² through each piece. */
  readonly rates: Float64Array;
  /** The integral of place over time from the run's start, m s. */
  readonly sums: Float64Array;
}

/** What a run is doing at a time: place, speed, acceleration, and the integral of place. */
export interface RunState {
  place: number;
  speed: number;
  rate: number;
  sum: number;
}

/** Builds a run piece by piece. */
export class RunBuilder {
  private readonly times = [0];
  private readonly places: number[];
  private readonly speeds: number[];
  private readonly rates: number[] = [];
  private readonly sums = [0];

  /** @param gentle the acceleration from one stop to the next where there is no place between them, m/s² */
  constructor(
    place: number,
    speed: number,
    private readonly gentle: number,
  ) {
    this.places = [place];
    this.speeds = [speed];
  }

  get time(): number {
    return this.times[this.times.length - 1];
  }

  /** On to a place further on at a speed there, evenly accelerated. */
  to(place: number, speed: number): void {
    const [from, before] = this.end();
    if (before + speed === 0) {
      const peak = Math.sqrt(this.gentle * (place - from));
      this.to((from + place) / 2, peak);
      this.to(place, 0);
      return;
    }
    const seconds = (2 * (place - from)) / (before + speed);
    this.piece(seconds, place, speed, (speed - before) / seconds);
  }

  /** Stands for so many seconds. */
  stand(seconds: number): void {
    if (seconds > 0) this.piece(seconds, this.end()[0], 0, 0);
  }

  run(): Run {
    const { times, places, speeds, rates, sums } = this;
    return {
      times: Float64Array.from(times),
      places: Float64Array.from(places),
      speeds: Float64Array.from(speeds),
      rates: Float64Array.from(rates),
      sums: Float64Array.from(sums),
    };
  }

  private end(): [number, number] {
    return [this.places[this.places.length - 1], this.speeds[this.speeds.length - 1]];
  }

  private piece(seconds: number, place: number, speed: number, rate: number): void {
    const [from, before] = this.end();
    const last = this.sums[this.sums.length - 1];
    this.sums.push(last + seconds * (from + seconds * (before / 2 + (seconds * rate) / 6)));
    this.times.push(this.time + seconds);
    this.places.push(place);
    this.speeds.push(speed);
    this.rates.push(rate);
  }
}

/** How long a run takes, seconds. */
export function secondsOf({ times }: Run): number {
  return times[times.length - 1];
}

/** Writes what a run does at a time from 0 to its end; outside, its ends run on at their speeds. */
export function runState(run: Run, time: number, out: RunState): void {
  const { times, places, speeds, rates, sums } = run;
  const last = times.length - 1;
  let low = 0;
  if (time >= times[last]) low = last;
  else {
    let high = last - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (times[middle] <= time) low = middle;
      else high = middle - 1;
    }
  }
  const x = time - times[low];
  const rate = low === last || time < 0 ? 0 : rates[low];
  out.rate = rate;
  out.speed = speeds[low] + rate * x;
  out.place = places[low] + x * (speeds[low] + (x * rate) / 2);
  out.sum = sums[low] + x * (places[low] + x * (speeds[low] / 2 + (x * rate) / 6));
}
