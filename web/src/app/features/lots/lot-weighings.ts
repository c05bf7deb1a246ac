import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Proposal } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import { FigureValue } from '../../ui/figure-value';

/** Everything to measure out, by material and by bath, with the jars it comes from and what is short. */
@Component({
  selector: 'vs-lot-weighings',
  imports: [FigureValue],
  template: ` <div class="scroller">
    <table class="ledger">
      <thead>
        <tr>
          <th>Material</th>
          <th class="number">All</th>
          <th>Measured out</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        @for (m of rows(); track m.material.materialId) {
          <tr [class.mark]="m.material.short > 0">
            <td>{{ m.material.name }}</td>
            <td class="number">
              <strong><vs-figure [figure]="m.material.total" [name]="m.material.name" /></strong>
            </td>
            <td>
              @for (w of m.weighings; track $index) {
                <span class="jar"
                  ><span class="soft small">{{ w.where }}</span>
                  <vs-figure [figure]="w.target" [name]="m.material.name + ', ' + w.where"
                /></span>
              }
              @for (line of m.advice; track line) {
                <br /><span class="small">{{ line }}</span>
              }
            </td>
            <td>
              @for (pick of m.picks; track $index) {
                <span class="jar"
                  ><strong>{{ pick.tag }}</strong> {{ pick.amount }}</span
                >
              }
              @if (m.short) {
                <span class="jar short">short {{ m.short }}</span>
              }
              @for (line of m.material.notes; track line) {
                @if (line !== 'first expired, first out') {
                  <br /><span class="small">{{ line }}</span>
                }
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
  </div>`,
  styles: `
    .jar {
      white-space: nowrap;
      margin-right: 0.9rem;
    }
    .short {
      font-weight: 700;
      text-decoration: underline wavy;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotWeighings {
  readonly proposal = input.required<Proposal>();
  protected readonly rows = computed(() => {
    const { plan, jars } = this.proposal();
    return plan.materials.map((material) => {
      const weighings = plan.steps.flatMap((s) =>
        s.weighings.filter((w) => w.materialId === material.materialId).map((w) => ({ ...w, step: s.title })),
      );
      const steps = new Set(weighings.map((w) => w.step)).size;
      return {
        material,
        advice: [...new Set(weighings.flatMap((w) => w.advice))],
        short: material.short > 0 ? formatAmount(material.short, material.measure) : '',
        weighings: weighings.map((w) => ({
          target: w.target,
          where: `${steps > 1 ? `${w.step}, ` : ''}${w.forBatches.length > 1 ? `batches ${w.forBatches.join(' + ')}` : `batch ${w.batch}`}`,
        })),
        picks: material.picks.map((p) => ({
          tag: jars.find((j) => j.id === p.stockLotId)?.tag ?? '',
          amount: formatAmount(p.amount, material.measure),
        })),
      };
    });
  });
}
