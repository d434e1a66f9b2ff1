import type { Shot } from '@fleet-rail/core';
import { createStore } from 'zustand/vanilla';
import { Refusal, sentenceOf } from '../../api/request';
import { openShot, revisionOf, saveShot } from '../../api/shots';
import type { DeskStore } from '../../state/desk-store';
import { editsAnswered } from '../../commands/pending-edits';
import { dropDraft, keepDraft } from './drafts';

/** State of the desk against the server. */
export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'unsaved' }
  | { readonly kind: 'saving' }
  /** The server has not answered for some seconds; it goes on by itself. */
  | { readonly kind: 'slow' }
  /** Could not be saved now; tried again by itself. */
  | { readonly kind: 'waiting'; readonly message: string }
  /** Saved elsewhere since: the animator has to choose a version. */
  | { readonly kind: 'conflict'; readonly message: string }
  /** The server does not take the document. */
  | { readonly kind: 'refused'; readonly message: string };

const PAUSE_MS = 500;
const RETRY_MS = 3_000;
const SLOW_MS = 5_000;

/** A save on its way: after an answer that was lost the very same one is sent again. */
interface Sending {
  readonly name: string;
  readonly shot: Shot;
}

/**
 * Sends the desk's document to the server a moment after each edit, with the revision it was based
 * on. Until the server has it, it is kept as a draft in the browser.
 */
export class Autosave {
  readonly state = createStore<SaveState>(() => ({ kind: 'saved' }));
  private saved: Shot;
  private revision: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: Promise<void> | null = null;
  /** Save that was sent and not answered yet. */
  private sending: Sending | null = null;
  private readonly unsubscribe: () => void;

  constructor(
    private readonly shotId: string,
    private readonly desk: DeskStore,
    start: { revision: number; document: Shot },
  ) {
    this.saved = start.document;
    this.revision = start.revision;
    this.unsubscribe = desk.subscribe(({ shot }, before) => {
      if (shot !== before.shot) this.noteChange();
    });
  }

  /** Ends with the desk; what is not saved yet is sent on its way, unless the desk never came to be. */
  close(flush: boolean): void {
    clearTimeout(this.timer);
    this.unsubscribe();
    if (flush) void editsAnswered(this.desk).then(() => this.run());
  }

  /** The revision that the desk's document is based on. */
  get basedOn(): number {
    return this.revision;
  }

  /** Takes up edits that were already there when the desk was opened. */
  noteChange(): void {
    const { shot } = this.desk.getState();
    this.keep(shot);
    if (this.state.getState().kind === 'conflict') return;
    this.put({ kind: shot === this.saved ? 'saved' : 'unsaved' });
    this.schedule(PAUSE_MS);
  }

  /** Marks the desk's document as made on an older save than the server's. */
  noteConflict(message: string): void {
    clearTimeout(this.timer);
    this.put({ kind: 'conflict', message });
  }

  /**
   * Saves now, if there is anything to save, and with it the edits that the worker has not answered yet.
   *
   * @throws Error with a sentence where it could not be saved
   */
  async flush(): Promise<void> {
    await editsAnswered(this.desk);
    clearTimeout(this.timer);
    await this.run();
    const state = this.state.getState();
    if (state.kind !== 'saved')
      throw new Error('message' in state ? state.message : 'The shot is not saved yet.');
  }

  /**
   * Checks whether the shot was saved elsewhere, as on return to a tab. A desk without edits continues from that
   * save; one with edits is in conflict.
   */
  async lookForNewer(): Promise<void> {
    if (this.state.getState().kind === 'conflict' || this.running !== null) return;
    const kept = await openShot(this.shotId).catch(() => null);
    // An edit or a save may have come while the answer was on its way.
    if (kept === null || kept.revision <= this.revision || this.running !== null) return;
    if (this.sending !== null && kept.save === this.sending.name) {
      this.answered(this.sending, kept.revision);
      this.schedule(0);
      return;
    }
    if (this.desk.getState().shot === this.saved) {
      await this.adoptSaved('Changes from elsewhere', kept.revision, kept.document);
    } else {
      this.noteConflict('A newer version of this shot was saved in another window.');
    }
  }

  /** The same for every few seconds: asks for no more than how often it was saved. */
  async lookForSaves(): Promise<void> {
    if (this.state.getState().kind === 'conflict' || this.running !== null) return;
    const kept = await revisionOf(this.shotId).catch(() => null);
    if (kept !== null && kept.revision > this.revision) await this.lookForNewer();
  }

  /** After a conflict: goes on from what the server has. What was on the desk is one undo away. */
  async takeSaved(): Promise<void> {
    const kept = await openShot(this.shotId);
    await this.adoptSaved('Use the saved shot', kept.revision, kept.document);
  }

  /** Goes on from a document that the server keeps; what was on the desk is one undo away. */
  async adoptSaved(label: string, revision: number, document: Shot): Promise<void> {
    this.saved = document;
    this.revision = revision;
    this.sending = null;
    // Out of a conflict first, so that the change is noted as one that needs no save.
    this.put({ kind: 'saved' });
    this.desk.getState().replace(label, document);
    clearTimeout(this.timer);
    await dropDraft(this.shotId);
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.run(), ms);
  }

  private run(): Promise<void> {
    this.running ??= this.saveAll().finally(() => {
      this.running = null;
    });
    return this.running;
  }

  private async saveAll(): Promise<void> {
    while (this.desk.getState().shot !== this.saved || this.sending !== null) {
      if (this.state.getState().kind === 'conflict') return;
      const { shot } = this.desk.getState();
      this.sending ??= { name: crypto.randomUUID(), shot };
      this.keep(shot);
      this.put({ kind: 'saving' });
      const slow = setTimeout(() => this.put({ kind: 'slow' }), SLOW_MS);
      try {
        const { name, shot: sent } = this.sending;
        const { revision } = await saveShot(this.shotId, this.revision, sent, name);
        this.answered(this.sending, revision);
      } catch (error) {
        this.fail(error);
        return;
      } finally {
        clearTimeout(slow);
      }
    }
    this.put({ kind: 'saved' });
    await dropDraft(this.shotId);
    // An edit may have come while the draft went: it is a draft again.
    if (this.desk.getState().shot !== this.saved) this.noteChange();
  }

  private answered({ shot }: Sending, revision: number): void {
    this.revision = revision;
    this.saved = shot;
    this.sending = null;
  }

  private keep(shot: Shot): void {
    void keepDraft(this.shotId, this.revision, shot, this.sending?.name ?? null);
  }

  private fail(error: unknown): void {
    const status = error instanceof Refusal ? error.status : 0;
    const message = sentenceOf(error);
    // A refused save was not stored; one without an answer may have been.
    if (status >= 400 && status < 500) this.sending = null;
    // A shot that was deleted meanwhile is like one saved elsewhere: only a copy can go on from here.
    if (status === 409 || status === 404) this.put({ kind: 'conflict', message });
    else if (status >= 400 && status < 500) this.put({ kind: 'refused', message });
    else {
      this.put({ kind: 'waiting', message });
      this.schedule(RETRY_MS);
    }
  }

  private put(state: SaveState): void {
    // Replaced whole: a message must not outlive the state it belongs to.
    this.state.setState(state, true);
  }
}
