import { computed, signal } from '@angular/core';
import type { BodyDraft } from './draft';

const MOST = 100;

/**
 * What a recipe being written looked like before, one writing at a time. It is written into where it stands, so each
 * look of it is kept as text.
 */
export class BodyHistory {
  private readonly past = signal<readonly string[]>([]);
  private readonly undone = signal<readonly string[]>([]);
  readonly canUndo = computed(() => this.past().length > 1);
  readonly canRedo = computed(() => this.undone().length > 0);

  /** Keeps how it looks now, where that is new. */
  note(body: BodyDraft): void {
    const now = JSON.stringify(body);
    if (now === this.past().at(-1)) return;
    this.past.update((past) => [...past.slice(-MOST), now]);
    this.undone.set([]);
  }

  /** As it looked before the last writing; `undefined` where there is nothing before it. */
  undo(body: BodyDraft): BodyDraft | undefined {
    this.note(body);
    const [now, before] = [this.past().at(-1), this.past().at(-2)];
    if (now === undefined || before === undefined) return undefined;
    this.past.update((past) => past.slice(0, -1));
    this.undone.update((undone) => [...undone, now]);
    return JSON.parse(before) as BodyDraft;
  }

  redo(): BodyDraft | undefined {
    const next = this.undone().at(-1);
    if (next === undefined) return undefined;
    this.undone.update((undone) => undone.slice(0, -1));
    this.past.update((past) => [...past, next]);
    return JSON.parse(next) as BodyDraft;
  }
}
