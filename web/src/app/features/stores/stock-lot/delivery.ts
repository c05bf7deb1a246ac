import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { StockOrigin } from '@vestigia/core';
import { MATERIAL_FORMS, formatAmount, readAmount } from '@vestigia/core';
import { StudioCalendar } from '../../../services/studio-calendar';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { StudioSettings } from '../../../api/studio-settings';
import { liveQuery } from '../../../api/live-query';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { NumberField } from '../../../ui/number-field';
import { Fold } from '../../../ui/fold';
import { PickedFields, pickersIn } from './picked-fields';
import { ActBar } from '../../../ui/act-bar';
import { DraftOf } from '../../../ui/draft';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';
import { toChoose } from '../../../ui/put-away-too';
import { Said } from '../../../ui/said';

const ORIGINS: readonly { origin: StockOrigin; name: string; from: string }[] = [
  { origin: 'receipt', name: $localize`bought`, from: $localize`From whom` },
  { origin: 'harvest', name: $localize`gathered or grown`, from: $localize`Where it grew` },
  { origin: 'gift', name: $localize`given`, from: $localize`From whom` },
];

/** Books in what came: a new stock lot with its first movement. */
@Component({
  selector: 'vs-delivery',
  imports: [
    Said,
    DayField,
    DayPicker,
    DraftOf,
    ActBar,
    Fold,
    PickedFields,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
  ],
  providers: [StudioSettings],
  templateUrl: './delivery.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeliveryPage {
  /** What its template says by what holds. */
  protected readonly says = {
    examplePackets: $localize`e.g. 3 packets`,
    exampleVolume: $localize`e.g. 5 l or 1 US gal`,
    exampleWeight: $localize`e.g. 1.5 kg or 3 lb 4 oz`,
    whereItGrew: $localize`Where it grew`,
    whereItCameFrom: $localize`Where it came from, and what it cost`,
    bestBefore: $localize`Best before`,
    whatItIsLike: $localize`What it is like: form, part, stage, moisture, best before`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(StudioSettings);
  readonly material = input<string>();
  protected readonly origins = ORIGINS;
  protected readonly forms = MATERIAL_FORMS;
  protected readonly action = pageAction();
  protected readonly toChoose = toChoose;
  protected readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly places = computed(() =>
    [...new Set((this.shelf.value() ?? []).map((r) => r.place).filter(Boolean))].sort(),
  );
  protected readonly origin = signal<StockOrigin>('receipt');
  protected readonly materialId = linkedSignal(() => this.material() ?? '');
  protected readonly quantityText = signal('');
  protected readonly withContainer = signal(false);
  protected readonly gross = signal('');
  protected readonly tare = signal('');
  protected readonly receivedOn = signal(inject(StudioCalendar).today());
  protected readonly bestBefore = signal('');
  protected readonly source = signal('');
  protected readonly place = signal('');
  protected readonly cost = signal('');
  protected readonly form = signal('');
  protected readonly part = signal('');
  protected readonly stage = signal('');
  protected readonly moisture = signal<number | null>(null);
  protected readonly container = signal('');
  protected readonly tag = signal('');
  protected readonly note = signal('');
  protected readonly permission = signal('');
  protected readonly share = signal<number | null>(null);
  protected readonly standNote = signal('');
  /** Said by whoever gathered: nothing is assumed. */
  protected readonly ownGround = signal<boolean | null>(null);
  protected readonly pickers = signal('');
  protected readonly minutesEach = signal<number | null>(null);
  protected readonly pickedWith = signal('');
  protected readonly guessed = signal(false);
  private readonly pickingId = newId();
  private readonly id = newId();
  private readonly movementId = newId();

  private readonly chosen = computed(() => this.materials.value()?.find((m) => m.id === this.materialId()));
  protected readonly measure = computed(() => this.chosen()?.measure ?? 'weight');
  protected readonly isFibre = computed(() => this.chosen()?.kind === 'fibre');
  protected readonly fromLabel = computed(() => ORIGINS.find((o) => o.origin === this.origin())?.from ?? '');
  protected readonly echo = computed(() => {
    const material = this.chosen();
    if (!material) return '';
    if (this.withContainer()) {
      const gross = readAmount(this.gross(), 'weight');
      const tare = readAmount(this.tare(), 'weight', { allowNothing: true });
      return gross.ok && tare.ok && gross.amount > tare.amount
        ? $localize`${formatAmount(gross.amount - tare.amount, 'weight')} net of ${material.name}`
        : '';
    }
    if (this.quantityText().trim() === '') return '';
    const reading = readAmount(this.quantityText(), material.measure, this.house.measuring(material.bulkDensityGPerMl));
    return reading.ok
      ? $localize`${formatAmount(reading.amount, material.measure)} of ${material.name}${reading.note ? ` (${reading.note})` : ''}`
      : reading.message;
  });

  protected readonly missing = computed(() => {
    if (!this.chosen()) return $localize`Choose the material.`;
    const written = this.withContainer() && this.measure() === 'weight' ? this.gross() : this.quantityText();
    return written.trim() === '' ? $localize`Say how much came.` : '';
  });

  protected book(): void {
    const harvest = this.origin() === 'harvest';
    const ground = this.ownGround();
    const boxed = this.withContainer() && this.measure() === 'weight';
    const body = {
      id: this.id,
      movementId: this.movementId,
      materialId: this.materialId(),
      tag: this.tag(),
      quantityText: boxed ? '' : this.quantityText(),
      grossText: boxed ? this.gross() : '',
      tareText: boxed ? this.tare() || '0 g' : '',
      receivedOn: this.receivedOn(),
      bestBefore: this.bestBefore() || null,
      place: this.place(),
      source: this.source(),
      note: this.note(),
      cost: harvest ? '' : this.cost(),
      facts: {
        origin: this.origin(),
        plantPart: this.part(),
        stage: this.stage(),
        form: (this.form() || null) as (typeof MATERIAL_FORMS)[number] | null,
        container: this.container(),
        moisturePercent: this.moisture(),
        gathering:
          harvest && ground !== null
            ? {
                ownGround: ground,
                permission: ground ? '' : this.permission(),
                sharePercent: this.share(),
                note: this.standNote(),
              }
            : null,
      },
      picking: harvest
        ? {
            id: this.pickingId,
            pickers: pickersIn(this.pickers()),
            minutesEach: this.minutesEach(),
            pickedWith: this.pickedWith(),
            guessed: this.guessed(),
          }
        : null,
    };
    this.action.run(this.api.post('/api/stock-lots', body), ({ id }) => void this.router.navigate(['/stores', id]));
  }
}
