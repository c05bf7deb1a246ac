import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { RecipeBody } from '@vestigia/contract';
import type { FibreKind, StepKind, VesselMetal } from '@vestigia/core';
import { FIBRE_KINDS, STEP_KINDS, VESSEL_METALS } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

interface StepDraft {
  kind: StepKind;
  title: string;
  instruction: string;
  temperatureC: number | null;
  ceilingC: number | null;
  durationMin: number;
  attended: boolean;
  lookFor: string;
  usesBath: boolean;
  doses: { materialId: string; percentOwf: number | null }[];
}

const draft = (kind: StepKind, title: string, usesBath: boolean): StepDraft => ({ kind, title, instruction: '', temperatureC: null, ceilingC: null, durationMin: 60, attended: false, lookFor: '', usesBath, doses: [] });
const KIND_WORDS: Readonly<Record<StepKind, string>> = { scour: 'scour', tannin: 'tannin', mordant: 'mordant', wetOut: 'wet out', extract: 'extract', dye: 'dye', modify: 'modify', rinse: 'rinse', dry: 'dry', cure: 'cure', wash: 'wash' };

/** Writes a recipe, or the next version of one; an old version is never changed. */
@Component({
  selector: 'vs-write-recipe',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <div class="head"><h1>{{ from() ? 'The next version of ' + name() : 'Write a recipe' }}</h1></div>
    <form (ngSubmit)="keep()">
      <div class="fields">
        @if (!from()) { <mat-form-field class="wide"><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"></mat-form-field> }
        <mat-form-field><mat-label>Liquor ratio, ml per g</mat-label><input matInput type="number" name="ratio" [(ngModel)]="liquorRatio"></mat-form-field>
        <mat-form-field class="wide"><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea></mat-form-field>
      </div>
      <fieldset><legend>For</legend>@for (f of allFibres; track f) { <label class="tick"><input type="checkbox" [checked]="fibres().includes(f)" (change)="fibres.set(toggled(fibres(), f))"> {{ f }}</label> }</fieldset>
      <fieldset><legend>Pots of</legend>@for (m of allMetals; track m) { <label class="tick"><input type="checkbox" [checked]="metals().includes(m)" (change)="metals.set(toggled(metals(), m))"> {{ m }}</label> }</fieldset>
      @for (s of steps(); track s; let i = $index) {
        <fieldset class="step"><legend>{{ i + 1 }}. {{ s.title || 'Step' }}</legend>
          <div class="fields">
            <mat-form-field><mat-label>Kind</mat-label><select matNativeControl [name]="'kind' + i" [(ngModel)]="s.kind">@for (k of kinds; track k) { <option [value]="k">{{ kindWords[k] }}</option> }</select></mat-form-field>
            <mat-form-field><mat-label>Title</mat-label><input matInput [name]="'title' + i" [(ngModel)]="s.title"></mat-form-field>
            <mat-form-field><mat-label>Reach and hold, °C</mat-label><input matInput type="number" [name]="'temperature' + i" [(ngModel)]="s.temperatureC"></mat-form-field>
            <mat-form-field><mat-label>Never above, °C</mat-label><input matInput type="number" [name]="'ceiling' + i" [(ngModel)]="s.ceilingC"></mat-form-field>
            <mat-form-field><mat-label>Minutes</mat-label><input matInput type="number" [name]="'minutes' + i" [(ngModel)]="s.durationMin"></mat-form-field>
            <mat-form-field><mat-label>Look for</mat-label><input matInput [name]="'look' + i" [(ngModel)]="s.lookFor"></mat-form-field>
            <mat-form-field class="wide"><mat-label>What to do</mat-label><textarea matInput rows="2" [name]="'do' + i" [(ngModel)]="s.instruction"></textarea></mat-form-field>
          </div>
          <label class="tick"><input type="checkbox" [name]="'attended' + i" [(ngModel)]="s.attended"> hands all the time</label>
          <label class="tick"><input type="checkbox" [name]="'bath' + i" [(ngModel)]="s.usesBath"> in a pot, at the liquor ratio</label>
          @for (d of s.doses; track d; let j = $index) {
            <div class="fields">
              <mat-form-field><mat-label>Material</mat-label><select matNativeControl [name]="'material' + i + '-' + j" [(ngModel)]="d.materialId"><option value=""></option>@for (m of dosable(); track m.id) { <option [value]="m.id">{{ m.name }}</option> }</select></mat-form-field>
              <mat-form-field><mat-label>% of the weight of fibre</mat-label><input matInput type="number" step="any" [name]="'percent' + i + '-' + j" [(ngModel)]="d.percentOwf"></mat-form-field>
              <button class="plain" type="button" (click)="drop(s.doses, j)">Take it out</button>
            </div>
          }
          <button class="plain" type="button" (click)="dose(s)">Weigh in a material</button>
          <button class="plain" type="button" (click)="move(i, -1)" [disabled]="i === 0">Earlier</button>
          <button class="plain" type="button" (click)="remove(i)">Take the step out</button>
        </fieldset>
      }
      <div class="actions"><button class="act" type="button" (click)="add()">Another step</button></div>
      <vs-refusal [problem]="action.problem()" />
      <div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Keep it as a trial</button><a routerLink="/recipes">Back to Recipes</a></div>
    </form>`,
  styles: `.step { border-top: 2px solid var(--ink); }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WriteRecipePage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  /** The version this one follows; a new recipe when absent. */
  readonly from = input<string | undefined>(undefined);
  protected readonly action = doing();
  protected readonly allFibres = FIBRE_KINDS;
  protected readonly allMetals = VESSEL_METALS;
  protected readonly kinds = STEP_KINDS;
  protected readonly kindWords = KIND_WORDS;
  protected readonly name = signal('');
  protected readonly note = signal('');
  protected readonly liquorRatio = signal(30);
  protected readonly fibres = signal<readonly FibreKind[]>(['wool']);
  protected readonly metals = signal<readonly VesselMetal[]>(['stainless', 'enamel']);
  protected readonly steps = signal<StepDraft[]>([draft('scour', 'Scour', false), draft('mordant', 'Mordant', true), draft('extract', 'Extract', true), draft('dye', 'Dye', true), draft('rinse', 'Rinse', false), draft('dry', 'Dry', false)]);
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly dosable = computed(() => (this.materials.value() ?? []).filter((m) => m.kind !== 'fibre' && m.measure === 'weight'));
  private readonly before = live([], () => { const id = this.from(); return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined); }, () => this.from());
  private readonly id = newId();
  private readonly versionId = newId();

  constructor() {
    effect(() => {
      const v = this.before.value();
      if (!v) return;
      this.name.set(v.recipe.name);
      this.note.set(v.body.note);
      this.liquorRatio.set(v.body.liquorRatio);
      this.fibres.set(v.body.fibres);
      this.metals.set(v.body.allowedMetals);
      this.steps.set(v.body.steps.map((s) => ({ ...s, temperatureC: s.temperatureC ?? null, ceilingC: s.ceilingC ?? null, doses: s.doses.map((d) => ({ ...d })) })));
    });
  }

  protected toggled<T>(now: readonly T[], one: T): readonly T[] {
    return now.includes(one) ? now.filter((x) => x !== one) : [...now, one];
  }

  protected add(): void {
    this.steps.update((s) => [...s, draft('dye', '', true)]);
  }

  protected remove(i: number): void {
    this.steps.update((s) => s.filter((_, at) => at !== i));
  }

  protected move(i: number, by: number): void {
    this.steps.update((s) => {
      const next = [...s];
      const [moved] = next.splice(i, 1);
      if (moved) next.splice(i + by, 0, moved);
      return next;
    });
  }

  protected dose(step: StepDraft): void {
    step.doses.push({ materialId: '', percentOwf: null });
    this.steps.update((s) => [...s]);
  }

  protected drop(doses: StepDraft['doses'], j: number): void {
    doses.splice(j, 1);
    this.steps.update((s) => [...s]);
  }

  protected keep(): void {
    const v = this.before.value();
    const done = ({ id }: { id: string }): void => void this.router.navigate(['/recipes', id]);
    if (v) this.action.run(this.api.post('/api/recipes/{id}/versions', { id: this.versionId, body: this.body() }, v.recipe.id), done);
    else this.action.run(this.api.post('/api/recipes', { id: this.id, name: this.name(), versionId: this.versionId, body: this.body() }), done);
  }

  private body(): RecipeBody {
    return {
      fibres: [...this.fibres()], liquorRatio: this.liquorRatio(), allowedMetals: [...this.metals()], note: this.note(),
      steps: this.steps().map(({ temperatureC, ceilingC, doses, ...s }) => ({
        ...s, ...(temperatureC === null ? {} : { temperatureC }), ...(ceilingC === null ? {} : { ceilingC }), doses: doses.map((d) => ({ materialId: d.materialId, percentOwf: d.percentOwf ?? 0 })),
      })),
    };
  }
}
