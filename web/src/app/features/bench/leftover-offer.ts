import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { BenchFocus } from './bench-focus';
import type { CurrentBath } from './leftover';

/** What is left in the pots of a step just finished, offered to Stores. */
@Component({
  selector: 'vs-leftover-offer',
  imports: [RefusalNote, RouterLink],
  template: `@if (focus.leftover(); as left) {
    <div class="offered" role="status">
      @for (b of left; track b.toStores['pot']) {
        <p class="say">
          <strong>{{ b.bath?.vesselName }}</strong>: about {{ b.toStores['litres'] }} l left{{
            b.strength ? ', likely ' + b.strength.value + ' ' + b.strength.unit + ' of ' + b.strengthOf + ' in it' : ''
          }}.
          @if (b.from; as jar) {
            <button class="act" type="button" [disabled]="returning.busy()" (click)="putBack(b)">
              Back into {{ jar.tag }}
            </button>
          }
          <a class="act" routerLink="/stores/liquor" [queryParams]="b.toStores">Keep it{{ b.from ? ' apart' : '' }}</a>
        </p>
      }
      <vs-refusal [problem]="returning.problem()" />
      <p class="small">What goes down the drain or onto soil is for your local rules to say.</p>
      <button class="plain" type="button" (click)="focus.finished.set(undefined)">Not kept</button>
    </div>
  }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftoverOffer {
  private readonly api = inject(ApiClient);
  protected readonly focus = inject(BenchFocus);
  protected readonly returning = pageAction();

  protected putBack({ lotId, stepIndex, batch, from, toStores }: CurrentBath): void {
    if (!from) return;
    const body = {
      id: newId(),
      movementId: newId(),
      stepIndex,
      batch,
      stockLotId: from.stockLotId,
      quantityText: `${toStores['litres']} l`,
      note: '',
    };
    this.returning.run(this.api.post('/api/lots/{id}/returned-liquor', body, lotId), () =>
      this.focus.finished.set(undefined),
    );
  }
}
