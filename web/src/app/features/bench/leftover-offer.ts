import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { PourBack } from '../../ui/pour-back';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';

/** What is left in the pots of a step just finished, offered to Stores. */
@Component({
  selector: 'vs-leftover-offer',
  imports: [PourBack, RouterLink],
  template: `@if (focus.leftover(); as left) {
    <div class="offered" role="status">
      @for (b of left; track b.toStores['pot']) {
        <p i18n class="say">
          <strong>{{ b.bath?.vesselName }}</strong>: about {{ b.toStores['litres'] }} l left{{
            b.strength ? says.likelyOfInIt(b.strength.value, b.strength.unit, b.strengthOf) : ''
          }}. <a class="act" routerLink="/stores/liquor" [queryParams]="b.toStores">Keep it</a>
        </p>
      }
      @if (lot(); as l) {
        <vs-pour-back [lot]="l" (poured)="focus.finished.set(undefined)" />
      }
      <p i18n class="small">What goes down the drain or onto soil is for your local rules to say.</p>
      <button i18n class="plain" type="button" (click)="focus.finished.set(undefined)">Not kept</button>
    </div>
  }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftoverOffer {
  /** What its template says by what holds. */
  protected readonly says = {
    likelyOfInIt: (value: string | number, unit: string | number, strengthOf: string | number): string =>
      $localize`, likely ${value} ${unit} of ${strengthOf} in it`,
  };

  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  protected readonly lot = computed(() => this.state.lotOf(this.focus.finished()?.lotId ?? ''));
}
