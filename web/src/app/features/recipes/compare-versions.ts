import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { compareVersions } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { Said } from '../../ui/said';

/** Two versions of a recipe side by side: only what differs, in dyers' words. */
@Component({
  selector: 'vs-compare-versions',
  imports: [Said, ScrollRegion, RouterLink, RefusalNote],
  templateUrl: './compare-versions.html',
  styles: `
    tbody tr > * {
      max-width: 22rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CompareVersionsPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  readonly with = input<string | undefined>(undefined);
  protected readonly is = liveQuery(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly was = liveQuery(
    ['recipes'],
    () => {
      const id = this.with();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.with(),
  );
  protected readonly differences = computed(() => {
    const [a, b] = [this.was.value(), this.is.value()];
    if (!a || !b) return [];
    const names = new Map([...a.materials, ...b.materials].map((m) => [m.id, m.name]));
    const [first, second] = a.number < b.number ? [a, b] : [b, a];
    const found = compareVersions(first.body, second.body, (id) => names.get(id) ?? '');
    return first === a ? found : found.map((d) => ({ where: d.where, was: d.is, is: d.was }));
  });

  constructor() {
    namesPage(() => {
      const b = this.is.value();
      return b && $localize`${b.recipe.name}:name:: what changed`;
    });
  }
}
