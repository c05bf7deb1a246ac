import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { StockLot } from '@vestigia/contract';
import { describeColour, formatAmount, screenColour } from '@vestigia/core';
import { LEDGER_WORDS } from '../../ui/ledger-words';
import type { TraceStrand } from './trace-layout';
import { layTrace } from './trace-layout';

/** One jar as a strand: what it was made of runs in from the left, what became of it runs out to the right, each as thick as its share. */
@Component({
  selector: 'vs-trace-picture',
  imports: [RouterLink],
  template: ` @if (picture(); as p) {
      <div class="scroller">
        <svg
          [attr.viewBox]="'0 0 760 ' + p.height"
          [attr.height]="p.height"
          width="760"
          role="img"
          [attr.aria-label]="'From where ' + jar().row.tag + ' came and where it went'"
        >
          @for (s of p.strands; track s.key) {
            <path
              [attr.d]="s.path"
              [attr.stroke]="s.colour ?? 'currentColor'"
              [attr.stroke-width]="s.width"
              [attr.stroke-dasharray]="s.dashed ? '3 4' : null"
              fill="none"
              [class.plain]="s.colour === undefined"
            />
          }
          <rect
            [attr.x]="p.knotX"
            [attr.y]="p.knotY - p.knotHeight / 2"
            width="100"
            [attr.height]="p.knotHeight"
            class="jar"
          />
          <text [attr.x]="p.knotX + 50" [attr.y]="p.knotY + 5" text-anchor="middle" class="tag">
            {{ jar().row.tag }}
          </text>
          @for (s of p.strands; track s.key) {
            <text [attr.x]="s.labelX" [attr.y]="s.labelY" [attr.text-anchor]="s.side === 'in' ? 'end' : 'start'">
              {{ s.label }}
            </text>
          }
        </svg>
      </div>
      <p class="small refs">
        @for (s of links(); track s.key) {
          <a [routerLink]="s.link">{{ s.label }}{{ s.words ? ' · ' + s.words : '' }}</a>
        }
      </p>
    } @else {
      <p class="soft">Nothing has left it, and it was made of nothing else.</p>
    }`,
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
  readonly jar = input.required<StockLot>();
  private readonly strands = computed((): TraceStrand[] => strandsOf(this.jar()));
  protected readonly picture = computed(() => (this.strands().length === 0 ? undefined : layTrace(this.strands())));
  protected readonly links = computed(() => this.strands().filter((s) => s.link !== undefined));
}

const MOST_LOTS = 14;

function strandsOf(jar: StockLot): TraceStrand[] {
  const { row } = jar;
  const inward: TraceStrand[] = jar.parents.map((p) => ({
    key: `in ${p.id}`,
    side: 'in',
    amount: p.amount,
    label: `${p.tag} · ${formatAmount(p.amount, p.measure)}`,
    link: ['/stores', p.id],
  }));
  const lots: TraceStrand[] = jar.wentInto.slice(0, MOST_LOTS).map((w) => {
    const shown = w.colour === null ? undefined : screenColour(w.colour, w.colour);
    return {
      key: w.lot.id,
      side: 'out',
      amount: w.amount,
      label: `${w.lot.tag} ${w.lot.colourway} · ${formatAmount(w.amount, row.measure)}`,
      words: w.colour === null ? 'not read yet' : describeColour(w.colour),
      link: ['/lots', w.lot.id],
      ...(shown ? { colour: shown.css } : { dashed: true }),
    };
  });
  const rest = jar.wentInto.slice(MOST_LOTS);
  if (rest.length > 0)
    lots.push({
      key: 'more',
      side: 'out',
      amount: rest.reduce((sum, w) => sum + w.amount, 0),
      label: `${rest.length} earlier lots`,
    });
  const children: TraceStrand[] = jar.children.map((c) => ({
    key: `out ${c.id}`,
    side: 'out',
    amount: c.share,
    label: `${c.tag} · ${formatAmount(c.amount, c.measure)}`,
    link: ['/stores', c.id],
  }));
  const others: TraceStrand[] = jar.otherwise.map(({ kind, amount }) => ({
    key: kind,
    side: 'out',
    amount,
    label: `${LEDGER_WORDS[kind]} · ${formatAmount(amount, row.measure)}`,
  }));
  const left: TraceStrand[] =
    row.onHand > 0
      ? [
          {
            key: 'left',
            side: 'out',
            amount: row.onHand,
            label: `still here · ${formatAmount(row.onHand, row.measure)}`,
          },
        ]
      : [];
  const out = [...lots, ...children, ...others];
  return inward.length + out.length === 0 ? [] : [...inward, ...out, ...left];
}
