import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlacedPlan, ZoneWay } from '@vestigia/core';
import { ZONE_WORDS, layOutPlaced } from '@vestigia/core';

const LANE = 46;
const STRIP = 34;
/** Each way its own pattern: nothing here is told by colour. */
const PATTERNS: Readonly<Record<ZoneWay, string>> = {
  tie: 'tie',
  bind: 'bind',
  dip: 'dip',
  spray: 'spray',
  pour: 'pour',
  layOn: 'lay',
  modify: 'modify',
  leave: 'leave',
};

/** A skein or length drawn as a strip, a lane for each turn, with its zones, ties and points, over a scale of centimetres. */
@Component({
  selector: 'vs-placed-picture',
  template: ` <svg [attr.viewBox]="'-6 0 1012 ' + (height() + 34)" role="img" [attr.aria-label]="words()">
    <defs>
      <pattern id="p-tie" width="10" height="10" patternUnits="userSpaceOnUse">
        <path d="M0 0L10 10M10 0L0 10" class="line" />
      </pattern>
      <pattern id="p-bind" width="14" height="14" patternUnits="userSpaceOnUse">
        <circle cx="7" cy="7" r="3" class="ring" />
      </pattern>
      <pattern id="p-dip" width="8" height="8" patternUnits="userSpaceOnUse"><path d="M0 4H8" class="line" /></pattern>
      <pattern id="p-spray" width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="1" class="dot" />
        <circle cx="5.5" cy="5.5" r="0.8" class="dot" />
      </pattern>
      <pattern id="p-pour" width="6" height="6" patternUnits="userSpaceOnUse"><path d="M3 0V6" class="line" /></pattern>
      <pattern id="p-lay" width="16" height="12" patternUnits="userSpaceOnUse">
        <path d="M2 8q6-10 12 0q-6 4-12 0z" class="line" />
      </pattern>
      <pattern id="p-modify" width="9" height="9" patternUnits="userSpaceOnUse">
        <path d="M0 9L9 0" class="line" />
      </pattern>
      <pattern id="p-leave" width="4" height="4" patternUnits="userSpaceOnUse"></pattern>
    </defs>
    @for (turn of turns(); track turn; let row = $index) {
      <rect x="0" [attr.y]="row * lane + 4" width="1000" [attr.height]="strip" class="piece" />
      @for (z of zonesOf(turn); track $index) {
        <rect
          [attr.x]="z.fromPercent * 10"
          [attr.y]="row * lane + 4"
          [attr.width]="(z.toPercent - z.fromPercent) * 10"
          [attr.height]="strip"
          [attr.fill]="'url(#p-' + pattern[z.way] + ')'"
          class="zone"
        />
        @for (p of z.pointsCm; track $index) {
          <path [attr.d]="'M' + (p / plan().lengthCm) * 1000 + ' ' + row * lane + 'v' + (strip + 8)" class="cord" />
        }
      }
    }
    @for (tick of ticks(); track tick.x) {
      <path [attr.d]="'M' + tick.x + ' ' + height() + 'v8'" class="line" />
      <text [attr.x]="tick.x" [attr.y]="height() + 26" text-anchor="middle">{{ tick.cm }}</text>
    }
  </svg>`,
  styles: `
    svg {
      width: 100%;
      display: block;
      overflow: visible;
    }
    .piece {
      fill: var(--raised);
      stroke: var(--line-strong);
    }
    .zone {
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .line {
      stroke: var(--ink);
      fill: none;
      stroke-width: 1;
    }
    .ring {
      stroke: var(--ink);
      fill: none;
    }
    .dot {
      fill: var(--ink);
    }
    .cord {
      stroke: var(--ink);
      stroke-width: 3;
    }
    text {
      font: 600 18px var(--face);
      fill: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedPicture {
  readonly plan = input.required<PlacedPlan>();
  protected readonly lane = LANE;
  protected readonly strip = STRIP;
  protected readonly pattern = PATTERNS;
  protected readonly layout = computed(() => layOutPlaced(this.plan(), 1));
  protected readonly turns = computed(() => [...new Set(this.plan().zones.map((z) => z.order))].sort((a, b) => a - b));
  protected readonly height = computed(() => Math.max(1, this.turns().length) * LANE + 2);
  protected readonly zonesOf = (turn: number) => this.layout().zones.filter((z) => z.order === turn);
  protected readonly words = computed(
    () =>
      `${this.plan().piece} of ${this.plan().lengthCm} cm: ${this.layout()
        .zones.map((z) => `${z.title}, ${ZONE_WORDS[z.way]}, ${z.fromCm} to ${z.toCm} cm`)
        .join('; ')}`,
  );
  protected readonly ticks = computed(() => {
    const { lengthCm } = this.plan();
    const step = [1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => lengthCm / s <= 16) ?? 1000;
    return Array.from({ length: Math.floor(lengthCm / step) + 1 }, (_, i) => ({
      cm: i * step,
      x: Math.round(((i * step) / lengthCm) * 10_000) / 10,
    }));
  });
}
