import type { Signal } from '@angular/core';
import { computed, effect, linkedSignal, signal, untracked } from '@angular/core';
import type { PageAction } from './page-action';

/** One field that somebody else changed while a form was being written. */
export interface ChangedMeanwhile {
  readonly field: string;
  readonly was: string;
  readonly is: string;
}

/** What a form was opened on: it follows what the server tells until somebody writes in it, and then stands. */
export interface OpenedOn<T> {
  /** What the form's fields begin from. */
  readonly value: Signal<T | undefined>;
  /** The version to save on: as opened, or as acknowledged since. */
  readonly version: Signal<number>;
  readonly meanwhile: Signal<readonly ChangedMeanwhile[]>;
  /** Somebody wrote in it. */
  touch(): void;
  /** What stands now replaces what was written. */
  take(): void;
  /** What was written stays, knowing what it replaces. */
  keep(): void;
}

/** How a form tells things apart, which version they are, and what their fields say. */
export interface FormSource<T> {
  readonly key: (of: T) => string;
  readonly version: (of: T) => number;
  readonly say: (of: T) => Readonly<Record<string, string>>;
}

/**
 * Reads anew when a save was refused because others saved first: cut off from the news, this page would not know what
 * stands now. Call in a field initialiser or a constructor.
 */
export function readAnewWhenStale(saving: PageAction, reload: () => void): void {
  effect(() => {
    if (saving.problem()?.code === 'stale') untracked(reload);
  });
}

/** Call in a field initialiser, with what is read live from the server. */
export function openedOn<T>(source: () => T | undefined, { key, version, say }: FormSource<T>): OpenedOn<T> {
  const touched = signal(false);
  const acknowledged = signal(0);
  const value = linkedSignal<T | undefined, T | undefined>({
    source,
    computation: (now, before) => {
      const held = before?.value;
      const stays = held !== undefined && (now === undefined || key(now) === key(held)) && untracked(touched);
      return stays ? held : now;
    },
  });
  /** What is said otherwise now than where the form was opened. */
  const differing = computed((): ChangedMeanwhile[] => {
    const [held, now] = [value(), source()];
    if (held === undefined || now === undefined) return [];
    const [was, is] = [say(held), say(now)];
    return Object.keys(is)
      .filter((field) => was[field] !== is[field])
      .map((field) => ({ field, was: was[field] ?? '', is: is[field] ?? '' }));
  });
  const onVersion = computed(() => {
    const [held, now] = [value(), source()];
    if (held === undefined) return 0;
    // Where nothing that this form shows was changed, there is nothing to ask about.
    return Math.max(version(held), acknowledged(), now !== undefined && differing().length === 0 ? version(now) : 0);
  });
  const meanwhile = computed(() => {
    const now = source();
    return now !== undefined && version(now) > onVersion() ? differing() : [];
  });
  return {
    value: value.asReadonly(),
    version: onVersion,
    meanwhile,
    touch: () => touched.set(true),
    take: () => {
      touched.set(false);
      value.set(source());
    },
    keep: () => {
      const now = source();
      if (now !== undefined) acknowledged.set(version(now));
    },
  };
}
