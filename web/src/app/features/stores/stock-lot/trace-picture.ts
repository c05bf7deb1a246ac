import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { StockLot } from '@vestigia/contract';
import { describeColour, formatAmount, screenColour } from '@vestigia/core';
import { LEDGER_LABELS } from '../../../format/ledger-labels';
import type { TraceStrand } from './trace-layout';
import { layTrace } from './trace-layout';
import { ScrollRegion } from '../../../ui/scroll-region';

/**
 * One jar as a strand: what it was made of runs in from the left, what became of it runs out to the right, each as
 * thick as its share.
 */
@Component({
  selector: 'vs-trace-picture',
  imports: [ScrollRegion, RouterLink],
  templateUrl: './trace-picture.html',
  styles: `
    svg {
      max-width: 100%;
      display: block;
      background: var(--mount);
    }
    text {
      font-size: 14px;
      fill: var(--mount-ink);
    }
    .tag {
      font-weight: 700;
      fill: var(--sheet);
    }
    .jar {
      fill: var(--ink);
    }
    path.plain {
      stroke: var(--mount-ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TracePicture {
  /** What its template says by what holds. */
  protected readonly says = {
    cameAndWent: (tag: string | number): string => $localize`From where ${tag} came and where it went`,
  };

  readonly stockLot = input.required<StockLot>();
  private readonly strands = computed((): TraceStrand[] => strandsOf(this.stockLot()));
  protected readonly picture = computed(() => (this.strands().length === 0 ? undefined : layTrace(this.strands())));
  protected readonly links = computed(() => this.strands().filter((s) => s.link !== undefined));
}

const MAX_LOTS = 14;

function strandsOf(stockLot: StockLot): TraceStrand[] {
  const { row } = stockLot;
  const inward: TraceStrand[] = stockLot.parents.map((p) => ({
    key: `in ${p.id}`,
    side: 'in',
    amount: p.amount,
    label: `${p.tag} · ${formatAmount(p.amount, p.measure)}`,
    link: ['/stores', p.id],
  }));
  const lots: TraceStrand[] = stockLot.wentInto.slice(0, MAX_LOTS).map((w) => {
    const shown = w.colour === null ? undefined : screenColour(w.colour, w.colour);
    return {
      key: w.lot.id,
      side: 'out',
      amount: w.amount,
      label: `${w.lot.tag} ${w.lot.colourway} · ${formatAmount(w.amount, row.measure)}`,
      meaning: w.colour === null ? $localize`not read yet` : describeColour(w.colour),
      link: ['/lots', w.lot.id],
      ...(shown ? { colour: shown.css } : { dashed: true }),
    };
  });
  const rest = stockLot.wentInto.slice(MAX_LOTS);
  if (rest.length > 0)
    lots.push({
      key: 'more',
      side: 'out',
      amount: rest.reduce((sum, w) => sum + w.amount, 0),
      label: $localize`${rest.length} earlier lots`,
    });
  const children: TraceStrand[] = stockLot.children.map((c) => ({
    key: `out ${c.id}`,
    side: 'out',
    amount: c.share,
    label: `${c.tag} · ${formatAmount(c.amount, c.measure)}`,
    link: ['/stores', c.id],
  }));
  const others: TraceStrand[] = stockLot.otherwise.map(({ kind, amount }) => ({
    key: kind,
    side: 'out',
    amount,
    label: `${LEDGER_LABELS[kind]} · ${formatAmount(amount, row.measure)}`,
  }));
  const left: TraceStrand[] =
    row.onHand > 0
      ? [
          {
            key: 'left',
            side: 'out',
            amount: row.onHand,
            label: $localize`still here · ${formatAmount(row.onHand, row.measure)}`,
          },
        ]
      : [];
  const out = [...lots, ...children, ...others];
  return inward.length + out.length === 0 ? [] : [...inward, ...out, ...left];
}
