import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { BenchFocus } from './bench-focus';

/** What is left in the pots of a step just finished, offered to Stores. */
@Component({
  selector: 'vs-leftover-offer',
  imports: [RouterLink],
  template: `@if (focus.leftover(); as left) {
    <div class="offered" role="status">
      @for (b of left; track b.toStores['pot']) {
        <p class="say">
          <strong>{{ b.bath?.vesselName }}</strong>: about {{ b.toStores['litres'] }} l left{{
            b.strength ? ', likely ' + b.strength.value + ' ' + b.strength.unit + ' of ' + b.strengthOf + ' in it' : ''
          }}. <a class="act" routerLink="/stores/liquor" [queryParams]="b.toStores">Keep it</a>
        </p>
      }
      <p class="small">What goes down the drain or onto soil is for your local rules to say.</p>
      <button class="plain" type="button" (click)="focus.finished.set(undefined)">Not kept</button>
    </div>
  }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftoverOffer {
  protected readonly focus = inject(BenchFocus);
}
