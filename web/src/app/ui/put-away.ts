import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { ApiClient } from '../api/api-client';
import { pageAction } from '../api/page-action';
import { RefusalNote } from './refusal';

/** Puts a material, a recipe or a colourway out of the lists, and brings it back. */
@Component({
  selector: 'vs-put-away',
  imports: [RefusalNote],
  template: `<button class="act" type="button" [disabled]="putting.busy()" (click)="put(!isAway())">
      {{ isAway() ? says.bringItBack : says.putItAway }}
    </button>
    @if (isAway()) {
      <span i18n class="small soft">Put away: it is in no list that things are chosen from.</span>
    } @else if (stays() !== '') {
      <span class="small soft">{{ stays() }}</span>
    }
    <vs-refusal [problem]="putting.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PutAway {
  /** What its template says by what holds. */
  protected readonly says = {
    bringItBack: $localize`Bring it back`,
    putItAway: $localize`Put it away`,
  };

  private readonly api = inject(ApiClient);
  readonly of = input.required<'materials' | 'recipes' | 'colourways'>();
  readonly id = input.required<string>();
  readonly isAway = input.required<boolean>();
  /** What of it goes on as before though it is put away. */
  readonly stays = input('');
  readonly changed = output();
  protected readonly putting = pageAction();

  protected put(putAway: boolean): void {
    this.putting.run(this.api.put(`/api/${this.of()}/{id}/put-away`, { putAway }, this.id()), () =>
      this.changed.emit(),
    );
  }
}
