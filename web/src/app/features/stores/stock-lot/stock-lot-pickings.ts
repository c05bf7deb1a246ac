import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { StockLot } from '@vestigia/contract';
import { gramsPerHour, readAmount, sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { newId } from '../../../api/new-id';
import { pageAction } from '../../../api/page-action';
import { Amount } from '../../../format/amount';
import { StudioCalendar } from '../../../services/studio-calendar';
import { FigureValue } from '../../../ui/figure-value';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { PickedFields, pickersIn } from './picked-fields';
import { ScrollRegion } from '../../../ui/scroll-region';
import { DraftOf } from '../../../ui/draft';
import { Kept } from '../../../ui/kept';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';

const MG_IN_G = 1000;
const EMPTY = { grossText: '', tareText: '' };

/** Who picked what stands in a jar, how long it took, and one more picking. */
@Component({
  selector: 'vs-stock-lot-pickings',
  imports: [
    DayField,
    DayPicker,
    Kept,
    DraftOf,
    ScrollRegion,
    FormsModule,
    RouterLink,
    MatFormFieldModule,
    MatInputModule,
    Amount,
    FigureValue,
    PickedFields,
    RefusalNote,
    When,
  ],
  templateUrl: './stock-lot-pickings.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotPickings {
  /** What its template says by what holds. */
  protected readonly says = {
    about: $localize`about `,
    each: $localize` each`,
    with: (pickedWith: string | number): string => $localize`with ${pickedWith}`,
    portions: (portions: string | number): string => $localize`${portions} portions`,
    portion: (value: string | number): string => $localize`Portion ${value}`,
    howMuch: $localize`How much`,
    bagAlone: $localize`Its bag alone`,
    bagIfAny: $localize`The bag alone, if it is in it`,
  };

  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly minutes = sayMinutes;
  protected readonly action = pageAction();
  protected readonly adding = signal(false);
  protected readonly pickedOn = signal(this.calendar.today());
  protected readonly portions = signal([EMPTY]);
  protected readonly pickers = signal('');
  protected readonly minutesEach = signal<number | null>(null);
  protected readonly pickedWith = signal('');
  protected readonly guessed = signal(false);
  protected readonly note = signal('');
  protected readonly perHour = computed(() =>
    gramsPerHour(
      this.stockLot()
        .pickings.filter((p) => !p.reversed)
        .map((p) => ({ weightG: p.amount / MG_IN_G, hands: p.pickers.length, minutesEach: p.minutesEach })),
    ),
  );
  protected readonly net = computed(() =>
    this.portions().reduce((sum, { grossText, tareText }) => {
      const [gross, tare] = [readAmount(grossText, 'weight'), readAmount(tareText, 'weight', { allowNothing: true })];
      return sum + (gross.ok ? gross.amount - (tare.ok ? tare.amount : 0) : 0);
    }, 0),
  );

  protected setPortion(at: number, change: Partial<typeof EMPTY>): void {
    this.portions.update((all) => all.map((p, i) => (i === at ? { ...p, ...change } : p)));
  }

  protected another(): void {
    this.portions.update((all) => [...all, { ...EMPTY, tareText: all.at(-1)?.tareText ?? '' }]);
  }

  protected add(): void {
    const body = {
      id: newId(),
      movementId: newId(),
      pickedOn: this.pickedOn(),
      portions: this.portions().filter((p) => p.grossText.trim() !== ''),
      pickers: pickersIn(this.pickers()),
      minutesEach: this.minutesEach(),
      pickedWith: this.pickedWith(),
      guessed: this.guessed(),
      note: this.note(),
    };
    this.action.run(this.api.post('/api/stock-lots/{id}/pickings', body, this.stockLot().row.id), () => {
      this.portions.set([EMPTY]);
      for (const field of [this.pickers, this.pickedWith, this.note]) field.set('');
      this.minutesEach.set(null);
      this.guessed.set(false);
      this.adding.set(false);
      this.changed.emit();
    });
  }
}
