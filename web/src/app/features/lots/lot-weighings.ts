import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Proposal } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import { FigureValue } from '../../ui/figure-value';
import { ScrollRegion } from '../../ui/scroll-region';

/** Everything to measure out, by material and by bath, with the jars it comes from and what is short. */
@Component({
  selector: 'vs-lot-weighings',
  imports: [ScrollRegion, FigureValue],
  templateUrl: './lot-weighings.html',
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
    const { plan, stockLots } = this.proposal();
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
          where: `${steps > 1 ? `${w.step}, ` : ''}${w.forBatches.length > 1 ? $localize`batches ${w.forBatches.join(' + ')}` : $localize`batch ${w.batch}`}`,
        })),
        picks: material.picks.map((p) => ({
          tag: stockLots.find((j) => j.id === p.stockLotId)?.tag ?? '',
          amount: formatAmount(p.amount, material.measure),
        })),
      };
    });
  });
}
