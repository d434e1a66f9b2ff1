import { lastAtMost } from '../../geometry/math/search.js';

/** Layout of a piece: begin (s), distance (m), speed (m/s), constant acceleration (m/s²), and the integral so far. */
const SIZE = 5;

/** State of a run at a time: distance, speed, acceleration, and the integral of distance over time (m s). */
export interface MotionState {
  distance: number;
  speed: number;
  rate: number;
  sum: number;
}

/** A run in pieces of even acceleration, put together from its start on. */
export class Run {
  private data = new Float64Array(SIZE * 64);
  private count = 0;
  /** Seconds until it ends. */
  seconds = 0;
  /** Its end, and the speed there. */
  place: number;
  speed: number;
  /** The integral of place over all of it. */
  sum = 0;

  constructor(
    readonly start: number,
    speed: number,
  ) {
    this.place = start;
    this.speed = speed;
  }

  /** On to a place further on at a speed there, evenly accelerated; one of the two speeds is above 0. */
  to(place: number, speed: number): void {
    const seconds = (2 * (place - this.place)) / (this.speed + speed);
    this.piece(seconds, (speed - this.speed) / seconds);
    this.place = place;
    this.speed = speed;
  }

  /** Adds a stop of a number of seconds. */
  stand(seconds: number): void {
    if (seconds > 0) this.piece(seconds, 0);
  }

  /** The stops in it: from and to which second, and where. */
  stops(): { from: number; to: number; place: number }[] {
    const stops = [];
    for (let i = 0; i < this.count; i++) {
      const at = SIZE * i;
      if (this.data[at + 2] !== 0 || this.data[at + 3] !== 0) continue;
      const to = i + 1 < this.count ? this.data[at + SIZE] : this.seconds;
      stops.push({ from: this.data[at], to, place: this.data[at + 1] });
    }
    return stops;
  }

  /** Writes what it does at a time from 0 to its end; outside, it runs on at the speeds of its ends. */
  at(time: number, out: MotionState): void {
    const { data, count } = this;
    if (time >= this.seconds || count === 0) {
      const x = time - this.seconds;
      out.rate = 0;
      out.speed = this.speed;
      out.distance = this.place + x * this.speed;
      out.sum = this.sum + x * (this.place + (x * this.speed) / 2);
      return;
    }
    const at = SIZE * lastAtMost(data, time, count, SIZE);
    const x = time - data[at];
    const rate = time < 0 ? 0 : data[at + 3];
    out.rate = rate;
    out.speed = data[at + 2] + rate * x;
    out.distance = data[at + 1] + x * (data[at + 2] + (x * rate) / 2);
    out.sum = data[at + 4] + x * (data[at + 1] + x * (data[at + 2] / 2 + (x * rate) / 6));
  }

  private piece(seconds: number, rate: number): void {
    const at = SIZE * this.count++;
    if (at === this.data.length) {
      const more = new Float64Array(2 * at);
      more.set(this.data);
      this.data = more;
    }
    const { data } = this;
    data[at] = this.seconds;
    data[at + 1] = this.place;
    data[at + 2] = this.speed;
    data[at + 3] = rate;
    data[at + 4] = this.sum;
    this.sum += seconds * (this.place + seconds * (this.speed / 2 + (seconds * rate) / 6));
    this.seconds += seconds;
  }
}
