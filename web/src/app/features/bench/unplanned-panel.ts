import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, ShelfRow } from '@vestigia/contract';
import type { BenchAct, StepKind, StrainWay, Trait } from '@vestigia/core';
import { STEP_KIND_LABELS, STRAIN_LABELS, STRAIN_WAYS, findReaction } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { NumberField } from '../../ui/number-field';
import { BenchState } from './bench-state';
import type { EntryContent } from './entry-content';
import { DraftOf } from '../../ui/draft';
import { InDegrees } from '../../ui/degrees';
import { Said } from '../../ui/said';

type What = 'add' | 'moved' | 'pieces' | 'strained' | 'extra';
const WAYS: readonly { readonly key: What; readonly label: string }[] = [
  { key: 'add', label: $localize`Something else went in` },
  { key: 'moved', label: $localize`Another pot or water` },
  { key: 'pieces', label: $localize`Pieces put in or taken out` },
  { key: 'strained', label: $localize`Strained another way` },
  { key: 'extra', label: $localize`A step the chain doesn’t have` },
];
/** Kinds that somebody does beside a chain. */
const KINDS: readonly StepKind[] = [
  'rinse',
  'modify',
  'dye',
  'exhaust',
  'mordant',
  'tannin',
  'scour',
  'wetOut',
  'extract',
  'wash',
  'dry',
  'cure',
];

/** What is known of a jar: by the shelf, or by a lot that is weighed from it. */
type KnownJar = Pick<ShelfRow, 'id' | 'tag' | 'materialId' | 'material' | 'measure' | 'onHand' | 'hazards'> & {
  /** `null` in a plan of an early version, which didn’t keep it. */
  readonly kind: ShelfRow['kind'] | null;
};

/** What a jar does in a bath, as far as the shelf says. */
const traitsOf = ({ hazards, kind }: KnownJar): Trait[] => (kind === 'tannin' ? [...hazards, 'tannin'] : hazards);

/** What happened that the plan doesn't have, kept as facts: they count when the lot is dyed again. */
@Component({
  selector: 'vs-unplanned-panel',
  imports: [Said, InDegrees, DraftOf, FormsModule, MatFormFieldModule, MatInputModule, NumberField],
  templateUrl: './unplanned-panel.html',
  styleUrls: ['./bench.scss', './taps.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnplannedPanel {
  /** What its template says by what holds. */
  protected readonly says = {
    exampleWeight: $localize`e.g. 20 g`,
    exampleAmount: $localize`e.g. 20 g, or a handful`,
    howHot: $localize`How hot`,
    outOf: (material: string | number, tag: string | number): string => $localize`${material} out of ${tag}`,
    fromNoJar: $localize`From no jar on the shelf.`,
  };

  private readonly api = inject(ApiClient);
  protected readonly state = inject(BenchState);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly recorded = output<EntryContent>();
  protected readonly ways = WAYS;
  protected readonly kinds = KINDS;
  protected readonly kindLabel = STEP_KIND_LABELS;
  protected readonly what = signal<What | undefined>(undefined);
  protected readonly batch = signal(1);
  protected readonly why = signal('');
  protected readonly named = signal('');
  protected readonly howMuch = signal('');
  protected readonly guessed = signal(false);
  protected readonly potId = signal('');
  protected readonly waterId = signal('');
  protected readonly out = signal(false);
  protected readonly pieces = signal<number | null>(1);
  protected readonly strains = STRAIN_WAYS;
  protected readonly strainLabel = STRAIN_LABELS;
  protected readonly strain = signal<StrainWay>('muslin');
  protected readonly title = signal('');
  protected readonly stepKind = signal<StepKind>('rinse');
  protected readonly minutes = signal<number | null>(null);
  protected readonly degrees = signal<number | null>(null);
  private readonly shelf = liveQuery<ShelfRow[] | undefined>(
    ['stores'],
    () => (this.what() === 'add' ? this.api.get('/api/stores') : of(undefined)),
    () => this.what() === 'add',
  );
  /** Without the server, the jars that the lots at the bench are weighed from. */
  private readonly atHand = computed((): KnownJar[] =>
    this.state.lots().flatMap((lot) =>
      lot.stockLots.flatMap(({ id, tag, materialId, measure, onHand }) => {
        const material = lot.plan.materials.find((m) => m.materialId === materialId);
        return material && !lot.plan.groups.some((g) => g.baseId === materialId)
          ? [{ id, tag, materialId, measure, onHand, material: material.name, kind: material.kind, hazards: [] }]
          : [];
      }),
    ),
  );
  private readonly known = computed((): readonly KnownJar[] => this.shelf.value() ?? this.atHand());
  /** What a jar must not meet is known from the shelf alone. */
  protected readonly isUnchecked = computed(() => this.shelf.value() === undefined && this.jar() !== undefined);
  protected readonly jars = computed(() => this.known().filter((j) => j.onHand > 0 && j.kind !== 'fibre'));
  protected readonly jar = computed(() => {
    const named = this.named().trim().toLowerCase();
    return named === '' ? undefined : this.jars().find((j) => j.tag.toLowerCase() === named);
  });
  /** What it must not meet in this bath: said before it is written down. */
  protected readonly meets = computed(() => {
    const [jar, { step, record }] = [this.jar(), this.act()];
    if (this.what() !== 'add' || !jar) return undefined;
    const inBath = [...step.weighings, ...(record.added ?? [])].flatMap((w) => w.materialId ?? []);
    for (const other of this.known()) {
      if (!inBath.includes(other.materialId)) continue;
      const reaction = findReaction(traitsOf(jar), traitsOf(other), (r) => r.inBath !== null);
      if (reaction) return { name: other.material, reaction };
    }
    return undefined;
  });

  protected choose(what: What): void {
    this.what.update((open) => (open === what ? undefined : what));
  }

  protected keep(): void {
    const content = this.content();
    if (content) this.recorded.emit(content);
  }

  private content(): EntryContent | undefined {
    const [text, batch] = [this.why().trim() || null, this.batch()];
    switch (this.what()) {
      case 'add':
        return this.added(batch, text);
      case 'moved': {
        const vessel = this.state.around()?.vessels.find((v) => v.id === this.potId());
        const water = this.state.around()?.waters.find((w) => w.id === this.waterId());
        return {
          kind: 'moved',
          text,
          detail: {
            ...(vessel ? { vessels: [{ batch, vesselId: vessel.id, vesselName: vessel.name }] } : {}),
            ...(water ? { water: { id: water.id, name: water.name } } : {}),
          },
        };
      }
      case 'pieces':
        return { kind: 'pieces', text, detail: { batch, change: (this.out() ? -1 : 1) * (this.pieces() ?? 0) } };
      case 'strained':
        return { kind: 'strained', text, detail: { way: this.strain() } };
      case 'extra': {
        const [minutes, temperatureC] = [this.minutes(), this.degrees()];
        return {
          kind: 'extra',
          text,
          detail: {
            title: this.title().trim(),
            stepKind: this.stepKind(),
            ...(minutes === null ? {} : { minutes }),
            ...(temperatureC === null ? {} : { temperatureC }),
          },
        };
      }
      case undefined:
        return undefined;
    }
  }

  private added(batch: number, text: string | null): EntryContent {
    const [jar, quantityText] = [this.jar(), this.howMuch().trim()];
    return {
      kind: 'add',
      text,
      weighing: jar
        ? { batch, materialId: jar.materialId, stockLotId: jar.id, quantityText, movementId: newId() }
        : null,
      detail: {
        batch,
        name: jar?.material ?? this.named().trim(),
        measure: jar?.measure ?? 'weight',
        quantityText,
        guessed: this.guessed(),
      },
    };
  }
}
