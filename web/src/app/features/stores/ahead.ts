import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { AheadRow } from '@vestigia/contract';
import { isInSeason } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { Amount } from '../../ui/amount';
import { FigureValue } from '../../ui/figure-value';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { StoresNav } from './stores-nav';
import { sayRunOut } from './run-out-words';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** What to get, what runs out when, what to gather in which month, what goes off first. */
@Component({
  selector: 'vs-ahead',
  imports: [RouterLink, Amount, FigureValue, RefusalNote, When, StoresNav],
  template: ` <div class="head">
      <h1>Looking ahead</h1>
      <div class="actions noprint">
        <button class="act main" type="button" (click)="print()">Print the list</button
        ><a class="act" href="/api/stores/ahead.csv" download>As a table (CSV)</a>
      </div>
    </div>
    <vs-stores-nav class="noprint" />
    <vs-refusal [problem]="ahead.problem()" />
    @if (ahead.value(); as a) {
      <h2>To get now</h2>
      @if (wanted().length === 0) {
        <p>Nothing is at its reorder point, and nothing in season is wanted.</p>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th></th>
                <th>What</th>
                <th>Material</th>
                <th class="number">How much</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              @for (r of wanted(); track r.materialId) {
                <tr>
                  <td class="box" aria-hidden="true">☐</td>
                  <td>{{ r.act === 'gather' ? 'gather' : 'order' }}</td>
                  <td>
                    <a [routerLink]="['/stores/materials', r.materialId]"
                      ><strong>{{ r.name }}</strong></a
                    >
                  </td>
                  <td class="number">
                    @if (r.quantity; as q) {
                      <vs-figure [figure]="q" [measure]="r.measure" [name]="r.name + ', how much'" />
                    }
                  </td>
                  <td class="small">{{ r.why }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <p class="small soft">
          Gather with leave, and part of a stand only. Protected plants and sites, and roadsides, are left alone.
        </p>
      }
      <h2>What runs out when</h2>
      <div class="scroller">
        <table class="ledger">
          <thead>
            <tr>
              <th>Material</th>
              <th class="number">Free</th>
              <th class="number">Use a week</th>
              <th>Runs out</th>
              <th class="range">From today, a year</th>
              <th class="number">Reorder at</th>
            </tr>
          </thead>
          <tbody>
            @for (r of rows(); track r.materialId) {
              <tr>
                <td>
                  <a [routerLink]="['/stores/materials', r.materialId]">{{ r.name }}</a>
                </td>
                <td class="number">{{ r.free | amount: r.measure }}</td>
                <td class="number">
                  @if (r.perWeek; as f) {
                    <vs-figure [figure]="f" [measure]="r.measure" [name]="r.name + ', use a week'" />
                  } @else {
                    –
                  }
                </td>
                <td>{{ words(r) }}</td>
                <td class="range">
                  @if (bar(r); as b) {
                    <svg viewBox="0 0 100 10" preserveAspectRatio="none" role="img" [attr.aria-label]="words(r)">
                      <line x1="0" x2="100" y1="5" y2="5" class="axis" />
                      <rect [attr.x]="b.from" [attr.width]="b.width" y="2" height="6" class="band" />
                      <line [attr.x1]="b.likely" [attr.x2]="b.likely" y1="0" y2="10" class="likely" />
                    </svg>
                  }
                </td>
                <td class="number">
                  @if (r.reorderPoint; as p) {
                    <vs-figure [figure]="p" [measure]="r.measure" [name]="r.name + ', reorder point'" />
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      <h2>What goes off first</h2>
      @if (a.expiring.length === 0) {
        <p>Nothing in the next two months.</p>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <tbody>
              @for (j of a.expiring; track j.id) {
                <tr>
                  <td>
                    <a [routerLink]="['/stores', j.id]"
                      ><strong>{{ j.tag }}</strong></a
                    >
                  </td>
                  <td>{{ j.material }}</td>
                  <td class="number">{{ j.onHand | amount: j.measure }}</td>
                  <td [class.hatched]="(j.bestBefore ?? '') < a.today">
                    <span>{{ j.bestBefore | when }}{{ (j.bestBefore ?? '') < a.today ? ', past' : '' }}</span>
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
      <h2>Gathering seasons</h2>
      @if (a.seasons.length === 0) {
        <p>No material has a season yet: set one on its page.</p>
      } @else {
        <div class="scroller">
          <table class="ledger months">
            <thead>
              <tr>
                <th>Material</th>
                @for (m of months; track m; let i = $index) {
                  <th [class.now]="i === month()">{{ m }}</th>
                }
              </tr>
            </thead>
            <tbody>
              @for (s of a.seasons; track s.materialId) {
                <tr>
                  <td>
                    <a [routerLink]="['/stores/materials', s.materialId]">{{ s.name }}</a>
                  </td>
                  @for (m of months; track m; let i = $index) {
                    <td [class.on]="isOn(s, i + 1)">
                      <span class="seen">{{ isOn(s, i + 1) ? 'in season' : '' }}</span>
                    </td>
                  }
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  styles: `
    .range {
      min-width: 12rem;
      width: 26%;
    }
    svg {
      width: 100%;
      height: 1.1rem;
      display: block;
    }
    .axis {
      stroke: var(--line);
      stroke-width: 1;
      vector-effect: non-scaling-stroke;
    }
    .band {
      fill: var(--line-strong);
    }
    .likely {
      stroke: var(--ink);
      stroke-width: 3;
      vector-effect: non-scaling-stroke;
    }
    .box {
      font-size: 1.3rem;
    }
    .months td.on {
      background: var(--line-strong);
    }
    .months th.now {
      color: var(--ink);
      text-decoration: underline;
      text-decoration-thickness: 3px;
    }
    .months td {
      position: relative;
    }
    .seen {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AheadPage {
  private readonly api = inject(ApiClient);
  protected readonly ahead = live(['stores', 'lots'], () => this.api.get('/api/stores/ahead'));
  protected readonly months = MONTHS;
  protected readonly words = (row: AheadRow): string => sayRunOut(row.runOut);
  protected readonly wanted = computed(() => (this.ahead.value()?.rows ?? []).filter((r) => r.act !== 'none'));
  /** Soonest first; what nothing is known of stands last. */
  protected readonly rows = computed(() =>
    [...(this.ahead.value()?.rows ?? [])].sort((a, b) => (a.runOut?.likelyDays ?? 1e9) - (b.runOut?.likelyDays ?? 1e9)),
  );
  protected readonly month = computed(() => Number((this.ahead.value()?.today ?? '2000-01').slice(5, 7)) - 1);

  protected bar(row: AheadRow): { from: number; width: number; likely: number } | undefined {
    if (!row.runOut || (row.runOut.earlyDays ?? Infinity) > YEAR) return undefined;
    const at = (days: number | null): number => Math.min(100, ((days ?? YEAR * 2) / YEAR) * 100);
    const from = at(row.runOut.earlyDays);
    return { from, width: Math.max(1, at(row.runOut.lateDays) - from), likely: at(row.runOut.likelyDays) };
  }

  protected isOn(season: { fromMonth: number; toMonth: number }, month: number): boolean {
    return isInSeason(season, `2000-${String(month).padStart(2, '0')}`);
  }

  protected print(): void {
    window.print();
  }
}

const YEAR = 365;
