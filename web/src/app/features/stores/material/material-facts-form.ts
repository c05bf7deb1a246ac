import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Material, MaterialFacts } from '@vestigia/contract';
import type { Hazard } from '@vestigia/core';
import {
  CATALOGUE,
  DYESTUFF_NEED_LABELS,
  DYESTUFF_NEEDS,
  FASTNESS_LABELS,
  HAZARDS,
  HAZARD_LABELS,
  MATERIAL_FORMS,
  formatAmount,
  readAmount,
} from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../../api/opened-on';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { Meanwhile } from '../../../ui/meanwhile';
import { toChoose } from '../../../ui/put-away-too';
import { RefusalNote } from '../../../ui/refusal';
import { NumberField } from '../../../ui/number-field';
import { DraftOf } from '../../../ui/draft';
import { InDegrees } from '../../../ui/degrees';
import { Said } from '../../../ui/said';

const MONTHS = [
  $localize`January`,
  $localize`February`,
  $localize`March`,
  $localize`April`,
  $localize`May`,
  $localize`June`,
  $localize`July`,
  $localize`August`,
  $localize`September`,
  $localize`October`,
  $localize`November`,
  $localize`December`,
] as const;

/** Facts as the form calls them, each in a word or two. */
const FACT_LABELS: Readonly<Partial<Record<keyof MaterialFacts, string>>> = {
  botanicalName: 'botanical name',
  plantPart: $localize`part of the plant`,
  forms: $localize`forms`,
  ceilingC: $localize`never above, °C`,
  water: $localize`water`,
  phLow: $localize`lowest pH`,
  phHigh: $localize`highest pH`,
  light: $localize`fastness to light`,
  wash: $localize`fastness to washing`,
  needs: $localize`how it holds`,
  leadTimeDays: $localize`days until it comes`,
  reorderPoint: $localize`when to order`,
  reorderQuantity: $localize`how much to order`,
};
const sayFacts = (facts: MaterialFacts): Record<string, string> =>
  Object.fromEntries(
    Object.entries(FACT_LABELS).map(([field, label]) => [label, String(facts[field as keyof MaterialFacts] ?? '')]),
  );

/** What the studio knows of a material; everything may be changed, and whoever changes an old reading sees both. */
@Component({
  selector: 'vs-material-facts-form',
  imports: [
    Said,
    InDegrees,
    DraftOf,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    RefusalNote,
  ],
  templateUrl: './material-facts-form.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialFactsForm {
  /** What its template says by what holds. */
  protected readonly says = {
    notAbove: $localize`Not above`,
  };

  private readonly api = inject(ApiClient);
  readonly material = input.required<Material>();
  readonly saved = output();
  protected readonly saving = pageAction();
  protected readonly fastness = FASTNESS_LABELS;
  protected readonly forms = MATERIAL_FORMS;
  protected readonly groups = ['protein', 'cellulose'] as const;
  protected readonly hazards = HAZARDS;
  protected readonly hazardLabel = HAZARD_LABELS;
  protected readonly months = MONTHS;
  protected readonly needs = DYESTUFF_NEEDS;
  protected readonly needLabel = DYESTUFF_NEED_LABELS;
  protected readonly entries = computed(() => CATALOGUE.filter((e) => e.kind === this.material().kind));
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly auxiliaries = computed(() =>
    toChoose(this.materials.value()).filter((m) => m.kind !== 'fibre' && m.measure !== 'pieces'),
  );
  protected readonly opened = openedOn(() => this.material(), {
    key: (m) => m.id,
    version: (m) => m.version,
    say: ({ name, note, hazards, base, facts }) => ({
      name,
      note,
      hazards: hazards.map((h) => HAZARD_LABELS[h]).join(', '),
      'weight of a metre': String(base?.gPerM ?? ''),
      ...sayFacts(facts),
    }),
  });
  /** What the form stands on: it doesn't follow others while somebody writes. */
  private readonly on = computed(() => this.opened.value() ?? this.material());
  protected readonly name = linkedSignal(() => this.on().name);
  protected readonly gPerM = linkedSignal(() => this.on().base?.gPerM ?? null);
  protected readonly note = linkedSignal(() => this.on().note);
  protected readonly facts = linkedSignal(() => this.on().facts);
  protected readonly chosen = linkedSignal<readonly Hazard[]>(() => this.on().hazards);
  protected readonly point = linkedSignal(() => this.write(this.on().facts.reorderPoint));
  protected readonly quantity = linkedSignal(() => this.write(this.on().facts.reorderQuantity));
  private readonly read = computed(() =>
    [this.point(), this.quantity()].map((text) =>
      text.trim() === '' ? null : readAmount(text, this.material().measure, { allowNothing: true }),
    ),
  );
  protected readonly wrong = computed(() => {
    const bad = this.read().find((r) => r !== null && !r.ok);
    return bad && !bad.ok ? { detail: $localize`When to order, and how much: ${bad.message}` } : undefined;
  });

  constructor() {
    readAnewWhenStale(this.saving, () => this.saved.emit());
  }

  private write(amount: number | null): string {
    return amount === null ? '' : formatAmount(amount, this.material().measure);
  }

  protected set(change: Partial<MaterialFacts>): void {
    this.facts.update((f) => ({ ...f, ...change }));
  }

  protected setMonth(which: 'fromMonth' | 'toMonth', month: number): void {
    const season = this.facts().season;
    this.set({
      season:
        month === 0
          ? null
          : { fromMonth: season?.fromMonth ?? month, toMonth: season?.toMonth ?? month, [which]: month },
    });
  }

  protected setPacket(change: { contentsG?: number; fibreG?: number }): void {
    this.set({ packet: { contentsG: 10, fibreG: 100, auxiliaries: [], ...this.facts().packet, ...change } });
  }

  protected setAuxiliary(change: { materialId?: string; amount?: number }): void {
    const packet = this.facts().packet ?? { contentsG: 10, fibreG: 100, auxiliaries: [] };
    const first = { materialId: '', amount: 0, ...packet.auxiliaries[0], ...change };
    this.set({ packet: { ...packet, auxiliaries: first.materialId === '' ? [] : [first] } });
  }

  protected toggleForm(form: (typeof MATERIAL_FORMS)[number]): void {
    this.set({ forms: toggled(this.facts().forms, form) });
  }

  protected toggleGroup(group: 'protein' | 'cellulose'): void {
    this.set({ fibreGroups: toggled(this.facts().fibreGroups, group) });
  }

  protected toggleHazard(hazard: Hazard): void {
    this.chosen.update((now) => toggled(now, hazard));
  }

  protected save(): void {
    if (this.wrong()) return;
    const [point, quantity] = this.read().map((r) => (r?.ok ? r.amount : null));
    const { kind, measure, base } = this.on();
    const facts = { ...this.facts(), reorderPoint: point ?? null, reorderQuantity: quantity ?? null };
    this.saving.run(
      this.api.put(
        '/api/materials/{id}',
        {
          version: this.opened.version(),
          name: this.name(),
          kind,
          measure,
          base: base && { ...base, gPerM: this.gPerM() },
          hazards: [...this.chosen()],
          note: this.note(),
          facts,
        },
        this.material().id,
      ),
      () => {
        this.opened.take();
        this.saved.emit();
      },
    );
  }
}

const toggled = <T>(list: readonly T[], value: T): T[] =>
  list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
