import { Injectable, computed, effect, inject, signal } from '@angular/core';
import type { NewRunEntry, TouchResult } from '@vestigia/contract';
import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import { firstValueFrom } from 'rxjs';
import type { ShownProblem } from './api-client';
import { ApiClient } from './api-client';
import { LiveChanges } from './live';
import { ServerClock } from './server-clock';
import { Session } from './session';
import { newId } from '../ui/new-id';

/** Touches in one sending: what the server takes at once. */
const MOST_AT_ONCE = 250;
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 5000;

/** A touch as it lies in this tablet until the server has it. */
export interface HeldTouch {
  readonly key: number;
  readonly lotId: string;
  readonly entry: NewRunEntry;
  readonly personId: string;
  /** By this tablet's clock, and by the page's own steady one, for as long as the page lives. */
  readonly wallMs: number;
  readonly steadyMs: number;
  readonly page: string;
  /** What it was, in words, for whoever has to do it again. */
  readonly words: string;
  /** Why the server would not take it. */
  readonly refused?: string | undefined;
}

/** A photograph that goes with an entry, sent after it. */
interface HeldPhoto {
  readonly id: string;
  readonly lotId: string;
  readonly entryId: string;
  readonly file: Blob;
  readonly name: string;
}

interface Shelf extends DBSchema {
  photos: { key: string; value: HeldPhoto };
  touches: { key: number; value: Omit<HeldTouch, 'key'> & { key?: number } };
}

/**
 * Touches of the bench: kept in the tablet first, sent in order when the server can be reached, and let go of only when it has said
 * that it has them. What it refuses is kept and shown until somebody has read why.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly changes = inject(LiveChanges);
  private readonly clock = inject(ServerClock);
  private readonly page = crypto.randomUUID();
  private readonly db: Promise<IDBPDatabase<Shelf>> = openDB<Shelf>('vestigia-bench', 1, {
    upgrade: (db) => {
      db.createObjectStore('touches', { keyPath: 'key', autoIncrement: true });
      db.createObjectStore('photos', { keyPath: 'id' });
    },
  });
  private readonly held = signal<readonly HeldTouch[]>([]);
  /** Taken by the server, not seen in what was read from it yet. */
  private readonly taken = signal<readonly HeldTouch[]>([]);
  private waitMs = FIRST_WAIT_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending = false;
  /** Somebody asked to send while a sending was going on: it is looked at again when that one is over. */
  private wanted = false;
  /** The server answered last time it was asked. */
  readonly reached = signal(true);
  readonly ready = this.read();

  /** What counts as done on this screen though the server has not told of it: waiting or just taken. */
  readonly unseen = computed(() => [...this.taken(), ...this.held().filter((t) => t.refused === undefined)]);
  readonly waiting = computed(() => this.held().filter((t) => t.refused === undefined));
  readonly refused = computed(() => this.held().filter((t) => t.refused !== undefined));
  /** Waiting for a person who is not in now. */
  readonly ofOthers = computed(() => this.waiting().filter((t) => t.personId !== this.session.person()?.id).length);

  constructor() {
    window.addEventListener('online', () => this.hurry());
    effect(() => {
      // The line for changes is back before anything else is asked: so is the server.
      if (this.session.person() && this.changes.connected()) this.hurry();
    });
  }

  private async read(): Promise<void> {
    this.held.set((await (await this.db).getAll('touches')) as HeldTouch[]);
    this.hurry();
  }

  /** Keeps a touch; it is safe in this tablet when the promise is kept. */
  async add(lotId: string, entry: NewRunEntry, words: string): Promise<void> {
    const touch = {
      lotId,
      entry,
      words,
      personId: this.session.person()?.id ?? '',
      wallMs: Date.now(),
      steadyMs: performance.now(),
      page: this.page,
    };
    const key = await (await this.db).add('touches', touch);
    this.held.update((all) => [...all, { ...touch, key }]);
    this.hurry();
  }

  /** Keeps a photograph until the entry it belongs to is there, then sends it. */
  async addPhoto(lotId: string, entryId: string, file: File): Promise<void> {
    await (await this.db).put('photos', { id: newId(), lotId, entryId, file, name: file.name });
    this.hurry();
  }

  /** Lets go of a touch the server refused, once it was read. */
  async forget(key: number): Promise<void> {
    await (await this.db).delete('touches', key);
    this.held.update((all) => all.filter((t) => t.key !== key));
  }

  /** What was read from the server holds these entries: they need not be shown from here any more. */
  seen(ids: ReadonlySet<string>): void {
    if (this.taken().some((t) => ids.has(t.entry.id)))
      this.taken.update((all) => all.filter((t) => !ids.has(t.entry.id)));
  }

  /** Sends at once rather than at the next try. */
  hurry(): void {
    this.waitMs = FIRST_WAIT_MS;
    clearTimeout(this.timer);
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending) {
      this.wanted = true;
      return;
    }
    this.sending = true;
    this.wanted = false;
    try {
      // One tab at a time: two would only ask the server the same thing twice.
      if ('locks' in navigator) await navigator.locks.request('vestigia-outbox', () => this.sendAll());
      else await this.sendAll();
    } finally {
      this.sending = false;
      if (this.wanted) this.hurry();
    }
  }

  private async sendAll(): Promise<void> {
    // Halved when the server can't read a batch, so that the one it can't read is found and the others go on.
    let most = MOST_AT_ONCE;
    for (;;) {
      const person = this.session.person()?.id;
      const batch = this.waiting()
        .filter((t) => t.personId === person)
        .slice(0, most);
      if (batch.length === 0) {
        if (person !== undefined) await this.sendPhotos();
        return;
      }
      try {
        const { results } = await firstValueFrom(
          this.api.post('/api/bench/touches', {
            touches: batch.map((t) => ({ lotId: t.lotId, entry: t.entry, ageMs: this.ageMs(t) })),
          }),
        );
        this.reached.set(true);
        await this.settle(batch, results);
        most = MOST_AT_ONCE;
      } catch (caught) {
        const problem = caught as ShownProblem;
        const unreadable = problem.code === 'invalid' || problem.code === 'notFound' || problem.code === 'unreadable';
        if (unreadable && batch.length > 1) most = Math.ceil(batch.length / 2);
        else if (unreadable)
          await this.settle(
            batch,
            batch.map((t) => ({ id: t.entry.id, ok: false, reason: '', sentence: problem.detail })),
          );
        else {
          this.reached.set(false);
          this.again();
          return;
        }
      }
    }
  }

  private async sendPhotos(): Promise<void> {
    const db = await this.db;
    for (const photo of await db.getAll('photos')) {
      try {
        await firstValueFrom(
          this.api.upload('/api/lots/{id}/photos', photo.file, photo.file.type, {
            id: photo.lotId,
            query: { id: photo.id, entry: photo.entryId, name: photo.name },
          }),
        );
        await db.delete('photos', photo.id);
      } catch (problem) {
        // One the server will never take is let go of; one it could not be asked about waits.
        if ((problem as { status?: number }).status === undefined) this.again();
        else await db.delete('photos', photo.id);
      }
    }
  }

  private again(): void {
    this.timer = setTimeout(() => void this.send(), this.waitMs);
    this.waitMs = Math.min(LONGEST_WAIT_MS, this.waitMs * 2);
  }

  private async settle(batch: readonly HeldTouch[], results: readonly TouchResult[]): Promise<void> {
    const of = new Map(results.map((r) => [r.id, r]));
    const settled = batch.flatMap((touch) => {
      const result = of.get(touch.entry.id);
      return result ? [{ touch, result }] : [];
    });
    const shelf = (await this.db).transaction('touches', 'readwrite');
    for (const { touch, result } of settled)
      void (result.ok ? shelf.store.delete(touch.key) : shelf.store.put({ ...touch, refused: result.sentence }));
    await shelf.done;
    const ok = new Set(settled.filter((s) => s.result.ok).map((s) => s.touch.key));
    const no = new Map(settled.filter((s) => !s.result.ok).map((s) => [s.touch.key, s.result.sentence]));
    this.taken.update((all) => [...all, ...batch.filter((t) => ok.has(t.key))]);
    this.held.update((all) =>
      all.filter((t) => !ok.has(t.key)).map((t) => (no.has(t.key) ? { ...t, refused: no.get(t.key) } : t)),
    );
  }

  /** How long ago: by the page's steady clock while the page lives, so that a tablet's clock set meanwhile changes nothing. */
  private ageMs(touch: HeldTouch): number {
    return Math.max(0, touch.page === this.page ? performance.now() - touch.steadyMs : Date.now() - touch.wallMs);
  }

  /** When it happened, by the server's clock as far as it is known here. */
  atOf(touch: HeldTouch): string {
    return touch.entry.at ?? new Date(this.clock.now() - this.ageMs(touch)).toISOString();
  }
}
