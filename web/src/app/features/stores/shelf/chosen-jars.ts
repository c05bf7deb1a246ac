import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import { ApiClient } from '../../../api/api-client';
import { newId } from '../../../api/new-id';
import { pageAction } from '../../../api/page-action';
import { Count } from '../../../ui/count';
import { RefusalNote } from '../../../ui/refusal';
import type { ShownRow } from './shelf-rows';

/** Where a jar stood, and where it stands now. */
type Moved = readonly { readonly stockLotId: string; readonly place: string }[];

/** What is done with several jars at once: their tags printed, all of them counted, or carried somewhere else. */
@Component({
  selector: 'vs-chosen-jars',
  imports: [Count, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <strong i18n role="status">{{ jars().length | count: 'jar' }} chosen</strong>
    @if (moving()) {
      <form (ngSubmit)="move()">
        <mat-form-field subscriptSizing="dynamic"
          ><mat-label i18n>They stand now at</mat-label
          ><input matInput name="place" [(ngModel)]="place" list="known-places" autocomplete="off"
        /></mat-form-field>
        <datalist id="known-places">
          @for (p of places(); track p) {
            <option [value]="p"></option>
          }
        </datalist>
        <button i18n class="act main" type="submit" [disabled]="acting.busy() || !any() || place().trim() === ''">
          Move them
        </button>
        <button i18n class="plain" type="button" (click)="ask(false)">Not now</button>
      </form>
    } @else {
      <button i18n class="act main" type="button" [disabled]="!any()" (click)="printTags()">Print their tags</button>
      <button i18n class="act" type="button" [disabled]="acting.busy() || !any()" (click)="count()">Count them</button>
      <button i18n class="act" type="button" [disabled]="!any()" (click)="ask(true)">Move them elsewhere</button>
      <button i18n class="plain" type="button" (click)="closed.emit()">Choose no more</button>
    }
    @if (before(); as moved) {
      <span i18n>
        {{ moved.length | count: 'jar' }} moved.
        <button class="plain" type="button" [disabled]="acting.busy()" (click)="putBack(moved)">Put them back</button>
      </span>
    }
    <vs-refusal [problem]="acting.problem()" />
  `,
  styles: `
    :host,
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 1rem;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChosenJars {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly jars = input.required<readonly ShownRow[]>();
  readonly places = input.required<readonly string[]>();
  readonly closed = output();
  protected readonly acting = pageAction();
  protected readonly any = computed(() => this.jars().length > 0);
  protected readonly moving = signal(false);
  protected readonly place = signal('');
  /** The places before the last move, until something else is done. */
  protected readonly before = signal<Moved | undefined>(undefined);

  /** The hand goes to where they stand, and back to what is offered. */
  protected ask(moving: boolean): void {
    this.moving.set(moving);
    afterNextRender(() => this.host.querySelector<HTMLElement>('input, button:enabled')?.focus(), {
      injector: this.injector,
    });
  }

  protected printTags(): void {
    const jars = this.jars()
      .map((j) => j.id)
      .join(',');
    void this.router.navigate(['/bench/tags'], { queryParams: { jars } });
  }

  protected count(): void {
    const id = newId();
    const chosen = this.jars().map((j) => j.id);
    this.acting.run(
      this.api.post('/api/stocktakes', { id, place: '', chosen, blind: true }),
      () => void this.router.navigate(['/stores/count', id]),
    );
  }

  protected move(): void {
    const before = this.jars().map((j) => ({ stockLotId: j.id, place: j.place }));
    const moved = before.map((j) => ({ ...j, place: this.place().trim() }));
    this.acting.run(this.api.post('/api/stock-lots/moves', { id: newId(), moved }), () => {
      this.before.set(before);
      this.ask(false);
      this.place.set('');
    });
  }

  protected putBack(moved: Moved): void {
    this.acting.run(this.api.post('/api/stock-lots/moves', { id: newId(), moved: [...moved] }), () =>
      this.before.set(undefined),
    );
  }
}
