import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { LotSummary, Station } from '@vestigia/contract';
import { describeColour, screenColour } from '@vestigia/core';
import { layThread } from './thread-geometry';

const CROWDED_FROM = 13;
const STATE_LABELS: Readonly<Record<Station['state'], string>> = {
  waiting: $localize`to come`,
  running: $localize`now`,
  paused: $localize`paused`,
  done: $localize`done`,
  skipped: $localize`skipped`,
};

/**
 * A lot as one strand through its stations, in its real colours: solid where done, open where planned, knotted where
 * someone deviated.
 */
@Component({
  selector: 'vs-thread',
  templateUrl: './thread.html',
  styleUrl: './thread.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Thread {
  /** Its master is `null` where what comes out is not known beforehand: the strand then stays as it began. */
  readonly lot = input.required<Pick<LotSummary, 'stations' | 'undyed' | 'master' | 'result' | 'batches'>>();
  readonly large = input(false);
  /** The strand alone, to be seen from across a room. */
  readonly wide = input(false);
  readonly selected = input<number | undefined>(undefined);
  readonly picked = output<number>();
  protected readonly crowded = computed(() => this.large() && this.lot().stations.length > CROWDED_FROM);

  protected readonly drawing = computed(() =>
    layThread(
      this.lot().stations,
      this.lot().batches,
      this.large()
        ? { width: 1000, height: 70, strandWidth: 12 }
        : this.wide()
          ? { width: 1000, height: 48, strandWidth: 20 }
          : { width: 300, height: 28, strandWidth: 7 },
    ),
  );
  private readonly dyedColour = computed(() => this.lot().result ?? this.lot().master);
  private readonly said = computed(() => {
    const lab = this.dyedColour();
    return lab
      ? `${this.lot().result ? $localize`read as` : $localize`wanted`} ${describeColour(lab)}`
      : $localize`its shade not known yet`;
  });
  private readonly firstDyed = computed(() => this.drawing().parts.findIndex((p) => p.dyed));

  protected colour(dyed: boolean): string {
    const lab = (dyed ? this.dyedColour() : null) ?? this.lot().undyed;
    return screenColour(lab, lab).css;
  }

  protected dyedAt(index: number): boolean {
    return (
      this.firstDyed() >= 0 && index >= this.lot().stations.findIndex((s) => s.kind === 'dye' || s.kind === 'tannin')
    );
  }

  protected stateLabel(station: Station): string {
    return `${STATE_LABELS[station.state]}${station.hasDeviation ? $localize`, with a deviation` : ''}`;
  }

  protected readonly label = computed(() => {
    const done = this.lot().stations.filter((s) => s.state === 'done' || s.state === 'skipped').length;
    const knots = this.lot().stations.filter((s) => s.hasDeviation).length;
    return $localize`${done} of ${this.lot().stations.length} stations done${knots > 0 ? $localize`, ${knots} with a deviation` : ''}; ${this.said()}`;
  });
}
