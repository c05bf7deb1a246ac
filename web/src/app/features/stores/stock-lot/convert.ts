import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { ConversionKind, Figure } from '@vestigia/core';
import {
  FIBRE_CONVERSIONS,
  blendStrength,
  formatAmount,
  freshToDried,
  readAmount,
  stockConcentration,
} from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { StudioSettings } from '../../../api/studio-settings';
import { liveQuery } from '../../../api/live-query';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { ActBar } from '../../../ui/act-bar';
import { DraftOf } from '../../../ui/draft';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';
import { toChoose } from '../../../ui/put-away-too';

const KINDS: readonly { kind: ConversionKind; name: string; out: string; hint: string }[] = [
  {
    kind: 'dry',
    name: $localize`Dry`,
    out: $localize`What it weighs dried`,
    hint: $localize`Fresh stock dried. Both weights give its fresh to dried factor, kept with the material.`,
  },
  {
    kind: 'freeze',
    name: $localize`Freeze`,
    out: $localize`What went into the freezer`,
    hint: $localize`Fresh stock into the freezer; what was sorted out is the loss.`,
  },
  {
    kind: 'grind',
    name: $localize`Grind`,
    out: $localize`What came out of the mill`,
    hint: $localize`Whole stock ground. Dust mask, goggles, no draught.`,
  },
  {
    kind: 'dissolve',
    name: $localize`Make a stock solution`,
    out: $localize`Made up to, volume`,
    hint: $localize`Crystals dissolved and made up to a volume. The concentration follows.`,
  },
  {
    kind: 'blend',
    name: $localize`Blend`,
    out: $localize`What the blend weighs`,
    hint: $localize`Several jars into one. Its strength is the mean by weight, known only if every part’s is; every parent stays known.`,
  },
  {
    kind: 'open',
    name: $localize`Open packets`,
    out: $localize`What was in them`,
    hint: $localize`Whole packets into a jar, by weight.`,
  },
  {
    kind: 'wind',
    name: $localize`Wind off`,
    out: $localize`What was wound off, by weight`,
    hint: $localize`Cones into hanks, hanks into skeins: the same fibre in pieces of another size.`,
  },
  {
    kind: 'cut',
    name: $localize`Cut`,
    out: $localize`What was cut, by weight`,
    hint: $localize`Cloth into lengths, lengths into pieces. What falls off is the loss.`,
  },
  {
    kind: 'compost',
    name: $localize`To the compost`,
    out: '',
    hint: $localize`What is left over leaves the shelf. Local rules say what may go on soil.`,
  },
];

interface Part {
  readonly stockLotId: string;
  readonly quantityText: string;
}

/** Changes the form of stock: dries, freezes, grinds, dissolves, blends, opens, composts. Parents stay known. */
@Component({
  selector: 'vs-convert',
  imports: [
    DayField,
    DayPicker,
    DraftOf,
    ActBar,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    RefusalNote,
  ],
  providers: [StudioSettings],
  templateUrl: './convert.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConvertPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(StudioSettings);
  readonly stockLot = input<string>();
  protected readonly kinds = KINDS;
  protected readonly action = pageAction();
  protected readonly toChoose = toChoose;
  protected readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  /** What one would most likely do with the jar one came from. */
  private readonly measure = computed(() => this.shelf.value()?.find((j) => j.id === this.stockLot())?.measure);
  private readonly isFibre = computed(
    () => this.shelf.value()?.find((j) => j.id === this.stockLot())?.kind === 'fibre',
  );
  protected readonly isPieces = computed(() => FIBRE_CONVERSIONS.includes(this.kind()));
  protected readonly pieceWord = signal('');
  protected readonly pieceWeight = signal('');
  protected readonly kind = linkedSignal<ConversionKind>(() =>
    this.isFibre() ? 'wind' : this.measure() === 'pieces' ? 'open' : this.measure() === 'volume' ? 'blend' : 'dry',
  );
  protected readonly chosen = computed(
    () => KINDS.find((k) => k.kind === this.kind()) ?? (KINDS[0] as (typeof KINDS)[number]),
  );
  protected readonly stockLots = computed(() =>
    (this.shelf.value() ?? []).filter(
      (j) =>
        j.free > 0 &&
        (this.kind() === 'compost' ||
          (FIBRE_CONVERSIONS.includes(this.kind())
            ? j.kind === 'fibre'
            : j.kind !== 'fibre' && (this.kind() === 'open') === (j.measure === 'pieces'))),
    ),
  );
  protected readonly parts = linkedSignal<readonly Part[]>(() => [
    { stockLotId: this.stockLot() ?? '', quantityText: '' },
  ]);
  protected readonly out = signal('');
  protected readonly into = signal('');
  protected readonly newName = signal('');
  protected readonly place = signal('');
  protected readonly container = signal('');
  protected readonly bestBefore = signal('');
  protected readonly tag = signal('');
  protected readonly note = signal('');
  protected readonly amount = formatAmount;

  protected readonly missing = computed(() => {
    if (this.parts().some((p) => p.stockLotId === '')) return $localize`Choose the jar.`;
    if (this.parts().some((p) => p.quantityText.trim() === '')) return $localize`Say how much of it.`;
    return this.kind() !== 'compost' && this.out().trim() === '' ? $localize`Say what came out.` : '';
  });

  private readonly inputs = computed(() =>
    this.parts().flatMap((p) => {
      const stockLot = this.shelf.value()?.find((j) => j.id === p.stockLotId);
      const density = this.materials.value()?.find((m) => m.id === stockLot?.materialId)?.bulkDensityGPerMl;
      const reading = stockLot
        ? readAmount(p.quantityText, stockLot.measure, this.house.measuring(density))
        : undefined;
      return stockLot && reading?.ok
        ? [
            {
              stockLotId: stockLot.id,
              tag: stockLot.tag,
              weightG: reading.amount / 1000,
              strengthPercent: stockLot.strengthPercent,
            },
          ]
        : [];
    }),
  );
  private readonly outAmount = computed(() => {
    const reading = readAmount(
      this.out(),
      this.kind() === 'dissolve' ? 'volume' : 'weight',
      this.house.measuring(undefined),
    );
    return reading.ok ? reading.amount / 1000 : undefined;
  });
  protected readonly resultLabel = computed(
    () =>
      (
        ({ dry: $localize`Fresh to dried`, dissolve: $localize`Concentration`, blend: $localize`Strength` }) as Partial<
          Record<ConversionKind, string>
        >
      )[this.kind()] ?? '',
  );
  protected readonly result = computed((): Figure | null => {
    const inG = this.inputs().reduce((sum, i) => sum + i.weightG, 0);
    const out = this.outAmount();
    if (inG <= 0 || out === undefined) return null;
    if (this.kind() === 'dry') return out <= inG ? freshToDried(inG, out) : null;
    if (this.kind() === 'dissolve') return stockConcentration(inG, out);
    return this.kind() === 'blend' ? blendStrength(this.inputs()) : null;
  });
  protected readonly loss = computed(() => {
    const inG = this.inputs().reduce((sum, i) => sum + i.weightG, 0);
    const out = this.outAmount();
    if (inG <= 0 || out === undefined || ['dissolve', 'compost', 'open'].includes(this.kind())) return '';
    const lossMg = Math.round((inG - out) * 1000);
    return lossMg < 0
      ? $localize`More would come out than went in: weigh again.`
      : $localize`${formatAmount(lossMg, 'weight')} goes off as loss; the rest is accounted for.`;
  });

  protected set(at: number, change: Partial<Part>): void {
    this.parts.update((parts) => parts.map((p, i) => (i === at ? { ...p, ...change } : p)));
  }

  protected add(): void {
    this.parts.update((parts) => [...parts, { stockLotId: '', quantityText: '' }]);
  }

  protected convert(): void {
    const kind = this.kind();
    const into = this.into();
    const output =
      kind === 'compost'
        ? null
        : {
            movementId: newId(),
            stockLotId: newId(),
            materialId: into === '' || into === 'new' ? null : into,
            newMaterial: into === 'new' ? this.newName() : '',
            tag: this.tag(),
            quantityText: this.out(),
            place: this.place(),
            bestBefore: this.bestBefore() || null,
            container: this.container(),
            tareText: '',
            piece:
              this.isPieces() && into === 'new' ? { word: this.pieceWord(), weightText: this.pieceWeight() } : null,
          };
    const inputs = this.parts()
      .filter((p) => p.stockLotId !== '')
      .map((p) => ({ movementId: newId(), stockLotId: p.stockLotId, quantityText: p.quantityText }));
    this.action.run(
      this.api.post('/api/conversions', { id: newId(), kind, inputs, output, note: this.note() }),
      ({ id }) => void this.router.navigate(kind === 'compost' ? ['/stores'] : ['/stores', id]),
    );
  }
}
