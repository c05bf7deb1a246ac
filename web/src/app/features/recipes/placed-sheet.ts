import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ZONE_LABELS, layOutPlaced, sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';

/** Width that any printer gives on A4 across, and on letter paper. */
const BAND_MM = 240;
const LANE_MM = 14;

/**
 * Placed colour at true scale: bands of paper laid end to end beside the piece, with a ruler. Every piece of the lot
 * is laid on the same one.
 */
@Component({
  selector: 'vs-placed-sheet',
  imports: [ActBar, ScrollRegion, RouterLink, RefusalNote],
  templateUrl: './placed-sheet.html',
  styleUrl: './placed-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedSheetPage {
  /** What its template says by what holds. */
  protected readonly says = {
    fromToCm: (from: string | number, widthMm: string | number): string => $localize`from ${from} to ${widthMm} cm`,
    ml: (mlPerPiece: string | number): string => $localize`, ${mlPerPiece} ml`,
  };

  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly label = ZONE_LABELS;
  protected readonly minutes = sayMinutes;
  protected readonly version = liveQuery(
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

  constructor() {
    namesPage(() => {
      const v = this.version.value();
      return v && $localize`${v.recipe.name}, at true scale`;
    });
  }

  protected print(): void {
    window.print();
  }
}
