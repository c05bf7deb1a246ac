import type { ReadRunEntry } from '@vestigia/contract';
import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';

/** An entry as it lies in this tablet until the server has it. */
export interface StoredDraft {
  readonly key: number;
  readonly lotId: string;
  readonly entry: ReadRunEntry;
  readonly personId: string;
  /** By this tablet's clock, and by the page's own steady one, for as long as the page lives. */
  readonly wallMs: number;
  readonly steadyMs: number;
  readonly page: string;
  /** What was done in this lot on this tablet before it; the server dates it no earlier. */
  readonly afterId?: string | undefined;
  /** What it was, in words, for whoever has to do it again. */
  readonly label: string;
  /** Why the server would not take it. */
  readonly refused?: string | undefined;
  readonly refusedReason?: string | undefined;
}

/** A photograph that goes with an entry, sent after it. */
export interface StoredPhoto {
  readonly id: string;
  readonly lotId: string;
  readonly entryId: string;
  readonly file: Blob;
  readonly name: string;
  /** Why the server would not take it. */
  readonly refused?: string | undefined;
}

export interface BenchShelf extends DBSchema {
  photos: { key: string; value: StoredPhoto };
  drafts: { key: number; value: Omit<StoredDraft, 'key'> & { key?: number } };
  /** Where the first version kept its drafts; gone once they came along. */
  touches: { key: number; value: FirstVersionDraft };
}

type Weighing = Extract<ReadRunEntry, { kind: 'weigh' }>;
type FirstVersionWeighing = Omit<Weighing, 'weighing'> & {
  readonly weighing: (Omit<NonNullable<Weighing['weighing']>, 'quantityText'> & { readonly written: string }) | null;
};
/** A draft as the first version of this store kept it. */
type FirstVersionDraft = Omit<StoredDraft, 'key' | 'label' | 'entry'> & {
  readonly key: number;
  readonly words: string;
  readonly entry: Exclude<ReadRunEntry, { kind: 'weigh' }> | FirstVersionWeighing;
};

/** A draft of the first version under today's names. */
export function upgradeDraft({ words, entry, ...rest }: FirstVersionDraft): StoredDraft {
  if (entry.kind !== 'weigh') return { ...rest, label: words, entry };
  if (entry.weighing === null) return { ...rest, label: words, entry: { ...entry, weighing: null } };
  const { written, ...weighing } = entry.weighing;
  return { ...rest, label: words, entry: { ...entry, weighing: { ...weighing, quantityText: written } } };
}

/**
 * Opens the tablet's own store for what the bench has not sent yet. Drafts that an earlier version left behind come
 * along.
 */
export function openBenchShelf(): Promise<IDBPDatabase<BenchShelf>> {
  return openDB<BenchShelf>('vestigia-bench', 2, {
    upgrade: async (db, oldVersion, _newVersion, transaction) => {
      const drafts = db.createObjectStore('drafts', { keyPath: 'key', autoIncrement: true });
      if (oldVersion < 1) {
        db.createObjectStore('photos', { keyPath: 'id' });
        return;
      }
      for (const draft of await transaction.objectStore('touches').getAll()) await drafts.put(upgradeDraft(draft));
      db.deleteObjectStore('touches');
    },
  });
}
