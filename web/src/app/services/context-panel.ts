import { Injectable, computed, signal } from '@angular/core';
import type { Figure } from '@vestigia/core';

export interface ContextNote {
  readonly title: string;
  readonly lines: readonly string[];
}

/** What the margin shows: the working of the figure in focus, and the page's own cautions and history. */
@Injectable({ providedIn: 'root' })
export class ContextPanel {
  readonly working = signal<{ name: string; figure: Figure } | undefined>(undefined);
  readonly notes = signal<readonly ContextNote[]>([]);

  /** The margin takes room only while something stands in it. */
  readonly isOpen = computed(() => this.working() !== undefined || this.notes().length > 0);

  showWorking(name: string, figure: Figure): void {
    this.working.set({ name, figure });
  }

  /** Puts the working away; cautions and history of the page stay. */
  closeWorking(): void {
    this.working.set(undefined);
  }

  clear(): void {
    this.working.set(undefined);
    this.notes.set([]);
  }
}
