import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { NewStripTrial } from '@vestigia/contract';
import type { StepKind, StripFactor } from '@vestigia/core';
import { STRIP_FACTORS, STRIP_FACTOR_WORDS, levelWords, readWrittenNumber } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const AT: Readonly<Partial<Record<StripFactor, readonly StepKind[]>>> = {
  dose: ['extract', 'dye', 'makeUp'],
  source: ['extract', 'dye', 'makeUp'],
  mordant: ['mordant', 'tannin'],
  modifier: ['modify'],
};

/** Lays out a strip trial: which recipe, which one thing varies, what each strip gets. */
@Component({
  selector: 'vs-new-strip-trial',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <div class="head"><h1>Lay out a strip trial</h1></div>
    <form (ngSubmit)="lay()">
      <div class="fields">
        <mat-form-field class="wide"
          ><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>By this recipe</mat-label
          ><select matNativeControl name="recipe" [(ngModel)]="versionId">
            <option value=""></option>
            @for (v of versions(); track v.id) {
              <option [value]="v.id">{{ v.words }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>On this base</mat-label
          ><select matNativeControl name="base" [(ngModel)]="baseId">
            <option value=""></option>
            @for (b of bases(); track b.id) {
              <option [value]="b.id">{{ b.name }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Water</mat-label
          ><select matNativeControl name="water" [(ngModel)]="waterId">
            <option value="">not said</option>
            @for (w of studio.value()?.waters; track w.id) {
              <option [value]="w.id">{{ w.name }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>One thing varies</mat-label
          ><select matNativeControl name="factor" [(ngModel)]="factor">
            @for (f of factors; track f) {
              <option [value]="f">{{ factorWords[f] }}</option>
            }
          </select></mat-form-field
        >
        @if (dosed().length > 0) {
          <mat-form-field
            ><mat-label>Of</mat-label
            ><select matNativeControl name="material" [(ngModel)]="materialId">
              <option value=""></option>
              @for (m of dosed(); track m.id) {
                <option [value]="m.id">{{ m.name }}</option>
              }
            </select></mat-form-field
          >
        }
        <mat-form-field
          ><mat-label>All strips together weigh, dry</mat-label
          ><input matInput name="total" [(ngModel)]="total" placeholder="60 g"
        /></mat-form-field>
        @if (factor() === 'dose' || factor() === 'mordant' || factor() === 'modifier' || factor() === 'time') {
          <mat-form-field class="wide"
            ><mat-label>{{
              factor() === 'time' ? 'Minutes, strip by strip' : '% of the weight of fibre, strip by strip'
            }}</mat-label
            ><input
              matInput
              name="levels"
              [(ngModel)]="written"
              [placeholder]="factor() === 'time' ? '15, 30, 60, 90' : '25, 50, 75, 100, 150, 200'"
          /></mat-form-field>
        }
      </div>
      @if (factor() === 'source') {
        <fieldset>
          <legend>A strip from each of these jars</legend>
          @for (j of jars(); track j.id) {
            <label class="tick"
              ><input type="checkbox" [checked]="chosen().includes(j.id)" (change)="toggle(j.id)" /> {{ j.tag }}
              <span class="soft">{{ j.source }}</span></label
            >
          } @empty {
            <p>Choose the dyestuff first.</p>
          }
        </fieldset>
      }
      @if (kinds().length > 0) {
        <fieldset>
          <legend>Or a strip with each of these, at the recipe’s own per cent</legend>
          @for (m of kinds(); track m.id) {
            <label class="tick"
              ><input type="checkbox" [checked]="chosen().includes(m.id)" (change)="toggle(m.id)" /> {{ m.name }}</label
            >
          }
        </fieldset>
      }
      @if (factor() === 'water') {
        <fieldset>
          <legend>A strip in each of these waters</legend>
          @for (w of studio.value()?.waters; track w.id) {
            <label class="tick"
              ><input type="checkbox" [checked]="chosen().includes(w.id)" (change)="toggle(w.id)" /> {{ w.name }}</label
            >
          }
        </fieldset>
      }
      <p>
        {{
          levels().length < 2
            ? 'A trial has two strips or more.'
            : levels().length + ' strips, alike but for the ' + factorWords[factor()] + '.'
        }}
      </p>
      <mat-form-field><mat-label>Note</mat-label><input matInput name="note" [(ngModel)]="note" /></mat-form-field>
      <vs-refusal [problem]="action.problem()" />
      <div class="actions">
        <button class="act main" type="submit" [disabled]="action.busy() || levels().length < 2">Lay it out</button
        ><a routerLink="/recipes/strips">Back to the trials</a>
      </div>
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewStripTrialPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  /** The recipe version come from. */
  readonly version = input<string | undefined>(undefined);
  protected readonly action = doing();
  protected readonly factors = STRIP_FACTORS;
  protected readonly factorWords = STRIP_FACTOR_WORDS;
  protected readonly name = signal('');
  protected readonly versionId = linkedSignal(() => this.version() ?? '');
  protected readonly baseId = signal('');
  protected readonly waterId = signal('');
  protected readonly factor = signal<StripFactor>('dose');
  protected readonly total = signal('');
  protected readonly written = signal('');
  protected readonly note = signal('');
  /** Jars or waters ticked; a new factor begins anew. */
  protected readonly chosen = linkedSignal<StripFactor, readonly string[]>({
    source: this.factor,
    computation: () => [],
  });
  private readonly recipes = live(['recipes'], () => this.api.get('/api/recipes'));
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  private readonly recipe = live(
    ['recipes'],
    () => {
      const id = this.versionId();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.versionId(),
  );
  protected readonly versions = computed(() =>
    (this.recipes.value() ?? []).flatMap((r) =>
      r.versions.map((v) => ({ id: v.id, words: `${r.name}, version ${v.number} (${v.standing})` })),
    ),
  );
  protected readonly bases = computed(() =>
    (this.materials.value() ?? []).filter(
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
  protected readonly materialId = linkedSignal(() => (this.dosed().length === 1 ? (this.dosed()[0]?.id ?? '') : ''));
  protected readonly jars = computed(() =>
    (this.shelf.value() ?? []).filter((j) => j.materialId === this.materialId() && j.onHand > 0),
  );
  /** Other salts to set beside the recipe's own: what is weighed, of that kind. */
  protected readonly kinds = computed(() => {
    const factor = this.factor();
    return factor === 'mordant' || factor === 'modifier'
      ? (this.materials.value() ?? []).filter((m) => m.kind === factor && m.measure === 'weight')
      : [];
  });
  protected readonly levels = computed((): NewStripTrial['levels'] => {
    const factor = this.factor();
    if (factor === 'source')
      return this.chosen().map((refId) => ({
        value: null,
        refId,
        label: this.jars().find((j) => j.id === refId)?.tag ?? 'jar',
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
    return this.written()
      .split(/[;\s]+|,\s+|,(?!\d)/)
      .flatMap((text) => {
        const value = readWrittenNumber(text);
        return value === undefined ? [] : [{ value, refId: null, label: levelWords(factor, value) }];
      });
  });
  private readonly id = newId();

  protected toggle(id: string): void {
    this.chosen.update((now) => (now.includes(id) ? now.filter((o) => o !== id) : [...now, id]));
  }

  protected lay(): void {
    const trial = {
      id: this.id,
      name: this.name(),
      recipeVersionId: this.versionId(),
      baseMaterialId: this.baseId(),
      waterId: this.waterId() || null,
      factor: this.factor(),
      materialId: this.materialId() || null,
      totalWritten: this.total(),
      levels: this.levels(),
      note: this.note(),
    };
    this.action.run(
      this.api.post('/api/strip-trials', trial),
      ({ id }) => void this.router.navigate(['/recipes/strips', id]),
    );
  }
}
