import { MATERIAL_KIND_LABELS } from '@vestigia/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { RecipeFile, RecipeFileCheck } from '@vestigia/contract';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { toChoose } from '../../ui/put-away-too';
import { RefusalNote } from '../../ui/refusal';
import { RecipesNav } from './recipes-nav';
import { Count } from '../../ui/count';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { Said } from '../../ui/said';

const ANEW = 'anew';

/**
 * Takes a recipe file in: each material it names is set beside the studio's own, and what is missing is told to be
 * one of them or made.
 */
@Component({
  selector: 'vs-take-in-recipe',
  imports: [
    Said,
    ActBar,
    ScrollRegion,
    Count,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RecipesNav,
    RefusalNote,
  ],
  templateUrl: './take-in-recipe.html',
  styles: `
    form {
      max-width: 60rem;
    }
    td mat-form-field {
      min-width: 14rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeInRecipePage {
  protected readonly kindLabel = MATERIAL_KIND_LABELS;
  /** What its template says by what holds. */
  protected readonly says = {
    materialsMissing: $localize`Say what each material is here.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  private readonly checking = pageAction();
  private readonly unreadable = signal<ShownProblem | undefined>(undefined);
  protected readonly problem = computed(() => this.unreadable() ?? this.checking.problem());
  protected readonly check = signal<RecipeFileCheck | undefined>(undefined);
  protected readonly name = signal('');
  /** What each material of the file is here: an id, anew, or not chosen yet. */
  protected readonly mapping = signal<Readonly<Record<string, string>>>({});
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly ready = computed(
    () =>
      (this.check()?.materials ?? []).every((m) => (this.mapping()[m.id] ?? '') !== '') && this.name().trim() !== '',
  );
  private file: RecipeFile | undefined;
  private ids = { recipe: newId(), version: newId() };

  protected async choose(event: Event): Promise<void> {
    const chosen = (event.target as HTMLInputElement).files?.[0];
    this.check.set(undefined);
    this.unreadable.set(undefined);
    this.checking.clear();
    if (!chosen) return;
    let file: RecipeFile;
    try {
      file = JSON.parse(await chosen.text()) as RecipeFile;
    } catch {
      this.unreadable.set({ detail: $localize`That is not a recipe file: it can’t be read as JSON. Choose another.` });
      return;
    }
    this.checking.run(this.api.post('/api/recipe-files/check', file), (check) => {
      this.file = file;
      this.ids = { recipe: newId(), version: newId() };
      this.name.set(check.name);
      this.mapping.set(Object.fromEntries(check.materials.map((m) => [m.id, m.here?.id ?? ''])));
      this.check.set(check);
    });
  }

  protected fitting({ kind, measure }: RecipeFileCheck['materials'][number]) {
    return toChoose(this.materials.value()).filter(
      (m) => (m.kind === 'fibre') === (kind === 'fibre') && m.measure === measure,
    );
  }

  protected map(fileId: string, to: string): void {
    this.mapping.set({ ...this.mapping(), [fileId]: to });
  }

  protected takeIn(): void {
    const { file } = this;
    if (!file) return;
    const mapping = Object.entries(this.mapping()).map(([fileId, to]) => ({
      fileId,
      materialId: to === ANEW ? null : to,
      newId: newId(),
    }));
    this.action.run(
      this.api.post('/api/recipe-files', {
        id: this.ids.recipe,
        versionId: this.ids.version,
        name: this.name(),
        file,
        mapping,
      }),
      ({ id }) => void this.router.navigate(['/recipes', id]),
    );
  }
}
