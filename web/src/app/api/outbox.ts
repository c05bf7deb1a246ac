import { Injectable, computed, effect, inject, signal } from '@angular/core';
import type { ReadRunEntry, RunEntryResult } from '@vestigia/contract';
import type { IDBPDatabase } from 'idb';
import { firstValueFrom } from 'rxjs';
import type { ShownProblem } from './api-client';
import { ApiClient } from './api-client';
import { LiveChanges } from './live-query';
import { ServerClock } from './server-clock';
import { Session } from './session';
import type { BenchShelf, StoredDraft, StoredPhoto } from './bench-shelf';
import { openBenchShelf } from './bench-shelf';
import { newId } from './new-id';

/** Entries in one sending: what the server takes at once. */
const MAX_AT_ONCE = 250;
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 5000;

/** What of a refused entry can be put right: its words, its amount, its degrees. */
export interface Mending {
  readonly text?: string;
  readonly quantityText?: string;
  readonly temperatureC?: number | null;
  /** It went in on top of what was weighed before. */
  readonly again?: boolean;
}

function mendEntry(entry: ReadRunEntry, { text, quantityText, temperatureC, again }: Mending): ReadRunEntry {
  if (again && entry.kind === 'weigh') return { ...entry, detail: { ...entry.detail, again } };
  const worded = text === undefined ? entry : { ...entry, text: text.trim() === '' ? null : text };
  if (worded.kind === 'temperature' && temperatureC !== undefined) return { ...worded, temperatureC };
  if (quantityText === undefined || worded.weighing === null) return worded;
  const weighing = { ...worded.weighing, quantityText };
  return worded.kind === 'add'
    ? { ...worded, weighing, detail: { ...worded.detail, quantityText } }
    : { ...worded, weighing };
}

/**
 * What becomes of something that the server did not take: it waits where the server could not be asked or wants
 * somebody to come in, it is refused where it was understood and declined, and it failed where the server itself broke.
 */
function fateOf({ status, code }: ShownProblem): 'wait' | 'refused' | 'failed' {
  if (status === undefined) return 'wait';
  if (code === 'notAllowed') return 'refused';
  if (OF_THE_HOUSE.includes(status)) return 'wait';
  if (status >= 500) return 'failed';
  return DECLINED.includes(status) ? 'refused' : 'wait';
}
/** The database is away, or the disk is full: it is over by itself, or once somebody made room. */
const OF_THE_HOUSE: readonly number[] = [503, 507];
/** Answers to what was sent itself; any other (come in first, too often, the clock is behind) is of the moment. */
const DECLINED: readonly number[] = [400, 404, 413, 415, 422];

/**
 * Entries of the bench: kept in the tablet first, sent in order when the server can be reached, and let go of only
 * when it has said that it has them. What it refuses is kept and shown until somebody has read why.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly changes = inject(LiveChanges);
  private readonly clock = inject(ServerClock);
  private readonly page = crypto.randomUUID();
  private readonly db: Promise<IDBPDatabase<BenchShelf>> = openBenchShelf();
  private readonly held = signal<readonly StoredDraft[]>([]);
  /** Taken by the server, not seen in what was read from it yet. */
  private readonly taken = signal<readonly StoredDraft[]>([]);
  /** The newest entry of each lot made in this page. */
  private readonly lastOf = new Map<string, string>();
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
  /** How many are on their way into the tablet’s own store. */
  readonly writing = signal(0);
  readonly waiting = computed(() => this.held().filter((t) => t.refused === undefined));
  readonly refused = computed(() => this.held().filter((t) => t.refused !== undefined));
  private readonly photos = signal<readonly StoredPhoto[]>([]);
  readonly refusedPhotos = computed(() => this.photos().filter((p) => p.refused !== undefined));
  readonly waitingPhotos = computed(() => this.photos().length - this.refusedPhotos().length);
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
    this.held.set((await (await this.db).getAll('drafts')) as StoredDraft[]);
    await this.readPhotos();
    this.hurry();
  }

  /** Keeps an entry; it is safe in this tablet when the promise is kept. */
  async add(lotId: string, entry: ReadRunEntry, label: string): Promise<void> {
    const draft = {
      lotId,
      entry,
      label,
      personId: this.session.person()?.id ?? '',
      wallMs: Date.now(),
      steadyMs: performance.now(),
      page: this.page,
      afterId:
        this.lastOf.get(lotId) ??
        this.held()
          .filter((t) => t.lotId === lotId)
          .at(-1)?.entry.id,
    };
    this.lastOf.set(lotId, entry.id);
    this.writing.update((n) => n + 1);
    try {
      const key = await (await this.db).add('drafts', draft);
      this.held.update((all) => [...all, { ...draft, key }]);
    } finally {
      this.writing.update((n) => n - 1);
    }
    this.hurry();
  }

  /** Puts a refused entry right and sends it again, as the same entry: the server never had it. */
  async mend(key: number, change: Mending): Promise<void> {
    const draft = this.held().find((t) => t.key === key);
    if (!draft) return;
    const mended = { ...draft, refused: undefined, refusedReason: undefined, entry: mendEntry(draft.entry, change) };
    await (await this.db).put('drafts', mended);
    this.held.update((all) => all.map((t) => (t.key === key ? mended : t)));
    this.hurry();
  }

  /** Sends a refused photograph once more, as it is. */
  async retryPhoto(id: string): Promise<void> {
    const photo = this.photos().find((p) => p.id === id);
    if (!photo) return;
    await this.keepPhoto({ ...photo, refused: undefined });
    this.hurry();
  }

  /** Throws a refused photograph away: somebody said so. */
  async forgetPhoto(id: string): Promise<void> {
    await (await this.db).delete('photos', id);
    await this.readPhotos();
  }

  /** Keeps a photograph until the entry it belongs to is there, then sends it. */
  async addPhoto(lotId: string, entryId: string, file: File): Promise<void> {
    await this.keepPhoto({ id: newId(), lotId, entryId, file, name: file.name });
    await this.readPhotos();
    this.hurry();
  }

  /** Lets go of an entry the server refused, once it was read. */
  async forget(key: number): Promise<void> {
    await (await this.db).delete('drafts', key);
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
    // Halved when the server can't take a batch, so that the one it can't take is found and the others go on.
    let max = MAX_AT_ONCE;
    /** Lots with an entry that the server fails on just now: what comes after it in that lot waits with it. */
    const stuck = new Set<string>();
    for (;;) {
      const person = this.session.person()?.id;
      const batch = this.waiting()
        .filter((t) => t.personId === person && !stuck.has(t.lotId))
        .slice(0, max);
      if (batch.length === 0) {
        if (person !== undefined) await this.sendPhotos();
        if (stuck.size > 0) this.again();
        return;
      }
      try {
        await this.sendBatch(batch);
        max = MAX_AT_ONCE;
      } catch (caught) {
        const problem = caught as ShownProblem;
        const fate = fateOf(problem);
        if (fate === 'wait') {
          this.reached.set(false);
          this.again();
          return;
        }
        if (batch.length > 1) max = Math.ceil(batch.length / 2);
        else if (fate === 'refused')
          await this.settle(
            batch,
            batch.map((t) => ({ id: t.entry.id, ok: false, reason: '', message: problem.detail })),
          );
        else for (const t of batch) stuck.add(t.lotId);
      }
    }
  }

  private async sendBatch(batch: readonly StoredDraft[]): Promise<void> {
    const { results } = await firstValueFrom(
      this.api.post('/api/bench/run-entries', {
        drafts: batch.map((t) => ({
          lotId: t.lotId,
          entry: t.entry,
          ageMs: this.ageMs(t),
          ...(t.afterId === undefined ? {} : { afterId: t.afterId }),
        })),
      }),
    );
    this.reached.set(true);
    await this.settle(batch, results);
  }

  /** A photograph stays here until the server has it; one it won't have is shown, and only a person throws it away. */
  private async sendPhotos(): Promise<void> {
    const db = await this.db;
    for (const photo of await db.getAll('photos')) {
      if (photo.refused !== undefined) continue;
      try {
        await firstValueFrom(
          this.api.upload('/api/lots/{id}/photos', photo.file, photo.file.type, {
            id: photo.lotId,
            query: { id: photo.id, entry: photo.entryId, name: photo.name },
          }),
        );
        await db.delete('photos', photo.id);
      } catch (caught) {
        const problem = caught as ShownProblem;
        if (fateOf(problem) === 'refused') await this.keepPhoto({ ...photo, refused: problem.detail });
        else this.again();
      }
    }
    await this.readPhotos();
  }

  private async keepPhoto(photo: StoredPhoto): Promise<void> {
    await (await this.db).put('photos', photo);
  }

  private async readPhotos(): Promise<void> {
    this.photos.set(await (await this.db).getAll('photos'));
  }

  private again(): void {
    this.timer = setTimeout(() => void this.send(), this.waitMs);
    this.waitMs = Math.min(LONGEST_WAIT_MS, this.waitMs * 2);
  }

  private async settle(batch: readonly StoredDraft[], results: readonly RunEntryResult[]): Promise<void> {
    const of = new Map(results.map((r) => [r.id, r]));
    const settled = batch.flatMap((draft) => {
      const result = of.get(draft.entry.id);
      return result ? [{ draft, result }] : [];
    });
    const shelf = (await this.db).transaction('drafts', 'readwrite');
    for (const { draft, result } of settled)
      void (result.ok
        ? shelf.store.delete(draft.key)
        : shelf.store.put({ ...draft, refused: result.message, refusedReason: result.reason }));
    await shelf.done;
    const ok = new Set(settled.filter((s) => s.result.ok).map((s) => s.draft.key));
    const no = new Map(settled.filter((s) => !s.result.ok).map((s) => [s.draft.key, s.result]));
    this.taken.update((all) => [...all, ...batch.filter((t) => ok.has(t.key))]);
    this.held.update((all) =>
      all
        .filter((t) => !ok.has(t.key))
        .map((t) => {
          const result = no.get(t.key);
          return result ? { ...t, refused: result.message, refusedReason: result.reason } : t;
        }),
    );
  }

  /**
   * How long ago: by the page's steady clock while the page lives, so that a tablet's clock set meanwhile changes
   * nothing.
   */
  private ageMs(draft: StoredDraft): number {
    return Math.max(0, draft.page === this.page ? performance.now() - draft.steadyMs : Date.now() - draft.wallMs);
  }

  /** When it happened, by the server's clock as far as it is known here. */
  atOf(draft: StoredDraft): string {
    return draft.entry.at ?? new Date(this.clock.now() - this.ageMs(draft)).toISOString();
  }
}
