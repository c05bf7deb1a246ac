import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotSummary } from '@vestigia/contract';
import { sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { Amount } from '../../ui/amount';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';

/** What wants a person now, in the order it wants one. */
@Component({
  selector: 'vs-today',
  imports: [RouterLink, Amount, RefusalNote, Swatch, Thread, When],
  template: ` <vs-refusal [problem]="today.problem()" />
    @if (today.value(); as t) {
      <div class="head">
        <h1>Today</h1>
        <div class="actions"><a class="act" routerLink="/lots/new">Start a lot</a></div>
      </div>
      @if (first(); as lot) {
        <section class="first" aria-label="Next">
          <p class="soft">Next</p>
          <p class="big">
            {{ lot.next?.title }} <span class="soft">· {{ lot.tag }}, {{ lot.colourway.name }}</span>
          </p>
          <p>{{ nextWords(lot) }}</p>
          <vs-thread
            [stations]="lot.stations"
            [undyed]="lot.undyed"
            [master]="lot.master"
            [result]="lot.result"
            [batches]="lot.batches"
          />
          <div class="actions"><a class="act main bench" [routerLink]="['/bench', lot.id]">Go to the bench</a></div>
        </section>
      } @else {
        <div class="empty">
          <p>Nothing is in work. Choose a colourway and say how many pieces: the rest is worked out.</p>
          <a class="act main" routerLink="/lots/new">Start a lot</a>
        </div>
      }
      @if (others().length > 0) {
        <h2>Also in work</h2>
        <table class="ledger">
          <tbody>
            @for (lot of others(); track lot.id) {
              <tr>
                <td>
                  <a [routerLink]="['/bench', lot.id]"
                    ><strong>{{ lot.tag }}</strong></a
                  >
                  {{ lot.colourway.name }}
                </td>
                <td class="strand">
                  <vs-thread
                    [stations]="lot.stations"
                    [undyed]="lot.undyed"
                    [master]="lot.master"
                    [result]="lot.result"
                    [batches]="lot.batches"
                  />
                </td>
                <td>{{ lot.next?.title }}</td>
                <td class="small">{{ nextWords(lot) }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
      @if (t.toJudge.length > 0) {
        <h2>Dry and waiting for an eye</h2>
        <table class="ledger">
          <tbody>
            @for (lot of t.toJudge; track lot.id) {
              <tr>
                <td>
                  <a [routerLink]="['/judge', lot.id]"
                    ><strong>{{ lot.tag }}</strong></a
                  >
                  {{ lot.colourway.name }}
                </td>
                <td>
                  <vs-swatch [lab]="lot.master" [width]="2.6" label="master" />
                  @if (lot.result; as result) {
                    <vs-swatch [lab]="result" [width]="2.6" [label]="lot.tag" />
                  }
                </td>
                <td>
                  {{ lot.deltaE === null ? 'no dry reading yet' : 'ΔE00 ' + lot.deltaE.toFixed(2) + ' to the master' }}
                </td>
                <td>{{ lot.state === 'held' ? 'held' : '' }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
      @if (t.planned.length > 0) {
        <h2>Promised, not begun</h2>
        <table class="ledger">
          <tbody>
            @for (lot of t.planned; track lot.id) {
              <tr>
                <td>
                  <a [routerLink]="['/bench', lot.id]"
                    ><strong>{{ lot.tag }}</strong></a
                  >
                  {{ lot.colourway.name }}
                </td>
                <td class="small">made {{ lot.at | when: 'moment' }} by {{ lot.by.name }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
      @if (t.short.length > 0) {
        <h2>Short on the shelf</h2>
        <table class="ledger">
          <tbody>
            @for (jar of t.short; track jar.id) {
              <tr class="mark">
                <td>
                  <a [routerLink]="['/stores', jar.id]"
                    ><strong>{{ jar.tag }}</strong></a
                  >
                  {{ jar.material }}
                </td>
                <td>
                  {{ jar.promised | amount: jar.measure }} promised, {{ jar.onHand | amount: jar.measure }} on hand
                </td>
              </tr>
            }
          </tbody>
        </table>
      }
      @if (t.goingOff.length > 0) {
        <h2>Best before soon, or past it</h2>
        <table class="ledger">
          <tbody>
            @for (jar of t.goingOff; track jar.id) {
              <tr>
                <td>
                  <a [routerLink]="['/stores', jar.id]"
                    ><strong>{{ jar.tag }}</strong></a
                  >
                  {{ jar.material }}
                </td>
                <td>{{ jar.bestBefore | when }}</td>
                <td class="number">{{ jar.onHand | amount: jar.measure }} on hand</td>
              </tr>
            }
          </tbody>
        </table>
      }
    }`,
  styles: `
    .first {
      border: 3px solid var(--ink);
      padding: 0.75rem 1.25rem;
      background: var(--raised);
    }
    .big {
      font-size: 1.9rem;
      font-weight: 700;
      margin: 0;
      line-height: 1.15;
      max-width: none;
    }
    .strand {
      width: 34%;
      min-width: 10rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TodayPage {
  private readonly api = inject(ApiClient);
  protected readonly today = live(['lots', 'stores', 'studio'], () => this.api.get('/api/today'));

  /** Lots in work, the one whose moment comes first at the top. */
  private readonly inOrder = computed(() =>
    [...(this.today.value()?.inWork ?? [])].sort((a, b) => wantedAt(a) - wantedAt(b)),
  );
  protected readonly first = computed(() => this.inOrder()[0] ?? this.today.value()?.planned[0]);
  protected readonly others = computed(() => this.inOrder().slice(1));

  protected nextWords(lot: LotSummary): string {
    const { next } = lot;
    if (!next) return '';
    if (next.startedAt === null)
      return `Not begun. ${next.attended ? 'Hands for' : 'Runs'} ${sayMinutes(next.durationMin)}.`;
    const leftMin = (wantedAt(lot) - Date.now()) / 60_000;
    return next.attended
      ? `Begun, hands wanted: ${sayMinutes(next.durationMin)} planned.`
      : leftMin > 0
        ? `${sayMinutes(leftMin)} left.`
        : `Time is up, ${sayMinutes(-leftMin)} ago.`;
  }
}

function wantedAt({ next }: LotSummary): number {
  if (!next) return Infinity;
  return next.startedAt === null || next.attended ? 0 : Date.parse(next.startedAt) + next.durationMin * 60_000;
}
