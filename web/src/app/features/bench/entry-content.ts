import type { ReadRunEntry } from '@vestigia/contract';

type ContentOf<E> = E extends { readonly kind: infer K }
  ? { readonly kind: K } & { readonly [P in Exclude<keyof E, 'kind' | 'stepIndex'>]?: E[P] }
  : never;

/** What somebody enters at the bench: its kind and what belongs to that kind. The rest is filled in. */
export type EntryContent = ContentOf<ReadRunEntry>;

/** An entry for a step. */
export interface EntryRequest {
  readonly stepIndex: number;
  readonly content: EntryContent;
}
