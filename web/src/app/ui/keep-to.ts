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
import type { PersonRef, RecipePrivacy } from '@vestigia/contract';
import { EMPTY } from 'rxjs';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { Session } from '../api/session';

/** Keeps something to some people, whoever decides it always among them, or shows it to everybody again. */
@Component({
  selector: 'vs-keep-to',
  template: `@if (choosing()) {
      <fieldset>
        <legend>{{ legend() }}</legend>
        @for (p of people(); track p.id) {
          <label class="tick"
            ><input
              type="checkbox"
              [name]="'keeper ' + p.name"
              [checked]="chosen()?.includes(p.id)"
              [disabled]="isMe(p.id)"
              (change)="toggle(p.id)"
            />
            {{ p.name }}{{ isMe(p.id) ? says.you : '' }}</label
          >
        }
      </fieldset>
      <div class="actions">
        <button i18n class="act" type="button" [disabled]="busy() || people().length === 0" (click)="save(chosen())">
          Keep it to them
        </button>
        @if (kept()) {
          <button i18n class="plain" type="button" [disabled]="busy()" (click)="save(null)">
            Show it to everybody
          </button>
        }
        <button i18n class="plain" type="button" (click)="leave()">Cancel</button>
      </div>
    } @else {
      <button class="act" type="button" (click)="choose()">{{ kept() ? change() : offer() }}</button>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepTo {
  /** What its template says by what holds. */
  protected readonly says = { you: $localize` (you)` };
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  /** To whom it is kept; `null`: to nobody in particular. */
  readonly kept = input.required<readonly PersonRef[] | null>();
  /** What stands over the names. */
  readonly legend = input.required<string>();
  /** What the button says while it is everybody’s, and once it is kept. */
  readonly offer = input.required<string>();
  readonly change = input.required<string>();
  readonly busy = input(false);
  readonly saved = output<RecipePrivacy>();
  private readonly me = computed(() => this.session.person()?.id ?? '');
  protected readonly isMe = (id: string): boolean => id === this.me();
  protected readonly choosing = signal(false);
  /** Read when somebody chooses. */
  private readonly studio = liveQuery(
    ['studio'],
    () => (this.choosing() ? this.api.get('/api/studio') : EMPTY),
    () => this.choosing(),
  );
  protected readonly people = computed(() => this.studio.value()?.people ?? []);
  /** As it stands; one string, so that other changes of what is kept leave what is ticked alone. */
  private readonly stands = computed(() => (this.kept() ?? []).map((p) => p.id).join(' '));
  /** Who is ticked; `null`: everybody. */
  protected readonly chosen = linkedSignal<string, readonly string[] | null>({
    source: this.stands,
    computation: (ids) => (ids === '' ? null : ids.split(' ')),
  });

  protected choose(): void {
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
    this.saved.emit({ keptTo: keptTo && [...keptTo], before: this.kept()?.map((p) => p.id) ?? null });
  }

  /** Closes it once what was decided is kept. */
  close(): void {
    this.choosing.set(false);
  }
}
