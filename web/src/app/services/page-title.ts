import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import { Title } from '@angular/platform-browser';
import type { RouterStateSnapshot } from '@angular/router';
import { TitleStrategy } from '@angular/router';

/** What stands in the tab: what the page is about, “Lot 87 · Marram”, or else which page it is; and a pot that calls. */
@Injectable({ providedIn: 'root' })
export class PageTitle extends TitleStrategy {
  private readonly title = inject(Title);
  private readonly page = signal('Vestigia');
  readonly subject = signal<string | undefined>(undefined);
  /** Stands before all the rest, while there is something. */
  readonly call = signal<string | undefined>(undefined);
  readonly shown = computed(() =>
    [this.call(), this.subject() ?? this.page()].filter((t) => t !== undefined).join(' · '),
  );

  constructor() {
    super();
    effect(() => this.title.setTitle(this.shown()));
  }

  override updateTitle(snapshot: RouterStateSnapshot): void {
    this.page.set(this.buildTitle(snapshot) ?? 'Vestigia');
  }
}

/** Names the page after what it shows, as soon as that is known. To be called where a page is made. */
export function namesPage(subject: () => string | undefined): void {
  const title = inject(PageTitle);
  effect(() => title.subject.set(subject()));
  inject(DestroyRef).onDestroy(() => title.subject.set(undefined));
}
