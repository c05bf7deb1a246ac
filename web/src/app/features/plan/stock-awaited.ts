import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { PlanFactsView } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { StudioCalendar } from '../../services/studio-calendar';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';

/** What open lots are short of, and on which day it is to be there: told, changed and taken away where it stands. */
@Component({
  selector: 'vs-stock-awaited',
  imports: [DayField, DayPicker, FormsModule, MatFormFieldModule, MatInputModule, May, RefusalNote, RouterLink],
  template: `
    <a [routerLink]="['/stores/materials', material().materialId]">{{ material().name }}</a>
    {{ says() }}
    @if (isOpen()) {
      <form class="fields" (ngSubmit)="keep(day())">
        <mat-form-field
          ><mat-label i18n>It is to be here on</mat-label
          ><input matInput vsDay #arrivalDay="vsDay" name="arrivesOn" [(ngModel)]="day" /><vs-day-picker
            matIconSuffix
            [for]="arrivalDay"
        /></mat-form-field>
        <div>
          <button i18n class="act" type="submit" [disabled]="keeping.busy() || day() === ''">Keep the day</button>
          @if (material().isSaid) {
            <button i18n class="plain" type="button" (click)="keep(null)">Nobody knows</button>
          }
        </div>
      </form>
      <vs-refusal [problem]="keeping.problem()" />
    } @else {
      <button *vsMay="'dyer'" class="plain" type="button" [attr.aria-label]="label()" (click)="open(true)">
        @if (material().isSaid) {
          <span i18n>Change</span>
        } @else {
          <span i18n>Say the day</span>
        }
      </button>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockAwaited {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly material = input.required<PlanFactsView['awaited'][number]>();
  protected readonly keeping = pageAction();
  protected readonly isOpen = signal(false);
  private readonly saidOn = computed(() => (this.material().isSaid ? this.material().arrivesOn : ''));
  protected readonly day = linkedSignal(() => this.saidOn());

  protected readonly says = computed(() => {
    const { missing, measure, lotTags, arrivesOn, isSaid, isMadeHere } = this.material();
    const [amount, day] = [formatAmount(missing, measure), this.calendar.formatDay(arrivesOn)];
    const lots = lotTags.join(', ');
    if (isSaid) return $localize`${amount} for ${lots}, to be here on ${day}.`;
    return isMadeHere
      ? $localize`${amount} for ${lots}. It is a bath of the house: until somebody says when there will be enough, the plan counts on it at once.`
      : $localize`${amount} for ${lots}. Nobody said when it comes: the plan counts on it from ${day}, by how long it usually takes.`;
  });
  protected readonly label = computed(() => {
    const { name, isSaid } = this.material();
    return isSaid ? $localize`Change the day ${name} is to be here` : $localize`Say the day ${name} is to be here`;
  });

  protected keep(arrivesOn: string | null): void {
    this.keeping.run(this.api.put('/api/materials/{id}/arrival', { arrivesOn }, this.material().materialId), () =>
      this.open(false),
    );
  }

  /** What is pressed goes, and the hand with it to what comes. */
  protected open(isOpen: boolean): void {
    this.isOpen.set(isOpen);
    afterNextRender(() => this.host.querySelector<HTMLElement>('input, button')?.focus(), { injector: this.injector });
  }
}
