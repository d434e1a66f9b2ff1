/** Milliseconds without a change after which what is drawn rests. */
const REST = 300;

/** What is drawn by a schedule. */
export interface Scheduled {
  /** Whether there is something to draw that no picture was of yet. */
  hasNew(): boolean;
  /** Asks for all that the next picture is drawn by, without drawing it. */
  prepare(): void;
  /**
   * Draws; answers whether something was drawn by what had to be made for it first.
   *
   * @param first whether there was no picture before: a quick one is wanted
   * @param rests whether nothing has changed for a moment: what takes longer is wanted too
   */
  draw(first: boolean, rests: boolean): boolean;
  /** Nothing has changed for a moment: answers whether that is drawn in another way. */
  rest(): boolean;
}

/** Goes on when all that the graphics side was asked for is done. */
export type WhenDone = (goOn: () => void) => void;

/**
 * When pictures are drawn: at the page's next frame after a change; where the graphics side has to make something for one first, as
 * soon as it has, so that the page does not stand still meanwhile.
 */
export class DrawSchedule {
  private request = 0;
  private first = true;
  /** Whether the last picture was drawn by something new: most likely the next is as well. */
  private grew = false;
  private rests = false;
  private over = false;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly scheduled: Scheduled,
    private readonly whenDone: WhenDone,
  ) {}

  /** Something has changed. */
  ask(): void {
    this.rests = false;
    if (this.request === 0 && !this.over) this.request = requestAnimationFrame(() => this.drawWhenReady());
  }

  /** Nothing is drawn any more, whatever still comes: a model may. */
  dispose(): void {
    this.over = true;
    cancelAnimationFrame(this.request);
    clearTimeout(this.resting);
  }

  private drawWhenReady(): void {
    const { scheduled, whenDone } = this;
    if (this.first || !(this.grew || scheduled.hasNew())) {
      this.draw();
      return;
    }
    whenDone(() => {
      scheduled.prepare();
      whenDone(() => this.draw());
    });
  }

  private draw(): void {
    this.request = 0;
    clearTimeout(this.resting);
    if (!this.rests) this.resting = setTimeout(() => this.rest(), REST);
    const { first } = this;
    this.first = false;
    this.grew = this.scheduled.draw(first, this.rests);
    // All that the first left out.
    if (first) this.ask();
  }

  private rest(): void {
    if (this.request !== 0) return;
    this.rests = true;
    if (!this.scheduled.rest()) return;
    this.request = requestAnimationFrame(() => this.whenDone(() => this.draw()));
  }
}
