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
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

/** By which day a lot is promised: told, changed and taken away where it stands. */
@Component({
  selector: 'vs-lot-promise',
  imports: [DayField, DayPicker, FormsModule, MatFormFieldModule, MatInputModule, May, RefusalNote, When],
  template: `
    @if (isOpen()) {
      <form class="fields" (ngSubmit)="keep(day())">
        <mat-form-field
          ><mat-label i18n>Promised for</mat-label
          ><input matInput vsDay #wantedDay="vsDay" name="wantedOn" [(ngModel)]="day" /><vs-day-picker
            matIconSuffix
            [for]="wantedDay"
        /></mat-form-field>
        <div>
          <button i18n class="act" type="submit" [disabled]="keeping.busy() || day() === ''">Keep the day</button>
          @if (wantedOn()) {
            <button i18n class="plain" type="button" (click)="keep(null)">Nobody waits for it</button>
          }
        </div>
      </form>
      <vs-refusal [problem]="keeping.problem()" />
    } @else {
      {{ wantedOn() | when }}
      <button
        *vsMay="'dyer'"
        class="plain"
        type="button"
        [attr.aria-label]="wantedOn() ? says.change(tag()) : says.promise(tag())"
        (click)="open(true)"
      >
        @if (wantedOn()) {
          <span i18n>Change</span>
        } @else {
          <span i18n>Promise a day</span>
        }
      </button>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotPromise {
  private readonly api = inject(ApiClient);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly lotId = input.required<string>();
  readonly tag = input.required<string>();
  readonly wantedOn = input.required<string | null>();
  protected readonly keeping = pageAction();
  protected readonly isOpen = signal(false);
  protected readonly day = linkedSignal(() => this.wantedOn() ?? '');
  protected readonly says = {
    promise: (tag: string): string => $localize`Promise a day for ${tag}`,
    change: (tag: string): string => $localize`Change the day ${tag} is promised for`,
  };

  protected keep(wantedOn: string | null): void {
    this.keeping.run(this.api.put('/api/lots/{id}/wanted', { wantedOn }, this.lotId()), () => this.open(false));
  }

  /** What is pressed goes, and the hand with it to what comes. */
  protected open(isOpen: boolean): void {
    this.isOpen.set(isOpen);
    afterNextRender(() => this.host.querySelector<HTMLElement>('input, button')?.focus(), { injector: this.injector });
  }
}
