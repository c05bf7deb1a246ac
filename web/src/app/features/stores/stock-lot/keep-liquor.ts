import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Figure, LiquorKind, VatKind } from '@vestigia/core';
import {
  addDays,
  figure,
  LIQUOR_KINDS,
  LIQUOR_LABELS,
  leftAfterUse,
  readWeight,
  VAT_KINDS,
  VAT_LABELS,
} from '@vestigia/core';
import { StudioCalendar } from '../../../services/studio-calendar';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { NumberField } from '../../../ui/number-field';
import { ActBar } from '../../../ui/act-bar';
import { DraftOf } from '../../../ui/draft';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';
import { toChoose } from '../../../ui/put-away-too';

const HINTS: Readonly<Record<LiquorKind, string>> = {
  dyeBath: $localize`Cold and covered, days. Look for cloud, growth and smell before it is used again.`,
  secondExtraction: $localize`Weaker than the first: a strip tells how much.`,
  mordantBath: $localize`Weeks, covered. Say what went in and what share of it the fibre took; what is left is worked out.`,
  ironLiquor: $localize`Its strength is unknown until a strip is compared with weighed crystals. Locked away from children and animals.`,
  ashLye: $localize`Caustic: gloves and goggles. Measure its pH each time.`,
  vat: $localize`Say how much liquor it is, keep it, then feed it with dyestuff, reducer and alkali from their jars. It stays: dip, look, feed, dip again.`,
  stockSolution: $localize`For one made from a jar here, use “Grind, dry or blend”: the crystals then leave their jar.`,
};
const DAYS: Readonly<Partial<Record<LiquorKind, number>>> = { dyeBath: 5, secondExtraction: 5, mordantBath: 60 };
const USUAL_UPTAKE = 60;

/** Keeps a liquor as stock: leftover baths, second extractions, saved mordant baths, iron and ash liquors. */
@Component({
  selector: 'vs-keep-liquor',
  imports: [
    DayField,
    DayPicker,
    DraftOf,
    ActBar,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    RefusalNote,
  ],
  templateUrl: './keep-liquor.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepLiquorPage {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  private readonly router = inject(Router);
  protected readonly kinds = LIQUOR_KINDS;
  protected readonly label = LIQUOR_LABELS;
  protected readonly hints = HINTS;
  protected readonly action = pageAction();
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly liquids = computed(() => toChoose(this.materials.value()).filter((m) => m.measure === 'volume'));
  protected readonly dissolved = computed(() =>
    toChoose(this.materials.value()).filter((m) => m.measure === 'weight' && m.kind !== 'fibre'),
  );
  protected readonly what = signal<LiquorKind>('mordantBath');
  protected readonly vatKinds = VAT_KINDS;
  protected readonly vatLabel = VAT_LABELS;
  protected readonly vatKind = signal<VatKind>('reducer');
  protected readonly materialId = signal('');
  protected readonly name = signal('');
  protected readonly volume = signal('');
  protected readonly vessel = signal('');
  protected readonly place = signal('');
  protected readonly keeps = signal(addDays(this.calendar.today(), DAYS.mordantBath ?? 0));
  protected readonly lotId = signal('');
  protected readonly inside = signal('');
  protected readonly went = signal('');
  protected readonly uptake = signal(USUAL_UPTAKE);
  /** What the bench worked out to be left, g; until something else is written. */
  protected readonly leftG = signal<number | undefined>(undefined);
  protected readonly note = signal('');

  protected readonly left = computed((): Figure | undefined => {
    const went = readWeight(this.went());
    const byBench = this.leftG();
    if (this.inside() === this.of() && this.went() === this.dosed() && byBench !== undefined)
      return figure(
        byBench,
        'g',
        $localize`weighed in, less what each dip drew and what left with the liquor`,
        [{ name: $localize`weighed in`, value: went.ok ? went.weightG : 0, unit: 'g' }],
        [$localize`as the bench worked it out: an estimate`],
      );
    return this.inside() !== '' && went.ok
      ? leftAfterUse(went.weightG, { uptakeShare: Math.min(1, Math.max(0, this.uptake() / 100)) })
      : undefined;
  });

  protected readonly missing = computed(() => {
    if (this.materialId() === '' && this.name().trim() === '') return $localize`Give it a name.`;
    return this.volume().trim() === '' ? $localize`Say how much there is.` : '';
  });

  /** As the bench hands a leftover bath over: which lot and pot, how much of it, and what went into it. */
  readonly fromLot = input<string>();
  readonly litres = input<string>();
  readonly pot = input<string>();
  readonly kind = input<LiquorKind>();
  readonly named = input<string>();
  readonly of = input<string>();
  readonly dosed = input<string>();
  readonly leftInIt = input<string>();

  constructor() {
    effect(() => {
      const kind = this.kind();
      if (kind) this.choose(kind);
      this.lotId.set(this.fromLot() ?? '');
      if (this.litres()) this.volume.set(`${this.litres()} l`);
      this.vessel.set(this.pot() ?? '');
      this.name.set(this.named() ?? '');
      this.inside.set(this.of() ?? '');
      this.went.set(this.dosed() ?? '');
      this.leftG.set(this.leftInIt() === undefined ? undefined : Number(this.leftInIt()));
    });
  }

  protected choose(kind: LiquorKind): void {
    this.what.set(kind);
    this.keeps.set(DAYS[kind] === undefined ? '' : addDays(this.calendar.today(), DAYS[kind]));
  }

  protected keep(): void {
    const left = this.left();
    const material = this.dissolved().find((m) => m.id === this.inside());
    this.action.run(
      this.api.post('/api/liquors', {
        id: newId(),
        movementId: newId(),
        what: this.what(),
        vatKind: this.what() === 'vat' ? this.vatKind() : null,
        materialId: this.materialId() || null,
        newMaterial: this.name(),
        tag: '',
        quantityText: this.volume(),
        contents: material ? [{ materialId: material.id, name: material.name, grams: left?.value ?? 0 }] : [],
        working: left ?? null,
        fromLotId: this.lotId() || null,
        vessel: this.vessel(),
        place: this.place(),
        bestBefore: this.keeps() || null,
        note: this.note(),
      }),
      ({ id }) => void this.router.navigate(['/stores', id]),
    );
  }
}
