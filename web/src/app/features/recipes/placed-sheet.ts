import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ZONE_WORDS, layOutPlaced, sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';

/** Width that any printer gives on A4 across, and on letter paper. */
const BAND_MM = 240;
const LANE_MM = 14;

/** Placed colour at true scale: bands of paper laid end to end beside the piece, with a ruler. Every piece of the lot is laid on the same one. */
@Component({
  selector: 'vs-placed-sheet',
  imports: [RouterLink, RefusalNote],
  template: ` <vs-refusal [problem]="version.problem()" />
    @if (layout(); as l) {
      <div class="noprint">
        <div class="head">
          <h1>{{ version.value()?.recipe?.name }}: laid out at true scale</h1>
          <div class="actions">
            <button class="act main" type="button" (click)="print()">Print it</button
            ><a class="act" [routerLink]="['/recipes', id()]">Back to the recipe</a>
          </div>
        </div>
        <p>
          Print at 100 %, never “fit to page”. Measure the line of 100 mm first; then lay the bands end to end and the
          piece beside them.
        </p>
      </div>
      <section class="scroller" aria-label="Bands" tabindex="0">
        @for (band of bands(); track band.from) {
          <figure>
            <svg
              [attr.width]="band.widthMm + 'mm'"
              [attr.height]="heightMm() + 'mm'"
              [attr.viewBox]="band.from + ' 0 ' + band.widthMm + ' ' + heightMm()"
              role="img"
              [attr.aria-label]="'from ' + band.from / 10 + ' to ' + (band.from + band.widthMm) / 10 + ' cm'"
            >
              @for (tick of band.ticks; track tick.mm) {
                <path [attr.d]="'M' + tick.mm + ' 0v' + (tick.cm % 10 === 0 ? 9 : tick.cm % 5 === 0 ? 6.5 : 4)" />
                @if (tick.cm % 5 === 0) {
                  <text [attr.x]="tick.mm + 0.8" y="9">{{ tick.cm }}</text>
                }
              }
              @for (z of band.zones; track $index) {
                <rect
                  [attr.x]="z.fromCm * 10"
                  [attr.y]="laneOf(z.order)"
                  [attr.width]="(z.toCm - z.fromCm) * 10"
                  height="11"
                />
                <text [attr.x]="within(z.fromCm * 10, band.from) + 1.5" [attr.y]="laneOf(z.order) + 7">
                  {{ z.order }}. {{ z.title }}: {{ words[z.way] }}
                  @if (z.mlPerPiece !== null) {
                    , {{ z.mlPerPiece }} ml
                  }
                  @if (z.gPerPiece) {
                    , {{ z.gPerPiece }} g
                  }
                  @if (z.minutes > 0) {
                    , {{ minutes(z.minutes) }}
                  }
                </text>
                @for (p of z.pointsCm; track p) {
                  <path class="cord" [attr.d]="'M' + p * 10 + ' ' + (laneOf(z.order) - 1) + 'v13'" />
                }
              }
            </svg>
            <figcaption>
              {{ band.from / 10 }} to {{ (band.from + band.widthMm) / 10 }} cm of {{ lengthCm() }} cm
              @if ($first) {
                <span class="rule"
                  ><svg width="100mm" height="4mm" viewBox="0 0 100 4" role="img" aria-label="a line of 100 mm">
                    <path d="M0 2H100M0 0V4M100 0V4" />
                  </svg>
                  100 mm</span
                >
              }
            </figcaption>
          </figure>
        }
      </section>
      <p>Turns, with their waits: {{ minutes(l.totalMin) }} in all.</p>
      @for (c of l.cautions; track c) {
        <p>
          <strong>{{ c }}</strong>
        </p>
      }
    }`,
  styles: `
    figure {
      margin: 0 0 6mm;
      break-inside: avoid;
    }
    svg {
      display: block;
      background: var(--raised);
      overflow: hidden;
    }
    rect {
      fill: none;
      stroke: var(--ink);
      stroke-width: 0.4;
    }
    path {
      stroke: var(--ink);
      stroke-width: 0.3;
      fill: none;
    }
    .cord {
      stroke-width: 1.2;
    }
    text {
      font: 600 3.6px var(--face);
      fill: var(--ink);
      stroke: var(--raised);
      stroke-width: 1px;
      paint-order: stroke;
    }
    figcaption {
      font-size: 0.85rem;
    }
    .rule {
      display: inline-flex;
      gap: 0.5rem;
      align-items: center;
      margin-left: 1rem;
    }
    .rule svg {
      display: inline-block;
    }
    @media print {
      section {
        overflow: visible;
      }
      svg {
        background: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedSheetPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly words = ZONE_WORDS;
  protected readonly minutes = sayMinutes;
  protected readonly version = live(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  private readonly plan = computed(() => this.version.value()?.body.placed ?? null);
  protected readonly lengthCm = computed(() => this.plan()?.lengthCm ?? 0);
  protected readonly layout = computed(() => {
    const p = this.plan();
    return p ? layOutPlaced(p, 1) : undefined;
  });
  private readonly turns = computed(() =>
    [...new Set((this.plan()?.zones ?? []).map((z) => z.order))].sort((a, b) => a - b),
  );
  protected readonly heightMm = computed(() => 12 + this.turns().length * LANE_MM);
  protected readonly laneOf = (turn: number): number => 11 + this.turns().indexOf(turn) * LANE_MM;
  /** A zone that began on an earlier band has its words where this one begins. */
  protected readonly within = (startMm: number, bandMm: number): number => Math.max(startMm, bandMm);
  protected readonly bands = computed(() => {
    const lengthMm = this.lengthCm() * 10;
    return Array.from({ length: Math.ceil(lengthMm / BAND_MM) }, (_, i) => {
      const from = i * BAND_MM;
      const widthMm = Math.min(BAND_MM, lengthMm - from);
      const zones = (this.layout()?.zones ?? []).filter((z) => z.fromCm * 10 < from + widthMm && z.toCm * 10 > from);
      return {
        from,
        widthMm,
        zones,
        ticks: Array.from({ length: Math.floor(widthMm / 10) + 1 }, (_t, n) => ({
          mm: from + n * 10,
          cm: from / 10 + n,
        })),
      };
    });
  });

  protected print(): void {
    window.print();
  }
}
