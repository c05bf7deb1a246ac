import { Location } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatMenuModule } from '@angular/material/menu';
import type { PageAtHand } from '@vestigia/contract';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { pageAction } from '../api/page-action';
import { AddressChoices } from '../services/in-address';
import { pathOf } from '../services/path-of';
import { PageLink } from '../services/page-link';
import type { LedgerView } from './ledger-view';
import { RefusalNote } from './refusal';

/**
 * How a list is looked at: its columns chosen, the way it is narrowed and sorted just now kept by a name, and one kept
 * before taken again. What is kept stands at hand on Today as well, for whoever kept it.
 */
@Component({
  selector: 'vs-view-menu',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, MatMenuModule, RefusalNote],
  templateUrl: './view-menu.html',
  styles: `
    :host {
      display: contents;
    }
    form {
      display: flex;
      flex: 1 0 100%;
      flex-wrap: wrap;
      gap: 0.5rem 1rem;
      align-items: center;
    }
    .mark {
      display: inline-block;
      width: 1.5em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ViewMenu {
  readonly view = input.required<Pick<LedgerView<never>, 'columns' | 'has' | 'turn'>>();
  private readonly api = inject(ApiClient);
  private readonly location = inject(Location);
  protected readonly link = inject(PageLink);
  /** Said until the hand goes on. */
  protected readonly copied = signal('');
  private readonly choices = inject(AddressChoices);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly here = pathOf(this.location.path());
  protected readonly action = pageAction();
  private readonly atHand = liveQuery(['studio'], () => this.api.get('/api/at-hand'));
  protected readonly kept = computed(() =>
    (this.atHand.value() ?? []).filter((p) => p.path.startsWith(`${this.here}?`)),
  );
  protected readonly canBeLeftOut = computed(() => this.view().columns.filter((c) => !c.stays));
  /** What is kept under a name is being named. */
  protected readonly naming = signal(false);
  protected readonly name = signal('');
  /** The address when the menu was opened: what is offered in it depends on it. */
  protected readonly now = signal('');
  protected readonly keptNow = computed(() => this.kept().find((p) => p.path === this.now()));
  protected readonly isAsAtFirst = computed(() => !this.now().includes('?'));

  protected opened(): void {
    this.now.set(this.location.path());
  }

  protected take(page: PageAtHand): void {
    this.choices.take(page.path.split('?')[1] ?? '');
  }

  protected takeFirst(): void {
    this.choices.take('');
  }

  protected ask(naming: boolean): void {
    this.naming.set(naming);
    this.name.set('');
    afterNextRender(() => this.host.querySelector<HTMLElement>(naming ? 'form input' : 'button')?.focus(), {
      injector: this.injector,
    });
  }

  protected keep(): void {
    const body = { path: this.now(), title: this.name().trim(), keep: true };
    this.action.run(this.api.put('/api/at-hand', body), () => {
      this.atHand.reload();
      this.ask(false);
    });
  }

  protected letGo(page: PageAtHand): void {
    this.action.run(this.api.put('/api/at-hand', { ...page, keep: false }), () => this.atHand.reload());
  }
}
