import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { NewStripTrial } from '@vestigia/contract';
import type { StepKind, StripFactor } from '@vestigia/core';
import { said, STRIP_FACTORS, STRIP_FACTOR_LABELS, levelLabel, readNumberText } from '@vestigia/core';
import { of } from 'rxjs';
import { offered } from '../../services/offered';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { toChoose } from '../../ui/put-away-too';

const AT: Readonly<Partial<Record<StripFactor, readonly StepKind[]>>> = {
  dose: ['extract', 'dye', 'makeUp'],
  source: ['extract', 'dye', 'makeUp'],
  mordant: ['mordant', 'tannin'],
  modifier: ['modify'],
};

/** Lays out a strip trial: which recipe, which one thing varies, what each strip gets. */
@Component({
  selector: 'vs-new-strip-trial',
  imports: [DraftOf, ActBar, RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './new-strip-trial.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewStripTrialPage {
  /** What its template says by what holds. */
  protected readonly says = {
    ifWeighed: $localize`if they were weighed`,
    minutesEach: $localize`Minutes, strip by strip`,
    percentEach: $localize`% of the weight of fibre, strip by strip`,
    tooFewStrips: $localize`A trial has two strips or more.`,
    stripsAlikeButFor: (value: string | number, factor: string | number): string =>
      $localize`${value} strips, alike but for the ${factor}.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  /** The recipe version come from. */
  readonly version = input<string | undefined>(undefined);
  /** What varies, of what, as a jar’s page asks for its test: two jars’ ids with a space between, and how much fibre. */
  readonly varies = input<string | undefined>(undefined);
  readonly material = input<string | undefined>(undefined);
  readonly jars = input<string | undefined>(undefined);
  readonly fibre = input<string | undefined>(undefined);
  protected readonly action = pageAction();
  protected readonly factors = STRIP_FACTORS;
  protected readonly factorLabel = STRIP_FACTOR_LABELS;
  protected readonly name = signal('');
  protected readonly versionId = linkedSignal(() => this.version() ?? '');
  protected readonly baseId = signal('');
  protected readonly waterId = signal('');
  protected readonly factor = linkedSignal<StripFactor>(() => STRIP_FACTORS.find((f) => f === this.varies()) ?? 'dose');
  protected readonly total = linkedSignal(() => this.fibre() ?? '');
  protected readonly quantityText = signal('');
  /** Liquors as people name them, one a line. */
  protected readonly bowls = signal('');
  protected readonly note = signal('');
  /** Jars or waters ticked; a new factor begins anew. */
  protected readonly chosen = linkedSignal<StripFactor, readonly string[]>({
    source: this.factor,
    computation: (factor) => (factor === 'source' ? (this.jars() ?? '').split(' ').filter((id) => id !== '') : []),
  });
  private readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  private readonly recipe = liveQuery(
    ['recipes'],
    () => {
      const id = this.factor() === 'liquor' ? '' : this.versionId();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => `${this.factor() === 'liquor'} ${this.versionId()}`,
  );
  protected readonly versions = computed(() =>
    toChoose(this.recipes.value()).flatMap((r) =>
      r.versions.map((v) => ({ id: v.id, label: $localize`${r.name}, version ${v.number} (${said(v.status)})` })),
    ),
  );
  protected readonly bases = computed(() =>
    toChoose(this.materials.value()).filter(
      (m) => m.base && (this.recipe.value()?.body.fibres.includes(m.base.fibre) ?? true),
    ),
  );
  /** What may vary: what the recipe doses where the factor acts. */
  protected readonly dosed = computed(() => {
    const kinds = AT[this.factor()];
    const v = this.recipe.value();
    const ids =
      v?.body.steps.filter((s) => kinds?.includes(s.kind)).flatMap((s) => s.doses.map((d) => d.materialId)) ?? [];
    return (v?.materials ?? []).filter((m) => ids.includes(m.id));
  });
  protected readonly materialId = offered(() => {
    const [only, ...more] = this.dosed();
    return this.dosed().find((m) => m.id === this.material())?.id ?? (more.length === 0 ? (only?.id ?? '') : '');
  });
  protected readonly stockLots = computed(() =>
    (this.shelf.value() ?? []).filter((j) => j.materialId === this.materialId() && j.onHand > 0),
  );
  /** Other salts to set beside the recipe's own: what is weighed, of that kind. */
  protected readonly kinds = computed(() => {
    const factor = this.factor();
    return factor === 'mordant' || factor === 'modifier'
      ? toChoose(this.materials.value()).filter((m) => m.kind === factor && m.measure === 'weight')
      : [];
  });
  protected readonly levels = computed((): NewStripTrial['levels'] => {
    const factor = this.factor();
    if (factor === 'liquor')
      return this.bowls()
        .split('\n')
        .map((line) => line.trim())
        .filter((line) => line !== '')
        .map((label) => ({ value: null, refId: null, label }));
    if (factor === 'source')
      return this.chosen().map((refId) => ({
        value: null,
        refId,
        label: this.stockLots().find((j) => j.id === refId)?.tag ?? 'jar',
      }));
    if (factor === 'water')
      return this.chosen().map((refId) => ({
        value: null,
        refId,
        label: this.studio.value()?.waters.find((w) => w.id === refId)?.name ?? 'water',
      }));
    if (this.kinds().length > 0 && this.chosen().length > 0)
      return this.chosen().map((refId) => ({
        value: null,
        refId,
        label: this.kinds().find((m) => m.id === refId)?.name ?? '',
      }));
    return this.quantityText()
      .split(/[;\s]+|,\s+|,(?!\d)/)
      .flatMap((text) => {
        const value = readNumberText(text);
        return value === undefined ? [] : [{ value, refId: null, label: levelLabel(factor, value) }];
      });
  });
  private readonly id = newId();

  protected toggle(id: string): void {
    this.chosen.update((now) => (now.includes(id) ? now.filter((o) => o !== id) : [...now, id]));
  }

  protected readonly missing = computed(() => {
    if (this.name().trim() === '') return $localize`Give the trial a name.`;
    if (this.factor() !== 'liquor' && this.versionId() === '') return $localize`Choose the recipe.`;
    if (this.baseId() === '') return $localize`Choose the base the strips are of.`;
    return this.levels().length < 2 ? $localize`A trial has two strips or more.` : '';
  });

  protected lay(): void {
    const trial = {
      id: this.id,
      name: this.name(),
      recipeVersionId: this.factor() === 'liquor' ? null : this.versionId() || null,
      baseMaterialId: this.baseId(),
      waterId: this.waterId() || null,
      factor: this.factor(),
      materialId: this.materialId() || null,
      totalText: this.total(),
      levels: this.levels(),
      note: this.note(),
    };
    this.action.run(
      this.api.post('/api/strip-trials', trial),
      ({ id }) => void this.router.navigate(['/recipes/strips', id]),
    );
  }
}
