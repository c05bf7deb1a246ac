import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { decimals, LEAST_SHARED } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { CardMeasured } from './card-measured';
import { JudgeNav } from './judge-nav';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { Decimals } from '../../ui/decimals';

/** The colour readers of the studio, how they differ, and every reading as an open file. */
@Component({
  selector: 'vs-readers',
  imports: [Decimals, ScrollRegion, May, CardMeasured, JudgeNav, RefusalNote],
  template: `<div class="head">
      <h1 i18n>Readers and files</h1>
      <vs-judge-nav />
    </div>
    <vs-refusal [problem]="readers.problem()" />
    @if (readers.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p i18n>
            Say with a reading which reader it was taken with. How well it repeats itself is known once a piece was read
            twice; how two differ, once both have read the same {{ least }} pieces.
          </p>
        </div>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <caption i18n class="unseen">
              Readers
            </caption>
            <thead>
              <tr>
                <th i18n scope="col">Reader</th>
                <th i18n scope="col" class="number">Readings</th>
                <th i18n scope="col" class="number">Repeats within</th>
                <th i18n scope="col">Beside the first</th>
              </tr>
            </thead>
            <tbody>
              @for (r of all; track r.name; let first = $first) {
                <tr>
                  <th scope="row">{{ r.name }}</th>
                  <td class="number">{{ r.readings }}</td>
                  <td class="number">
                    {{
                      r.repeatabilityDeltaE00 === null
                        ? says.notKnown
                        : 'ΔE00 ' + (r.repeatabilityDeltaE00 | decimals: 2)
                    }}
                  </td>
                  <td>
                    @if (first) {
                      <ng-container i18n>the others are put beside this one</ng-container>
                    } @else if (r.offset; as o) {
                      <ng-container i18n
                        >reads L* {{ signed(o.lab.L) }}, a* {{ signed(o.lab.a) }}, b* {{ signed(o.lab.b) }} beside it,
                        on {{ r.sharedSwatches }} pieces; ΔE00 {{ o.leftDeltaE00 | decimals: 2 }} is left without
                        that</ng-container
                      >
                    } @else {
                      <ng-container i18n>{{ r.sharedSwatches }} of {{ least }} pieces that both have read</ng-container>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }
    <vs-card-measured />
    <h2 i18n>Every reading that settled, as a file</h2>
    <div class="actions">
      <a i18n *vsMay="'dyer'" class="act" href="/api/colours/file?format=cgats" download="readings.cgats.txt"
        >CGATS.17 text</a
      >
      <a i18n *vsMay="'dyer'" class="act" href="/api/colours/file?format=csv" download="readings.csv">Table (CSV)</a>
    </div>
    <p i18n class="small soft">Spectra are written where every reading has one; else L*a*b* alone.</p>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadersPage {
  /** What its template says by what holds. */
  protected readonly says = {
    notKnown: $localize`not known`,
  };

  private readonly api = inject(ApiClient);
  protected readonly least = LEAST_SHARED;
  protected readonly readers = liveQuery(['lots'], () => this.api.get('/api/readers'));
  protected readonly signed = (value: number): string => `${value < 0 ? '−' : '+'}${decimals(Math.abs(value), 2)}`;
}
