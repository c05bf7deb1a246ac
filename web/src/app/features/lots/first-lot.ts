import { said } from '@vestigia/core';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { FibreKind, Starter } from '@vestigia/core';
import {
  CATALOGUE,
  FIBRE_KINDS,
  STARTER_LABELS,
  VESSEL_METALS,
  catalogueEntry,
  readLotSize,
  starterNeeds,
  startersFor,
} from '@vestigia/core';
import { offered } from '../../services/offered';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { toChoose } from '../../ui/put-away-too';
import { Said } from '../../ui/said';

const PIECE_WORDS: Readonly<Partial<Record<FibreKind, string>>> = { silk: 'scarf', cotton: 'length', linen: 'length' };
/** Bought or gathered a little more than one lot takes. */
const SPARE = 1.25;

/** What one needs of a material, and what there is of it. */
interface Need {
  readonly key: string;
  readonly name: string;
  readonly needs: string;
  readonly enough: string;
}

/** The first lot of an empty studio, on one page: what is on the pot, which cloth, which dyestuff, how much. */
@Component({
  selector: 'vs-first-lot',
  imports: [
    Said,
    DraftOf,
    ActBar,
    ScrollRegion,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
  ],
  templateUrl: './first-lot.html',
  styles: `
    .tick {
      flex-wrap: nowrap;
    }
    td input {
      font: inherit;
      min-height: 44px;
      padding: 0 0.6rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FirstLotPage {
  /** What its template says by what holds. */
  protected readonly says = {
    potHolds: $localize`Your pot holds, l`,
    secondPotHolds: $localize`Another pot, l, if you like`,
    examplePieces: (pieceWord: string | number): string => $localize`e.g. 3 ${pieceWord}s of 100 g`,
    thereIs: (name: string | number): string => $localize`There is, ${name}`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  private readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly pots = computed(() => this.studio.value()?.vessels ?? []);
  protected readonly metals = VESSEL_METALS;
  protected readonly fibres = FIBRE_KINDS.filter((f) => f !== 'synthetic');
  protected readonly dyestuffs = CATALOGUE.filter((e) => e.kind === 'dyestuff' && e.needs !== 'vat').sort((a, b) =>
    a.name.localeCompare(b.name),
  );
  protected readonly label = STARTER_LABELS;
  protected readonly litres = signal<number | null>(null);
  protected readonly metal = signal<(typeof VESSEL_METALS)[number]>('stainless');
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  /** Cloth that the studio has already. */
  protected readonly own = computed(() => toChoose(this.materials.value()).filter((m) => m.kind === 'fibre'));
  /** A fibre, or the id of a cloth that the studio has. */
  protected readonly cloth = offered<string>(() => this.own()[0]?.id ?? 'wool');
  private readonly ownBase = computed(() => this.own().find((m) => m.id === this.cloth()));
  protected readonly fibre = computed(
    (): FibreKind => this.ownBase()?.base?.fibre ?? FIBRE_KINDS.find((f) => f === this.cloth()) ?? 'wool',
  );
  protected readonly pieceWord = offered(() => this.ownBase()?.base?.pieceWord ?? PIECE_WORDS[this.fibre()] ?? 'skein');
  protected readonly size = signal('');
  protected readonly dyestuffKey = signal('');
  protected readonly dyestuff = computed(() => catalogueEntry(this.dyestuffKey()));
  protected readonly starters = computed(() => {
    const dyestuff = this.dyestuff();
    return dyestuff ? startersFor(this.fibre(), dyestuff) : [];
  });
  protected readonly starter = linkedSignal<Starter | undefined>(() => this.starters()[0]);
  protected readonly name = linkedSignal(() => {
    const dyestuff = this.dyestuff();
    return dyestuff ? $localize`${dyestuff.name} on ${said(this.fibre())}` : '';
  });
  protected readonly reading = computed(() =>
    this.size().trim() === ''
      ? undefined
      : readLotSize(this.size(), { pieceWord: this.pieceWord(), usualPieceWeightG: 100 }),
  );
  private readonly wofG = computed(() => {
    const reading = this.reading();
    return reading?.ok ? reading.size.pieces * reading.size.pieceWeightG : undefined;
  });
  protected readonly needs = computed((): Need[] => {
    const [starter, wofG] = [this.starter(), this.wofG()];
    if (!starter || wofG === undefined) return [];
    return [
      { key: '', name: $localize`The ${said(this.fibre())}`, needs: `${wofG} g`, enough: `${wofG} g` },
      ...starterNeeds(starter, this.dyestuffKey()).map(({ key, percentOwf }) => {
        const entry = catalogueEntry(key);
        const unit = entry?.measure === 'volume' ? 'ml' : 'g';
        const amount = (percentOwf / 100) * wofG;
        return {
          key,
          name: entry?.name ?? '',
          needs: `${tidy(amount)} ${unit}`,
          enough: `${Math.ceil(amount * SPARE)} ${unit}`,
        };
      }),
    ];
  });
  /** What there is of each, where that was written otherwise than “enough”. */
  protected readonly written = signal<Readonly<Record<string, string>>>({});
  protected readonly whyNot = computed(() => {
    if (this.pots().length === 0 && !this.litres()) return $localize`Say how many litres the pot holds.`;
    const reading = this.reading();
    if (!reading) return $localize`Say how many pieces, of what weight.`;
    if (!reading.ok) return reading.message;
    if (!this.starter()) return $localize`Choose a dyestuff.`;
    return '';
  });
  private readonly colourwayId = newId();

  protected write(key: string, text: string): void {
    this.written.update((all) => ({ ...all, [key]: text }));
  }

  protected begin(): void {
    const [starter, reading, litres, own] = [this.starter(), this.reading(), this.litres(), this.ownBase()];
    if (!starter || !reading?.ok || this.whyNot() !== '') return;
    this.action.run(
      this.api.post('/api/first-lot', {
        id: this.colourwayId,
        name: this.name(),
        pot: litres === null ? null : { name: `${litres} l pot`, metal: this.metal(), litres },
        base: own
          ? { materialId: own.id }
          : {
              name: this.fibre().charAt(0).toUpperCase() + this.fibre().slice(1),
              fibre: this.fibre(),
              pieceWord: this.pieceWord(),
              usualPieceWeightG: reading.size.pieceWeightG,
            },
        starter,
        dyestuffKey: this.dyestuffKey(),
        onHand: this.needs().map(({ key, enough }) => {
          const quantityText = this.written()[key];
          return { key, quantityText: quantityText ?? enough, guessed: quantityText === undefined };
        }),
      }),
      ({ id }) => void this.router.navigate(['/lots/new'], { queryParams: { colourway: id, size: this.size() } }),
    );
  }
}

const tidy = (amount: number): number => (amount >= 10 ? Math.round(amount) : Math.round(amount * 10) / 10);
