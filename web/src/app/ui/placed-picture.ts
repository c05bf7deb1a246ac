import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlacedPlan, PlacedZone, ZoneWay } from '@vestigia/core';
import { trimZeros, ZONE_LABELS, layOutPlaced } from '@vestigia/core';

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

/**
 * A skein or length drawn as a strip, a lane for each turn, with its zones, ties and points, over a scale of
 * centimetres.
 */
@Component({
  selector: 'vs-placed-picture',
  templateUrl: './placed-picture.html',
  styleUrl: './placed-picture.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedPicture {
  readonly plan = input.required<PlacedPlan>();
  /** The zone that is spoken of, by its place in the plan: the others step back. */
  readonly here = input<number | undefined>(undefined);
  private readonly spokenOf = computed(() => this.plan().zones[this.here() ?? -1]);
  protected readonly stepsBack = (z: PlacedZone): boolean => {
    const here = this.spokenOf();
    return (
      here !== undefined && (z.title !== here.title || z.fromPercent !== here.fromPercent || z.order !== here.order)
    );
  };
  protected readonly lane = LANE;
  protected readonly strip = STRIP;
  protected readonly pattern = PATTERNS;
  protected readonly layout = computed(() => layOutPlaced(this.plan(), 1));
  protected readonly turns = computed(() => [...new Set(this.plan().zones.map((z) => z.order))].sort((a, b) => a - b));
  protected readonly height = computed(() => Math.max(1, this.turns().length) * LANE + 2);
  protected readonly zonesOf = (turn: number) => this.layout().zones.filter((z) => z.order === turn);
  protected readonly label = computed(
    () =>
      $localize`${this.plan().piece} of ${this.plan().lengthCm} cm: ${this.layout()
        .zones.map(
          (z) => $localize`${z.title}, ${ZONE_LABELS[z.way]}, ${trimZeros(z.fromCm, 1)} to ${trimZeros(z.toCm, 1)} cm`,
        )
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
