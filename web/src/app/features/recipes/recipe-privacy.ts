import { ChangeDetectionStrategy, Component, inject, input, output, viewChildren } from '@angular/core';
import type { PersonRef, RecipePrivacy as Privacy, RecipeVersionDetail } from '@vestigia/contract';
import type { Observable } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { KeepTo } from '../../ui/keep-to';
import { RefusalNote } from '../../ui/refusal';

/** To whom a recipe is shown, this version of it, or how much goes in: everybody, or some people alone. */
@Component({
  selector: 'vs-recipe-privacy',
  imports: [KeepTo, RefusalNote],
  templateUrl: './recipe-privacy.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePrivacy {
  /** What its template says by what holds. */
  protected readonly says = {
    versionIsKeptTo: (number: string | number): string => $localize`Version ${number} is kept to`,
  };

  private readonly api = inject(ApiClient);
  readonly version = input.required<RecipeVersionDetail>();
  readonly changed = output();
  protected readonly action = pageAction();
  private readonly choices = viewChildren(KeepTo);
  protected readonly names = (people: readonly PersonRef[] | null): string =>
    (people ?? []).map((p) => p.name).join(', ');

  protected keepRecipe(body: Privacy): void {
    this.keep(this.api.put('/api/recipes/{id}/kept-to', body, this.version().recipe.id));
  }

  protected keepVersion(body: Privacy): void {
    this.keep(this.api.put('/api/recipe-versions/{id}/kept-to', body, this.version().id));
  }

  protected keepAmounts(body: Privacy): void {
    this.keep(this.api.put('/api/recipes/{id}/amounts-kept-to', body, this.version().recipe.id));
  }

  private keep(call: Observable<unknown>): void {
    this.action.run(call, () => {
      for (const choice of this.choices()) choice.close();
      this.changed.emit();
    });
  }
}
