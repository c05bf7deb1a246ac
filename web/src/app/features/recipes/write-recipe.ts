import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { RecipeBody } from '@vestigia/contract';
import type { PlacedPlan, StepKind } from '@vestigia/core';
import {
  FIBRE_KINDS,
  PRACTICE,
  changesChain,
  STEP_KINDS,
  STEP_KIND_WORDS,
  VESSEL_METALS,
  practiceChoice,
  practiceMaterials,
  replanFor,
  sayDose,
  sayMinutes,
} from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import type { BodyDraft, StepDraft } from './draft';
import { draftBody, finishBody, finishDose, newBody, newStep } from './draft';
import { PlacedEditor } from './placed-editor';
import { StepForm } from './step-form';

/** Writes a recipe, or the next version of one; an old version is never changed. */
@Component({
  selector: 'vs-write-recipe',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, PlacedEditor, RefusalNote, StepForm],
  template: ` <div class="head">
      <h1>{{ from() ? 'The next version of ' + name() : 'Write a recipe' }}</h1>
    </div>
    <vs-refusal [problem]="before.problem()" />
    @if (body(); as b) {
      <form (ngSubmit)="keep()">
        <div class="fields">
          @if (!from()) {
            <mat-form-field class="wide"
              ><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"
            /></mat-form-field>
          }
          <mat-form-field
            ><mat-label>Liquor ratio, ml per g</mat-label
            ><input matInput type="number" step="any" name="ratio" [(ngModel)]="b.liquorRatio"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Shortest bath allowed, ml per g</mat-label
            ><input
              matInput
              type="number"
              step="any"
              name="least"
              [(ngModel)]="b.liquorRatioLeast"
              placeholder="only as above"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Doses weighed within, %</mat-label
            ><input
              matInput
              type="number"
              step="any"
              min="0.1"
              max="20"
              name="within"
              [(ngModel)]="b.weighWithinPercent"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Water asked for</mat-label
            ><select
              matNativeControl
              name="water"
              [ngModel]="b.water.asks"
              (ngModelChange)="b.water = { asks: $event, hardnessDh: b.water.hardnessDh }"
            >
              <option value="any">any</option>
              <option value="soft">soft</option>
              <option value="hard">hard</option>
            </select></mat-form-field
          >
          @if (b.water.asks !== 'any') {
            <mat-form-field
              ><mat-label>{{ b.water.asks === 'soft' ? 'at most, °dH' : 'at least, °dH' }}</mat-label
              ><input
                matInput
                type="number"
                step="any"
                name="hardness"
                [ngModel]="b.water.hardnessDh"
                (ngModelChange)="b.water = { asks: b.water.asks, hardnessDh: $event }"
            /></mat-form-field>
          }
          <mat-form-field class="wide"
            ><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="b.note"></textarea>
          </mat-form-field>
        </div>
        <fieldset>
          <legend>For</legend>
          @for (f of allFibres; track f) {
            <label class="tick"
              ><input
                type="checkbox"
                [checked]="b.fibres.includes(f)"
                (change)="patch({ fibres: toggled(b.fibres, f) })"
              />
              {{ f }}</label
            >
          }
        </fieldset>
        <fieldset>
          <legend>Pots of</legend>
          @for (m of allMetals; track m) {
            <label class="tick"
              ><input
                type="checkbox"
                [checked]="b.allowedMetals.includes(m)"
                (change)="patch({ allowedMetals: toggled(b.allowedMetals, m) })"
              />
              {{ m }}</label
            >
          }
        </fieldset>

        <h2>The chain</h2>
        <ol class="chain">
          @for (s of b.steps; track s; let i = $index) {
            <li [class.open]="open() === s">
              <div class="row">
                <button
                  class="plain name"
                  type="button"
                  [attr.aria-expanded]="open() === s"
                  (click)="open.set(open() === s ? undefined : s)"
                >
                  <strong>{{ i + 1 }}. {{ s.title || kindWords[s.kind] }}</strong>
                  <span class="soft small">{{ brief(s) }}</span>
                </button>
                <button
                  class="plain"
                  type="button"
                  (click)="move(i, -1)"
                  [disabled]="i === 0"
                  [attr.aria-label]="'Earlier: ' + s.title"
                >
                  Earlier
                </button>
                <button class="plain" type="button" (click)="remove(i)" [attr.aria-label]="'Take out ' + s.title">
                  Take out
                </button>
              </div>
              @if (open() === s) {
                <vs-step-form [step]="s" [body]="b" [materials]="dosable()" />
              }
            </li>
          }
        </ol>
        <div class="actions">
          <mat-form-field class="kind" subscriptSizing="dynamic"
            ><mat-label>Another step</mat-label
            ><select matNativeControl name="addkind" [(ngModel)]="nextKind">
              @for (k of kinds; track k) {
                <option [value]="k">{{ kindWords[k] }}</option>
              }
            </select></mat-form-field
          ><button class="act" type="button" (click)="add()">Put it at the end</button>
        </div>

        <details [open]="b.parts.length > 0">
          <summary>
            Parts of the pieces that go their own way: {{ b.parts.length === 0 ? 'none' : b.parts.length }}
          </summary>
          @for (p of b.parts; track p; let i = $index) {
            <div class="fields">
              <mat-form-field
                ><mat-label>Part</mat-label><input matInput [name]="'part' + i" [(ngModel)]="p.name"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>Share of the pieces, %</mat-label
                ><input matInput type="number" step="any" [name]="'share' + i" [(ngModel)]="p.sharePercent"
              /></mat-form-field>
              <button class="plain" type="button" (click)="patch({ parts: without(b.parts, i) })">Take it out</button>
            </div>
          }
          <button class="plain" type="button" (click)="addPart(b)">Another part</button>
        </details>
        <details [open]="b.expectedShades.length > 0">
          <summary>
            What each base comes out as: {{ b.expectedShades.length === 0 ? 'not said' : b.expectedShades.length }}
          </summary>
          @for (e of b.expectedShades; track e; let i = $index) {
            <div class="fields">
              <mat-form-field
                ><mat-label>On this base</mat-label
                ><select matNativeControl [name]="'ebase' + i" [(ngModel)]="e.baseMaterialId">
                  @for (m of bases(); track m.id) {
                    <option [value]="m.id">{{ m.name }}</option>
                  }
                </select></mat-form-field
              >
              <mat-form-field
                ><mat-label>L*</mat-label><input matInput type="number" step="any" [name]="'eL' + i" [(ngModel)]="e.L"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>a*</mat-label><input matInput type="number" step="any" [name]="'ea' + i" [(ngModel)]="e.a"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>b*</mat-label><input matInput type="number" step="any" [name]="'eb' + i" [(ngModel)]="e.b"
              /></mat-form-field>
              <button class="plain" type="button" (click)="patch({ expectedShades: without(b.expectedShades, i) })">
                Take it out
              </button>
            </div>
          }
          @if (bases().length > 0) {
            <button class="plain" type="button" (click)="addShade(b)">Another base</button>
          }
        </details>
        <details>
          <summary>Placed colour: {{ b.placed ? b.placed.zones.length + ' zones' : 'none' }}</summary>
          <vs-placed-editor [plan]="b.placed" (planChange)="place(b, $event)" [materials]="dosable()" />
        </details>
        <details>
          <summary>House practice: {{ practiceWords(b) }}</summary>
          @for (q of questions; track q.key) {
            <mat-form-field class="school"
              ><mat-label>{{ q.question }}</mat-label
              ><select
                matNativeControl
                [name]="'q ' + q.key"
                [ngModel]="b.practice[q.key] ?? ''"
                (ngModelChange)="school(b, q.key, $event)"
              >
                <option value="">
                  as the house does
                  @if (houseWords(q.key); as h) {
                    : {{ h }}
                  }
                </option>
                @for (c of q.choices; track c.key) {
                  <option [value]="c.key">{{ c.words }}</option>
                }</select
              ><mat-hint>{{ costs(b, q.key) }}</mat-hint></mat-form-field
            >
          }
        </details>
        <vs-refusal [problem]="action.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="action.busy()">Keep it as a trial</button
          ><a routerLink="/recipes">Back to Recipes</a>
        </div>
      </form>
    }`,
  styles: `
    form {
      max-width: 60rem;
    }
    .chain {
      list-style: none;
      padding: 0;
    }
    .chain > li {
      border-top: 1px solid var(--line);
    }
    .chain > li.open {
      border-left: 6px solid var(--ink);
      padding-left: 1rem;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 0 1rem;
    }
    .name {
      flex: 1 1 14rem;
      text-align: left;
      text-decoration: none;
    }
    .kind {
      max-width: 16rem;
    }
    .school {
      max-width: 36rem;
      margin: 0.4rem 0;
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WriteRecipePage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly margin = inject(Margin);
  /** The version this one follows; a new recipe when absent. */
  readonly from = input<string | undefined>(undefined);
  protected readonly action = doing();
  protected readonly allFibres = FIBRE_KINDS;
  protected readonly allMetals = VESSEL_METALS;
  protected readonly kinds = STEP_KINDS;
  protected readonly kindWords = STEP_KIND_WORDS;
  protected readonly questions = PRACTICE;
  protected readonly name = linkedSignal(() => this.before.value()?.recipe.name ?? '');
  /** Written into as it is typed. Nothing until the version it follows is here: a step opened before would be gone. */
  protected readonly body = linkedSignal<BodyDraft | undefined>(() => {
    const before = this.before.value();
    return before ? draftBody(before.body) : this.from() ? undefined : newBody();
  });
  protected readonly open = signal<StepDraft | undefined>(undefined);
  protected readonly nextKind = signal<StepKind>('dye');
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  private readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  protected readonly dosable = computed(() => (this.materials.value() ?? []).filter((m) => m.kind !== 'fibre'));
  protected readonly bases = computed(() => (this.materials.value() ?? []).filter((m) => m.kind === 'fibre'));
  protected readonly before = live(
    [],
    () => {
      const id = this.from();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.from(),
  );
  private readonly ids = { recipe: newId(), version: newId() };

  protected brief(s: StepDraft): string {
    const doses = s.doses
      .filter((d) => d.materialId !== '' && (d.first !== null || d.by === 'packet'))
      .map((d) => `${this.dosable().find((m) => m.id === d.materialId)?.name ?? ''} ${sayDose(finishDose(d))}`);
    return [
      s.temperatureC === null ? '' : `${s.temperatureC} °C`,
      sayMinutes(s.course.length > 0 ? s.course.reduce((sum, leg) => sum + (leg.minutes ?? 0), 0) : s.durationMin),
      ...doses,
      [...s.fibres, ...s.parts].join(', '),
    ]
      .filter((w) => w !== '')
      .join(' · ');
  }

  protected toggled<T>(list: readonly T[], item: T): T[] {
    return list.includes(item) ? list.filter((i) => i !== item) : [...list, item];
  }

  protected readonly without = <T>(list: readonly T[], index: number): T[] => list.filter((_, i) => i !== index);

  protected patch(part: Partial<BodyDraft>): void {
    this.body.update((b) => b && { ...b, ...part });
  }

  protected add(): void {
    const b = this.body();
    if (!b) return;
    const step = newStep(
      this.nextKind(),
      b.steps.map((s) => s.key),
    );
    this.body.set({ ...b, steps: [...b.steps, step] });
    this.open.set(step);
  }

  protected move(index: number, by: number): void {
    const steps = [...(this.body()?.steps ?? [])];
    const [step] = steps.splice(index, 1);
    if (step) steps.splice(index + by, 0, step);
    this.patch({ steps });
  }

  protected remove(index: number): void {
    const b = this.body();
    if (!b) return;
    const gone = b.steps[index]?.key;
    for (const s of b.steps) if (s.after?.includes(gone ?? '')) s.after = s.after.filter((k) => k !== gone);
    this.body.set({ ...b, steps: b.steps.filter((_, i) => i !== index) });
  }

  protected addPart(b: BodyDraft): void {
    const key = `part ${b.parts.length + 1}`;
    this.patch({ parts: [...b.parts, { key, name: '', sharePercent: b.parts.length === 0 ? 100 : null }] });
  }

  protected addShade(b: BodyDraft): void {
    this.patch({
      expectedShades: [
        ...b.expectedShades,
        { baseMaterialId: this.bases()[0]?.id ?? '', L: 60, a: 0, b: 30, illuminant: 'D65', observer: '10', note: '' },
      ],
    });
  }

  protected place(b: BodyDraft, placed: PlacedPlan | null): void {
    this.body.set({
      ...b,
      placed:
        placed === null
          ? null
          : { ...placed, zones: placed.zones.map((z) => ({ ...z, gPerPiece: z.gPerPiece ?? null })) },
    });
  }

  protected practiceWords(b: BodyDraft): string {
    const said = Object.values(b.practice).filter((a) => a !== '').length;
    return said === 0 ? 'as the house does' : `${said} of its own`;
  }

  protected readonly houseWords = (key: string): string =>
    practiceChoice(key, this.studio.value()?.practice[key])?.words ?? '';
  protected readonly costs = (b: BodyDraft, key: string): string =>
    practiceChoice(key, b.practice[key] || this.studio.value()?.practice[key])?.costsAndGains ?? '';

  /** Another school lays the chain anew: what changed is said in the margin. */
  protected school(b: BodyDraft, key: string, answer: string): void {
    const practice = { ...b.practice, [key]: answer };
    const question = PRACTICE.find((q) => q.key === key);
    if (answer === '' || !question?.replans) return this.body.set({ ...b, practice });
    const before = finishBody(b);
    const laid = replanFor(before, key, answer, practiceMaterials(this.dosable()));
    const minutes = (body: Pick<RecipeBody, 'steps'>): number =>
      body.steps.reduce(
        (sum, s) => sum + (s.course.length > 0 ? s.course.reduce((m, leg) => m + leg.minutes, 0) : s.durationMin),
        0,
      );
    this.body.set({ ...draftBody(laid), practice });
    this.open.set(undefined);
    if (!changesChain(before, laid))
      return this.margin.notes.set([
        { title: 'As it was', lines: [`${question.question}: nothing in this chain changes with it.`] },
      ]);
    this.margin.notes.set([
      {
        title: 'Laid anew',
        lines: [
          `${question.question}: ${practiceChoice(key, answer)?.words ?? ''}.`,
          `The chain took ${sayMinutes(minutes(before))}, and takes ${sayMinutes(minutes(laid))} now.`,
        ],
      },
    ]);
  }

  protected keep(): void {
    const [before, draft] = [this.before.value(), this.body()];
    if (!draft) return;
    const body = finishBody(draft);
    const kept = before
      ? this.api.post('/api/recipes/{id}/versions', { id: this.ids.version, body }, before.recipe.id)
      : this.api.post('/api/recipes', { id: this.ids.recipe, name: this.name(), versionId: this.ids.version, body });
    this.action.run(kept, ({ id }) => void this.router.navigate(['/recipes', id]));
  }
}
