import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { remainingTime, sayMinutes } from '@vestigia/core';
import { forkJoin, map, of, switchMap } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';

/** What is ahead: what open lots still ask for, hands apart from waiting, and which pot is free. */
@Component({
  selector: 'vs-plan',
  imports: [RouterLink, RefusalNote, Thread, When],
  template: ` <div class="head"><h1>Plan</h1></div>
    <vs-refusal [problem]="page.problem()" />
    @if (page.value(); as p) {
      <h2>What open lots still ask for</h2>
      @if (ahead().length === 0) {
        <div class="empty">
          <p>No lot is open. What a lot still asks of people, and how long it waits by itself, stands here.</p>
          <a class="act main" routerLink="/lots/new">Start a lot</a>
        </div>
      } @else {
        <table class="ledger">
          <thead>
            <tr>
              <th>Lot</th>
              <th>Thread</th>
              <th>Next</th>
              <th class="number">Hands</th>
              <th class="number">Waiting</th>
              <th>Not before</th>
            </tr>
          </thead>
          <tbody>
            @for (a of ahead(); track a.lot.summary.id) {
              <tr>
                <td>
                  <a [routerLink]="['/lots', a.lot.summary.id]"
                    ><strong>{{ a.lot.summary.tag }}</strong></a
                  >
                  {{ a.lot.summary.colourway.name }}
                </td>
                <td class="strand">
                  <vs-thread
                    [stations]="a.lot.summary.stations"
                    [undyed]="a.lot.summary.undyed"
                    [master]="a.lot.summary.master"
                    [result]="a.lot.summary.result"
                    [batches]="a.lot.plan.batches.length"
                  />
                </td>
                <td>{{ a.lot.summary.next?.title }}</td>
                <td class="number">{{ minutes(a.time.handsMin) }}</td>
                <td class="number">{{ minutes(a.time.waitingMin) }}</td>
                <td>{{ a.notBefore | when: 'moment' }}</td>
              </tr>
            }
          </tbody>
        </table>
        <p class="small soft">
          “Not before” adds up the recipe’s own times with nobody ever late; nights and busy hands come on top.
        </p>
      }
      <h2>Pots</h2>
      <table class="ledger">
        <thead>
          <tr>
            <th>Vessel</th>
            <th class="number">Working volume</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          @for (v of pots(); track v.vessel.id) {
            <tr>
              <td>
                {{ v.vessel.name }} <span class="soft small">{{ v.vessel.metal }}</span>
              </td>
              <td class="number">{{ v.vessel.workingMl / 1000 }} l</td>
              <td>
                @if (v.in; as r) {
                  <a [routerLink]="['/bench', r.lotId]">{{ r.lotTag }}</a>: {{ r.title }}, since
                  {{ r.startedAt | when: 'moment' }}
                } @else {
                  <span class="soft">free</span>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    }`,
  styles: `
    .strand {
      width: 26%;
      min-width: 9rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPage {
  private readonly api = inject(ApiClient);
  protected readonly page = live(['lots', 'studio'], () =>
    this.api.get('/api/today').pipe(
      switchMap((today) => {
        const open = [...today.inWork, ...today.planned];
        return forkJoin({
          studio: this.api.get('/api/studio'),
          lots: open.length === 0 ? of([]) : forkJoin(open.map((l) => this.api.get('/api/lots/{id}', { id: l.id }))),
        }).pipe(map((rest) => ({ today, ...rest })));
      }),
    ),
  );
  protected readonly minutes = sayMinutes;

  protected readonly ahead = computed(() => {
    const p = this.page.value();
    return (p?.lots ?? []).map((lot) => {
      const left = lot.plan.steps.slice(lot.summary.next?.index ?? lot.plan.steps.length);
      const time = remainingTime(left);
      const begun = lot.summary.next?.startedAt ?? p?.today.now ?? '';
      return {
        lot,
        time,
        notBefore: new Date(Date.parse(begun) + (time.handsMin + time.waitingMin) * 60_000).toISOString(),
      };
    });
  });
  protected readonly pots = computed(() => {
    const p = this.page.value();
    return (p?.studio.vessels ?? []).map((vessel) => ({
      vessel,
      in: p?.today.running.find((r) => r.vesselNames.includes(vessel.name)),
    }));
  });
}
