import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Observable } from 'rxjs';
import { pageAction } from '../../api/page-action';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';

/** What a day that people say is called. */
export interface DayWords {
  readonly field: string;
  /** On the button where none is said yet, and as it is read out. */
  readonly say: string;
  readonly sayAloud: string;
  readonly changeAloud: string;
  /** On the button that takes it away. */
  readonly forget: string;
}

/** A day that may be said: told, changed and taken away where it stands. What it is put around shows while it is told. */
@Component({
  selector: 'vs-day-said',
  imports: [DayField, DayPicker, FormsModule, MatFormFieldModule, MatInputModule, May, RefusalNote],
  template: `
    @if (isOpen()) {
      <form class="fields" (ngSubmit)="send(day())">
        <mat-form-field
          ><mat-label>{{ words().field }}</mat-label
          ><input matInput vsDay #daySaid="vsDay" [name]="name()" [(ngModel)]="day" /><vs-day-picker
            matIconSuffix
            [for]="daySaid"
        /></mat-form-field>
        <div>
          <button i18n class="act" type="submit" [disabled]="keeping.busy() || day() === ''">Keep the day</button>
          @if (on()) {
            <button class="plain" type="button" (click)="send(null)">{{ words().forget }}</button>
          }
        </div>
      </form>
      <vs-refusal [problem]="keeping.problem()" />
    } @else {
      <ng-content />
      <button
        *vsMay="'dyer'"
        class="plain"
        type="button"
        [attr.aria-label]="on() ? words().changeAloud : words().sayAloud"
        (click)="open(true)"
      >
        @if (on()) {
          <span i18n>Change</span>
        } @else {
          {{ words().say }}
        }
      </button>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DaySaid {
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** ISO; `null` where none is said. */
  readonly on = input.required<string | null>();
  /** The field as the server calls it. */
  readonly name = input.required<string>();
  readonly words = input.required<DayWords>();
  readonly keep = input.required<(day: string | null) => Observable<unknown>>();
  protected readonly keeping = pageAction();
  protected readonly isOpen = signal(false);
  protected readonly day = linkedSignal(() => this.on() ?? '');

  protected send(day: string | null): void {
    this.keeping.run(this.keep()(day), () => this.open(false));
  }

  /** What is pressed goes, and the hand with it to what comes. */
  protected open(isOpen: boolean): void {
    this.isOpen.set(isOpen);
    afterNextRender(() => this.host.querySelector<HTMLElement>('input, button')?.focus(), { injector: this.injector });
  }
}
