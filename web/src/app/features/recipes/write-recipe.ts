import { said } from '@vestigia/core';
import { CdkDrag, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { RecipeBody } from '@vestigia/contract';
import type { BathMark, PlacedPlan, StepKind } from '@vestigia/core';
import {
  bathMarks,
  formatTemperature,
  FIBRE_KINDS,
  joinList,
  PRACTICE,
  catalogueEntry,
  changesChain,
  STEP_KINDS,
  STEP_KIND_LABELS,
  VESSEL_METALS,
  practiceChoice,
  practiceMaterials,
  replanFor,
  sayDose,
  sayMinutes,
  sharedBaths,
} from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import type { ContextNote } from '../../services/context-panel';
import { ContextPanel } from '../../services/context-panel';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import type { BodyDraft, StepDraft } from './draft';
import { WITHOUT_FIGURE, draftBody, finishBody, finishDose, newBody, newBodyInLiquor, newStep } from './draft';
import { PlacedEditor } from './placed-editor';
import { StepForm } from './step-form';
import { NumberField } from '../../ui/number-field';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { BathBrackets } from './bath-brackets';
import { sayPreview } from './say-preview';
import { BodyHistory } from './body-history';
import { Fold } from '../../ui/fold';
import { TermTip } from '../../ui/term-tip';
import { Said } from '../../ui/said';

const NOTED_AFTER_MS = 400;

/** Writes a recipe, or the next version of one; an old version is never changed. */
@Component({
  selector: 'vs-write-recipe',
  imports: [
    Said,
    BathBrackets,
    Fold,
    TermTip,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    DraftOf,
    ActBar,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    PlacedEditor,
    RefusalNote,
    StepForm,
  ],
  templateUrl: './write-recipe.html',
  styleUrl: './write-recipe.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WriteRecipePage {
  /** What its template says by what holds. */
  protected readonly says = {
    nextVersionOf: (name: string | number): string => $localize`The next version of ${name}`,
    begunFrom: (name: string | number): string => $localize`A recipe begun from ${name}`,
    writeARecipe: $localize`Write a recipe`,
    atMostDh: $localize`at most, °dH`,
    atLeastDh: $localize`at least, °dH`,
    earlier: (title: string | number): string => $localize`Earlier: ${title}`,
    takeOut: (title: string | number): string => $localize`Take out ${title}`,
    none: $localize`none`,
    notSaid: $localize`not said`,
    zones: (value: string | number): string => $localize`${value} zones`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly contextPanel = inject(ContextPanel);
  /** The version this one follows; a new recipe when absent. */
  readonly from = input<string | undefined>(undefined);
  /** Another recipe to begin from: this one is new, and has its own versions. */
  readonly copy = input<string | undefined>(undefined);
  /** A kept liquor that is to be dyed in: a new recipe begins with its bath. */
  readonly liquor = input<string | undefined>(undefined);
  protected readonly action = pageAction();
  protected readonly allFibres = FIBRE_KINDS;
  protected readonly allMetals = VESSEL_METALS;
  protected readonly kinds = STEP_KINDS;
  protected readonly kindLabel = STEP_KIND_LABELS;
  protected readonly questions = PRACTICE;
  protected readonly name = linkedSignal(() => (this.from() ? (this.before.value()?.recipe.name ?? '') : ''));
  /** Written into as it is typed. Nothing until the version it follows is here: a step opened before would be gone. */
  protected readonly body = linkedSignal<BodyDraft | undefined>(() => {
    const before = this.before.value();
    if (before) return draftBody(before.body);
    if (this.from() ?? this.copy()) return undefined;
    const liquor = this.liquor();
    return liquor ? newBodyInLiquor(liquor) : newBody();
  });
  protected readonly open = signal<StepDraft | undefined>(undefined);
  protected readonly nextKind = signal<StepKind>('dye');
  /** Before which step a new one goes, counted from the beginning; −1: at the end. */
  protected readonly nextAt = signal(-1);
  protected readonly history = new BodyHistory();
  private noting: ReturnType<typeof setTimeout> | undefined;
  protected readonly missing = computed(() => (this.name().trim() === '' ? $localize`Give it a name.` : ''));
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  /** What isn’t put away, and what the version before took all the same. */
  private readonly offered = computed(() => {
    const used = new Set(this.before.value()?.materials.map((m) => m.id));
    return (this.materials.value() ?? []).filter((m) => !m.putAway || used.has(m.id));
  });
  protected readonly dosable = computed(() => this.offered().filter((m) => m.kind !== 'fibre'));
  protected readonly bases = computed(() => this.offered().filter((m) => m.kind === 'fibre'));
  protected readonly before = liveQuery(
    [],
    () => {
      const id = this.from() ?? this.copy();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.from() ?? this.copy(),
  );
  /** What another school changed. */
  private readonly laidAnew = signal<readonly ContextNote[]>([]);
  private readonly ids = { recipe: newId(), version: newId() };

  /** The body is written into where it stands: this tells that it was. */
  private readonly written = signal(0);
  private readonly finished = computed(() => {
    this.written();
    const body = this.body();
    return body && finishBody(body);
  });
  private readonly baths = computed(() => sharedBaths(this.finished()?.steps ?? []));
  protected readonly lanes = computed(() => Math.max(0, ...this.baths().map((b) => b.lane + 1)));
  protected readonly marksOf = (step: number): BathMark[] => bathMarks(this.baths(), step);
  /** What a kilo of fibre would need of it, as far as it is written. */
  private readonly preview = computed(() => {
    const [body, house] = [this.finished(), this.studio.value()];
    return body && house ? sayPreview(body, this.dosable(), house) : [];
  });

  constructor() {
    effect(() => this.contextPanel.notes.set([...this.laidAnew(), ...this.preview()]));
    // How it looks at first, and after every line that is added, moved or taken out.
    effect(() => {
      const body = this.body();
      if (body) untracked(() => this.history.note(body));
    });
  }

  protected brief(s: StepDraft): string {
    const doses = s.doses
      .filter((d) => d.materialId !== '' && (d.first !== null || WITHOUT_FIGURE.includes(d.by)))
      .map((d) => `${this.dosable().find((m) => m.id === d.materialId)?.name ?? ''} ${sayDose(finishDose(d))}`);
    return [
      s.temperatureC === null ? '' : `${formatTemperature(s.temperatureC)}`,
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
    const at = this.nextAt() < 0 ? b.steps.length : Math.min(this.nextAt(), b.steps.length);
    this.body.set({ ...b, steps: [...b.steps.slice(0, at), step, ...b.steps.slice(at)] });
    this.nextAt.set(-1);
    this.open.set(step);
  }

  protected move(index: number, by: number): void {
    const steps = [...(this.body()?.steps ?? [])];
    const [step] = steps.splice(index, 1);
    if (step) steps.splice(index + by, 0, step);
    this.patch({ steps });
  }

  /** The hand goes along with the line. */
  protected moveByKey(event: Event, index: number, by: number): void {
    event.preventDefault();
    const to = index + by;
    if (to < 0 || to >= (this.body()?.steps.length ?? 0)) return;
    this.move(index, by);
    this.noteSoon();
    afterNextRender(() => this.host.querySelectorAll<HTMLElement>('.chain .name')[to]?.focus(), {
      injector: this.injector,
    });
  }

  /** A moment after the last key or press, so that a word is one writing. */
  protected noteSoon(): void {
    clearTimeout(this.noting);
    this.noting = setTimeout(() => this.noteNow(), NOTED_AFTER_MS);
  }

  private noteNow(): void {
    const body = this.body();
    if (body) this.history.note(body);
    this.written.update((n) => n + 1);
  }

  protected undo(): void {
    const body = this.body();
    if (body) this.lay(this.history.undo(body));
  }

  protected redo(): void {
    this.lay(this.history.redo());
  }

  private lay(body: BodyDraft | undefined): void {
    clearTimeout(this.noting);
    if (!body) return;
    const open = this.open()?.key;
    this.body.set(body);
    this.open.set(body.steps.find((s) => s.key === open));
  }

  protected remove(index: number): void {
    const b = this.body();
    if (!b) return;
    const gone = b.steps[index]?.key;
    for (const s of b.steps) if (s.after?.includes(gone ?? '')) s.after = s.after.filter((k) => k !== gone);
    this.body.set({ ...b, steps: b.steps.filter((_, i) => i !== index) });
  }

  protected addPart(b: BodyDraft): void {
    const key = $localize`part ${b.parts.length + 1}`;
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

  /** What is folded away of a recipe’s terms. */
  protected terms(b: BodyDraft): string {
    const metals =
      b.allowedMetals.length === this.allMetals.length
        ? $localize`any pot`
        : $localize`pots of ${joinList(b.allowedMetals)}`;
    const water = b.water.asks === 'any' ? $localize`any water` : $localize`${said(b.water.asks)} water`;
    return $localize`Kept to: ${metals}, ${water}, doses within ${b.weighWithinPercent ?? '–'} %${b.note.trim() === '' ? '' : $localize`, a note`}`;
  }

  protected practiceLabel(b: BodyDraft): string {
    const answers = Object.values(b.practice).filter((a) => a !== '').length;
    return answers === 0 ? $localize`as the house does` : $localize`${answers} of its own`;
  }

  protected readonly houseLabel = (key: string): string =>
    practiceChoice(key, this.studio.value()?.practice[key])?.label ?? '';
  protected readonly costs = (b: BodyDraft, key: string): string =>
    practiceChoice(key, b.practice[key] || this.studio.value()?.practice[key])?.costsAndGains ?? '';

  /** Another school lays the chain anew: what changed is said in the margin. */
  protected school(b: BodyDraft, key: string, answer: string): void {
    const practice = { ...b.practice, [key]: answer };
    const question = PRACTICE.find((q) => q.key === key);
    if (answer === '' || !question?.replans) return this.body.set({ ...b, practice });
    const before = finishBody(b);
    const layout = replanFor(
      before,
      key,
      answer,
      practiceMaterials(
        this.dosable().map(({ id, facts }) => ({
          id,
          catalogueKey: facts.catalogueKey,
          needs: facts.needs ?? catalogueEntry(facts.catalogueKey)?.needs ?? null,
        })),
      ),
    );
    const minutes = (body: Pick<RecipeBody, 'steps'>): number =>
      body.steps.reduce(
        (sum, s) => sum + (s.course.length > 0 ? s.course.reduce((m, leg) => m + leg.minutes, 0) : s.durationMin),
        0,
      );
    this.body.set({ ...draftBody(layout), practice });
    this.open.set(undefined);
    if (!changesChain(before, layout))
      return this.laidAnew.set([
        {
          title: $localize`As it was`,
          lines: [$localize`${question.question}:question:: nothing in this chain changes with it.`],
        },
      ]);
    this.laidAnew.set([
      {
        title: $localize`Laid anew`,
        lines: [
          `${question.question}: ${practiceChoice(key, answer)?.label ?? ''}.`,
          $localize`The chain took ${sayMinutes(minutes(before))}, and takes ${sayMinutes(minutes(layout))} now.`,
        ],
      },
    ]);
  }

  protected keep(): void {
    const [before, draft] = [this.before.value(), this.body()];
    if (!draft) return;
    const body = finishBody(draft);
    const kept =
      before && this.from()
        ? this.api.post('/api/recipes/{id}/versions', { id: this.ids.version, body }, before.recipe.id)
        : this.api.post('/api/recipes', { id: this.ids.recipe, name: this.name(), versionId: this.ids.version, body });
    this.action.run(kept, ({ id }) => void this.router.navigate(['/recipes', id]));
  }
}
