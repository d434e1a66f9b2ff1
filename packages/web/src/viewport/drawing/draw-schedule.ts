/** Milliseconds without a change after which what is drawn rests. */
const REST = 300;

/** Work of a schedule. */
export interface Scheduled {
  /** Whether there is something to draw that no picture was of yet. */
  hasNew(): boolean;
  /** Asks for all that the next picture is drawn by, without drawing it. */
  prepare(): void;
  /**
   * Draws; returns whether something was drawn that had to be made for it first.
   *
   * @param first whether there was no picture before: a quick one is wanted
   * @param rests whether nothing has changed for a moment: what takes longer is wanted too
   */
  draw(first: boolean, rests: boolean): boolean;
  /** Puts before the eyes what was drawn. */
  show(): void;
  /** Nothing has changed for a moment: answers whether that is drawn in another way. */
  rest(): boolean;
}

/** Goes on when all that the graphics side was asked for is done. */
export type WhenDone = (goOn: () => void) => void;

/**
 * Schedules pictures: at the page's next frame after a change; if the graphics side has to prepare something first,
 * as soon as it has, so that the page does not stop meanwhile. They are shown directly, or held until the graphics
 * side is done.
 */
export class DrawSchedule {
  private request = 0;
  /** From when one is asked for until it is shown. */
  private busy = false;
  /** Whether something has changed since the last was drawn. */
  private asked = false;
  private first = true;
  /** Whether the last picture was drawn by something new: most likely the next is as well. */
  private grew = false;
  private rests = false;
  private over = false;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly scheduled: Scheduled,
    private readonly whenDone: WhenDone,
    private readonly held: boolean,
  ) {}

  /** Something has changed. */
  ask(): void {
    this.rests = false;
    this.asked = true;
    if (this.busy) return;
    this.busy = true;
    this.nextFrame(() => this.drawWhenReady());
  }

  /** Nothing is drawn any more, whatever still comes: a model may. */
  dispose(): void {
    this.over = true;
    cancelAnimationFrame(this.request);
    clearTimeout(this.resting);
  }

  private nextFrame(goOn: () => void): void {
    if (!this.over) this.request = requestAnimationFrame(goOn);
  }

  private drawWhenReady(): void {
    const { scheduled, whenDone } = this;
    if (this.first || !(this.grew || scheduled.hasNew())) {
      this.draw();
      return;
    }
    whenDone(() => {
      this.attempt(() => scheduled.prepare());
      whenDone(() => this.draw());
    });
  }

  private draw(): void {
    if (this.over) return;
    clearTimeout(this.resting);
    const { first } = this;
    this.first = this.asked = false;
    this.attempt(() => (this.grew = this.scheduled.draw(first, this.rests)));
    // All that the first left out.
    this.asked ||= first;
    if (this.held) this.whenDone(() => this.nextFrame(() => this.show()));
    else this.show();
  }

  private show(): void {
    this.busy = false;
    if (!this.rests) this.resting = setTimeout(() => this.rest(), REST);
    // With the next frame: this one is to find nothing more to do than to show it.
    if (this.asked) this.ask();
    this.scheduled.show();
  }

  /** An error stops nothing that comes after it. */
  private attempt(work: () => void): void {
    try {
      work();
    } catch (error) {
      this.busy = false;
      throw error;
    }
  }

  private rest(): void {
    if (this.busy) return;
    this.rests = true;
    if (!this.scheduled.rest()) return;
    this.busy = true;
    this.nextFrame(() => this.whenDone(() => this.draw()));
  }
}
