import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { Material } from '@vestigia/contract';
import type { CatalogueEntry, FibreKind, Hazard } from '@vestigia/core';
import {
  CATALOGUE,
  catalogueEntry,
  factsOf,
  fibreLabel,
  recogniseMaterial,
  FIBRE_KINDS,
  HAZARDS,
  HAZARD_LABELS,
  MATERIAL_KINDS,
  MATERIAL_KIND_LABELS,
  notOffered,
  readWeight,
  refusedSalt,
} from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { StoresNav } from '../stores-nav';
import { NumberField } from '../../../ui/number-field';
import { Fold } from '../../../ui/fold';
import { ActBar } from '../../../ui/act-bar';
import { DraftOf } from '../../../ui/draft';

/** Says what a material is: taken from the catalogue, or written anew. Jars of it are booked in afterwards. */
@Component({
  selector: 'vs-new-material',
  imports: [
    Fold,
    MatAutocompleteModule,
    DraftOf,
    ActBar,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    StoresNav,
  ],
  templateUrl: './new-material.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewMaterialPage {
  /** What its template says by what holds. */
  protected readonly says = {
    hereAlready: $localize`· here already`,
    fibreKind: $localize`fibre, a base to dye`,
    noHazards: $localize`nothing said yet`,
    nameMissing: $localize`Give it a name.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  protected readonly kinds = MATERIAL_KINDS;
  protected readonly kindLabel = MATERIAL_KIND_LABELS;
  protected readonly fibres = FIBRE_KINDS;
  protected readonly fibreLabel = fibreLabel;
  protected readonly hazards = HAZARDS;
  protected readonly hazardLabel = HAZARD_LABELS;
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly taken = signal<CatalogueEntry | undefined>(undefined);
  protected readonly name = signal('');
  protected readonly kind = signal<Material['kind']>('dyestuff');
  protected readonly measure = signal<Material['measure']>('weight');
  protected readonly note = signal('');
  protected readonly chosen = signal<readonly Hazard[]>([]);
  protected readonly fibre = signal<FibreKind>('wool');
  protected readonly pieceWord = signal('hank');
  protected readonly pieceWeight = signal('100 g');
  protected readonly gPerM = signal<number | null>(null);
  protected readonly second = signal<FibreKind | ''>('');
  protected readonly secondPercent = signal<number | null>(null);
  protected readonly L = signal(85);
  protected readonly a = signal(0);
  protected readonly b = signal(10);
  protected readonly weightProblem = signal<{ detail: string } | undefined>(undefined);
  private readonly id = newId();

  /** All that the catalogue has by these words: of what it is called, kinds and plants. */
  protected readonly found = computed(() => {
    const label = this.name().trim().toLowerCase();
    return CATALOGUE.filter((e) =>
      `${e.name} ${e.kind} ${e.botanicalName} ${e.plantPart}`.toLowerCase().includes(label),
    );
  });
  /** What is ticked, with what comes along from the catalogue by the name alone. */
  protected readonly hazardsSaid = computed(() =>
    [...new Set([...this.chosen(), ...(this.recognised()?.hazards ?? [])])].map((h) => HAZARD_LABELS[h]).join('; '),
  );
  protected readonly notOffered = computed(() => (refusedSalt(this.name()) ? notOffered() : undefined));
  /** What of the catalogue a name written by hand most likely means; its hazards come along. */
  protected readonly recognised = computed(() =>
    this.taken() || this.kind() === 'fibre' ? undefined : catalogueEntry(recogniseMaterial(this.name())),
  );
  protected readonly isHere = (entry: CatalogueEntry): boolean =>
    (this.materials.value() ?? []).some((m) => m.name.toLowerCase() === entry.name.toLowerCase());

  protected takeKey(key: string): void {
    const entry = CATALOGUE.find((e) => e.key === key);
    if (entry) this.take(entry);
  }

  private take(entry: CatalogueEntry): void {
    this.taken.set(entry);
    this.name.set(entry.name);
    this.kind.set(entry.kind);
    this.measure.set(entry.measure);
    this.note.set(entry.note);
    this.chosen.set(entry.hazards);
  }

  protected toggle(hazard: Hazard): void {
    this.chosen.update((now) => (now.includes(hazard) ? now.filter((h) => h !== hazard) : [...now, hazard]));
  }

  protected add(): void {
    const isFibre = this.kind() === 'fibre';
    const weight = readWeight(this.pieceWeight());
    this.weightProblem.set(isFibre && !weight.ok ? { detail: weight.message } : undefined);
    if (isFibre && !weight.ok) return;
    const base =
      isFibre && weight.ok
        ? {
            fibre: this.fibre(),
            pieceWord: this.pieceWord(),
            usualPieceWeightG: weight.weightG,
            gPerM: this.gPerM(),
            ...this.blend(),
            undyed: { L: this.L(), a: this.a(), b: this.b(), illuminant: 'D65' as const, observer: '10' as const },
          }
        : null;
    const body = {
      id: this.id,
      name: this.name(),
      kind: this.kind(),
      measure: isFibre ? ('weight' as const) : this.measure(),
      hazards: [...this.chosen()],
      note: this.note(),
      base,
      ...(isFibre ? {} : this.factsTaken()),
    };
    this.action.run(
      this.api.post('/api/materials', body),
      () => void this.router.navigate(['/stores/delivery'], { queryParams: { material: this.id } }),
    );
  }

  private blend() {
    const [second, percent] = [this.second(), this.secondPercent()];
    if (second === '' || percent === null) return {};
    return {
      blend: [
        { fibre: this.fibre(), sharePercent: 100 - percent },
        { fibre: second, sharePercent: percent },
      ],
    };
  }

  private factsTaken() {
    const entry = this.taken();
    return { facts: entry ? factsOf(entry) : { catalogueKey: this.recognised()?.key ?? null } };
  }
}
