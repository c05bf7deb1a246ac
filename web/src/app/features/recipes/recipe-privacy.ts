import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import type { RecipeVersionDetail } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { RefusalNote } from '../../ui/refusal';

/** To whom a recipe is shown: everybody, or some people alone. */
@Component({
  selector: 'vs-recipe-privacy',
  imports: [RefusalNote],
  templateUrl: './recipe-privacy.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePrivacy {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  readonly recipe = input.required<RecipeVersionDetail['recipe']>();
  readonly changed = output();
  protected readonly action = pageAction();
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly people = computed(() => this.studio.value()?.people ?? []);
  private readonly me = computed(() => this.session.person()?.id ?? '');
  protected readonly isMe = (id: string): boolean => id === this.me();
  /** As it stands; one string, so that other changes of the recipe leave what is ticked alone. */
  private readonly stands = computed(() => (this.recipe().keptTo ?? []).map((p) => p.id).join(' '));
  /** Who is ticked; `null`: everybody. */
  protected readonly chosen = linkedSignal<string, readonly string[] | null>({
    source: this.stands,
    computation: (ids) => (ids === '' ? null : ids.split(' ')),
  });
  protected readonly keepers = computed(() => (this.recipe().keptTo ?? []).map((p) => p.name).join(', '));

  protected keepToSome(): void {
    this.chosen.set([this.me()]);
  }

  protected toggle(id: string): void {
    this.chosen.update((ids) => (ids?.includes(id) ? ids.filter((other) => other !== id) : [...(ids ?? []), id]));
  }

  protected save(keptTo: readonly string[] | null): void {
    const before = this.recipe().keptTo?.map((p) => p.id) ?? null;
    this.action.run(
      this.api.put('/api/recipes/{id}/kept-to', { keptTo: keptTo && [...keptTo], before }, this.recipe().id),
      () => this.changed.emit(),
    );
  }
}
