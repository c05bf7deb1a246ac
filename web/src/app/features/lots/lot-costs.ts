import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { LotCost } from '@vestigia/contract';
import { formatAmount, formatMoney, sayMinutes, trimZeros } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { costOfAPiece, wholeCost } from '../../format/whole-cost';
import { RefusalNote } from '../../ui/refusal';

/** A part of what a lot costs. Minor units; `null`: the studio doesn’t say what it costs. */
interface Part {
  readonly name: string;
  readonly planned: number | null;
  readonly real: number | null;
  readonly plannedText: string;
  readonly realText: string;
}

type Row = LotCost['rows'][number];
/** What differs by less isn’t worth a line, minor units. */
const WORTH_SAYING = 10;

/** What a lot was to cost and what it did, as a whole and a piece, and what made the difference. */
@Component({
  selector: 'vs-lot-costs',
  imports: [RefusalNote],
  template: `
    <vs-refusal [problem]="cost.problem()" />
    @if (cost.value(); as c) {
      <h2 i18n>What it costs</h2>
      <div class="scroller">
        <table class="ledger">
          <caption i18n class="unseen">
            What it costs
          </caption>
          <thead>
            <tr>
              <td></td>
              <th i18n scope="col" class="number">Planned</th>
              <th scope="col" class="number">{{ isOver() ? says.really : says.soFar }}</th>
              @if (isOver()) {
                <th i18n scope="col" class="number">Difference</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (p of parts(); track p.name) {
              <tr>
                <th scope="row">{{ p.name }}</th>
                <td class="number">
                  {{ money(p.planned) }} <span class="soft small">{{ p.plannedText }}</span>
                </td>
                <td class="number">
                  {{ money(p.real) }} <span class="soft small">{{ p.realText }}</span>
                </td>
                @if (isOver()) {
                  <td class="number">{{ difference(p.planned, p.real) }}</td>
                }
              </tr>
            }
            <tr>
              <th i18n scope="row">Together</th>
              <td class="number">
                <strong>{{ money(whole().planned) }}</strong>
              </td>
              <td class="number">
                <strong>{{ money(whole().real) }}</strong>
              </td>
              @if (isOver()) {
                <td class="number">{{ difference(whole().planned, whole().real) }}</td>
              }
            </tr>
            <tr>
              <th i18n scope="row">A piece</th>
              <td class="number">
                <strong>{{ money(aPiece(whole().planned)) }}</strong>
              </td>
              <td class="number">
                <strong>{{ money(aPiece(whole().real)) }}</strong>
              </td>
              @if (isOver()) {
                <td class="number">{{ difference(aPiece(whole().planned), aPiece(whole().real)) }}</td>
              }
            </tr>
          </tbody>
        </table>
      </div>
      @if (isOver() && changed().length > 0) {
        <p i18n>What made the difference in materials:</p>
        <ul>
          @for (r of changed(); track r.materialId) {
            <li>{{ sayChange(r) }}</li>
          }
        </ul>
      }
      <p i18n class="small soft">
        Materials at the average worth of their stock; first in first out they are {{ money(c.fifoMinor) }}. Heat and
        water really used are those of the baths that were done, kept hot as long as they were; hands as long as
        somebody stayed.
      </p>
      @if (unpriced() !== '') {
        <p i18n class="small soft">Not in money, because nobody said the price under Studio: {{ unpriced() }}.</p>
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotCosts {
  private readonly api = inject(ApiClient);
  readonly lotId = input.required<string>();
  /** Nothing more goes into it: only then a difference says anything. */
  readonly isOver = input.required<boolean>();
  protected readonly says = { really: $localize`Really`, soFar: $localize`So far` };
  protected readonly cost = liveQuery(
    ['lots', 'stores', 'studio'],
    () => this.api.get('/api/lots/{id}/cost', { id: this.lotId() }),
    () => this.lotId(),
  );

  protected readonly parts = computed<readonly Part[]>(() => {
    const c = this.cost.value();
    if (!c) return [];
    const part = (name: string, of: (took: LotCost['planned']) => number | null, text: typeof heatText): Part => ({
      name,
      planned: of(c.planned),
      real: of(c.real),
      plannedText: text(c.planned),
      realText: text(c.real),
    });
    return [
      { name: $localize`Materials`, planned: c.plannedMinor, real: c.averageMinor, plannedText: '', realText: '' },
      part($localize`Heat`, (took) => took.heatMinor, heatText),
      part($localize`Water`, (took) => took.waterMinor, waterText),
      part($localize`Hands`, (took) => took.handsMinor, handsText),
    ];
  });
  protected readonly whole = computed(() => {
    const c = this.cost.value();
    return c ? wholeCost(c) : { planned: 0, real: 0 };
  });
  protected readonly unpriced = computed(() =>
    this.parts()
      .filter((p) => p.planned === null)
      .map((p) => p.name)
      .join(', '),
  );
  /** Materials of which more or less was taken than planned, what matters most first. */
  protected readonly changed = computed(() =>
    (this.cost.value()?.rows ?? [])
      .filter((r) => r.amount > 0 && Math.abs(r.averageMinor - r.plannedMinor) >= WORTH_SAYING)
      .sort((x, y) => Math.abs(y.averageMinor - y.plannedMinor) - Math.abs(x.averageMinor - x.plannedMinor)),
  );

  protected sayChange({ name, plannedAmount, amount, measure, averageMinor, plannedMinor }: Row): string {
    const [wanted, took] = [formatAmount(plannedAmount, measure), formatAmount(amount, measure)];
    return $localize`${name}, ${took} instead of ${wanted}, ${this.difference(plannedMinor, averageMinor)}`;
  }

  protected money(minor: number | null): string {
    return minor === null ? '' : formatMoney(minor, this.cost.value()?.currency ?? 'EUR');
  }

  protected difference(planned: number | null, real: number | null): string {
    if (planned === null || real === null) return '';
    return `${real > planned ? '+' : ''}${this.money(real - planned)}`;
  }

  protected aPiece(minor: number): number {
    return costOfAPiece(minor, this.cost.value() ?? { pieces: 1 });
  }
}

const heatText = ({ heatKwh }: LotCost['planned']): string => `${trimZeros(heatKwh, 1)} kWh`;
const waterText = ({ waterL }: LotCost['planned']): string => `${Math.round(waterL)} l`;
const handsText = ({ handsMin }: LotCost['planned']): string => sayMinutes(handsMin);
