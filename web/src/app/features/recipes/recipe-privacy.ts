import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import type { RecipeVersionDetail } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { RefusalNote } from '../../ui/refusal';

/** To whom a recipe is shown, or this version of it: everybody, or some people alone. */
@Component({
  selector: 'vs-recipe-privacy',
  imports: [RefusalNote],
  templateUrl: './recipe-privacy.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePrivacy {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  readonly version = input.required<RecipeVersionDetail>();
  readonly changed = output();
  protected readonly action = pageAction();
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly people = computed(() => this.studio.value()?.people ?? []);
  private readonly me = computed(() => this.session.person()?.id ?? '');
  protected readonly isMe = (id: string): boolean => id === this.me();
  /** What is kept: the recipe, unless this version alone was. */
  protected readonly whole = linkedSignal(() => this.version().keptTo === null);
  protected readonly choosing = signal(false);
  private readonly kept = computed(() => (this.whole() ? this.version().recipe.keptTo : this.version().keptTo));
  /** As it stands; one string, so that other changes of the recipe leave what is ticked alone. */
  private readonly stands = computed(() => `${this.whole()}:${(this.kept() ?? []).map((p) => p.id).join(' ')}`);
  /** Who is ticked; `null`: everybody. */
  protected readonly chosen = linkedSignal<string, readonly string[] | null>({
    source: this.stands,
    computation: (stands) => {
      const ids = stands.slice(stands.indexOf(':') + 1);
      return ids === '' ? null : ids.split(' ');
    },
  });
  protected readonly names = (people: RecipeVersionDetail['keptTo']): string =>
    (people ?? []).map((p) => p.name).join(', ');

  protected keepToSome(whole: boolean): void {
    this.whole.set(whole);
    this.choosing.set(true);
    if (this.chosen() === null) this.chosen.set([this.me()]);
  }

  protected leave(): void {
    this.choosing.set(false);
    this.chosen.set(this.kept()?.map((p) => p.id) ?? null);
  }

  protected toggle(id: string): void {
    this.chosen.update((ids) => (ids?.includes(id) ? ids.filter((other) => other !== id) : [...(ids ?? []), id]));
  }

  protected save(keptTo: readonly string[] | null): void {
    const body = { keptTo: keptTo && [...keptTo], before: this.kept()?.map((p) => p.id) ?? null };
    this.action.run(
      this.whole()
        ? this.api.put('/api/recipes/{id}/kept-to', body, this.version().recipe.id)
        : this.api.put('/api/recipe-versions/{id}/kept-to', body, this.version().id),
      () => {
        this.choosing.set(false);
        this.changed.emit();
      },
    );
  }
}
