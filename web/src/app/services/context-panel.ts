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

  private opener: HTMLElement | undefined;
  private isGivingBack = false;

  /** @param opener the figure on the sheet, which gets the hand back when its working is put away */
  showWorking(name: string, figure: Figure, opener?: HTMLElement): void {
    // It shows itself when it is focused, which is just what was closed.
    if (this.isGivingBack) return;
    this.working.set({ name, figure });
    this.opener = opener;
  }

  /** Puts the working away; cautions and history of the page stay. */
  closeWorking(): void {
    // A hand that is anywhere but in the margin stays where it is.
    const isInMargin = Boolean(document.activeElement?.closest('vs-context-panel'));
    this.working.set(undefined);
    this.isGivingBack = true;
    if (isInMargin) this.opener?.focus();
    this.isGivingBack = false;
    this.opener = undefined;
  }

  clear(): void {
    this.opener = undefined;
    this.working.set(undefined);
    this.notes.set([]);
  }
}
