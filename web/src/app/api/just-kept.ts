import { LiveAnnouncer } from '@angular/cdk/a11y';
import type { WritableSignal } from '@angular/core';
import { Injectable, inject, signal } from '@angular/core';

const NEW_FOR_MS = 6000;
/** So long a row has to appear and say itself what was kept. */
const ROW_WITHIN_MS = 1200;

/** What this page had the studio keep a moment ago: marked where it stands, and said to whoever hears the page. */
@Injectable({ providedIn: 'root' })
export class JustKept {
  private readonly announcer = inject(LiveAnnouncer);
  private readonly ids = signal<ReadonlySet<string>>(new Set());
  private readonly forms = signal<ReadonlySet<object>>(new Set());
  private readonly saidBy = new Set<string>();

  has(id: string): boolean {
    return this.ids().has(id);
  }

  /** What was written in this form is kept. */
  hasForm(form: object): boolean {
    return this.forms().has(form);
  }

  /** The studio has it now: a thing by its id, where it has one of its own. */
  note(id = ''): void {
    if (id !== '') markFor(this.ids, id);
    // A row that came late said what was kept before; this is another time.
    this.saidBy.delete(id);
    setTimeout(() => {
      if (!this.saidBy.delete(id)) void this.announcer.announce($localize`Done.`);
    }, ROW_WITHIN_MS);
  }

  noteForm(form: object): void {
    markFor(this.forms, form);
  }

  /** A row that stands for it says what it is, once. */
  say(id: string, what: string): void {
    if (this.saidBy.has(id)) return;
    this.saidBy.add(id);
    void this.announcer.announce($localize`Kept: ${what}`);
  }
}

function markFor<T>(marked: WritableSignal<ReadonlySet<T>>, one: T): void {
  marked.update((before) => new Set([...before, one]));
  setTimeout(() => marked.update((before) => new Set([...before].filter((other) => other !== one))), NEW_FOR_MS);
}
