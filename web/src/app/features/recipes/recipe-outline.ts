import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { STEP_KIND_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { Said } from '../../ui/said';
import { RecipesNav } from './recipes-nav';
import { namesPage } from '../../services/page-title';

/** A recipe as it is shown to those from whom its amounts are kept: what goes in, step by step. */
@Component({
  selector: 'vs-recipe-outline',
  imports: [RecipesNav, RefusalNote, Said],
  template: `<vs-refusal [problem]="outline.problem()" />
    @if (outline.value(); as o) {
      <h1 i18n>{{ o.name }}, version {{ o.number }}</h1>
      <vs-recipes-nav />
      <p i18n>
        For {{ o.fibres | said }}. How much goes in is kept to <strong>{{ keepers() }}</strong>: ask them. A lot of it
        you can dye all the same, by the letters on the jars.
      </p>
      <ol>
        @for (s of o.steps; track $index) {
          <li>
            <strong>{{ label[s.kind] }}</strong>{{ s.materials.length > 0 ? ': ' + s.materials.join(', ') : '' }}
          </li>
        }
      </ol>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipeOutlinePage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly label = STEP_KIND_LABELS;
  protected readonly outline = liveQuery(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}/outline', { id: this.id() }),
    () => this.id(),
  );
  protected readonly keepers = computed(() => (this.outline.value()?.keptTo ?? []).map((p) => p.name).join(', '));

  constructor() {
    namesPage(() => this.outline.value()?.name);
  }
}
