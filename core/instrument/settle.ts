import { worded } from '../words/worded';
import type { BalanceState } from './protocol';

/** A load is steady when it has stayed within one step of the balance for this long. */
const STEADY_MS = 1200;
/** With fewer readings than this nobody can say that it stands still. */
const MIN_READINGS = 3;
/** A balance that said nothing for this long is lost. */
export const LOST_AFTER_MS = 3000;
/** Below this many steps the pan counts as empty. */
const EMPTY_STEPS = 2;

/** What a balance said at one moment: g, epoch ms. */
export interface PanReading {
  readonly atMs: number;
  readonly weightG: number;
  readonly state: BalanceState;
}

/** What the pan is doing. */
export type PanState = 'none' | 'lost' | 'asleep' | 'over' | 'under' | 'moving' | 'steady';

/** The pan of a balance as the bench shows it, g. */
export interface Pan {
  readonly state: PanState;
  /** The newest weight; kept when the balance sleeps or is lost. `null` before there was any. */
  readonly weightG: number | null;
  readonly empty: boolean;
  readonly label: string;
}

const LABELS: Readonly<Record<PanState, string>> = worded(() => ({
  none: $localize`No balance is connected. Type what it shows.`,
  lost: $localize`The balance has gone quiet. The last weight it showed is kept; check the lead, or type what it shows.`,
  asleep: $localize`The balance has gone to sleep. The last weight it showed is kept; touch the pan to wake it.`,
  over: $localize`Too heavy for this balance. Take some off and weigh in portions.`,
  under: $localize`Below zero: something was on the pan when it was set to zero. Take everything off and set it to zero again.`,
  moving: $localize`Still moving.`,
  steady: $localize`Steady.`,
}));

/**
 * Watches one balance: a weight is steady when the readings of the last moment lie within a step of one another,
 * whatever the balance itself says of them, so that a reading is taken when it stands still and not when someone
 * touches the screen.
 */
export class PanWatch {
  private recent: PanReading[] = [];
  private last: PanReading | undefined;
  private lastWeightG: number | null = null;

  constructor(private readonly stepG: number) {
    if (!(stepG > 0)) throw new RangeError('stepG must be above zero');
  }

  feed(reading: PanReading): void {
    this.last = reading;
    if (reading.state === 'moving' || reading.state === 'still') {
      this.lastWeightG = reading.weightG;
      this.recent.push(reading);
    } else {
      this.recent = [];
    }
    // One reading older than the window is kept: it shows that the window is full.
    while (this.recent.length > 1 && (this.recent[1]?.atMs ?? 0) <= reading.atMs - STEADY_MS) this.recent.shift();
  }

  at(nowMs: number): Pan {
    const state = this.stateAt(nowMs);
    return {
      state,
      weightG: this.lastWeightG,
      empty: this.lastWeightG !== null && Math.abs(this.lastWeightG) < EMPTY_STEPS * this.stepG,
      label: LABELS[state],
    };
  }

  private stateAt(nowMs: number): PanState {
    if (!this.last) return 'none';
    if (this.last.state === 'asleep') return 'asleep';
    if (nowMs - this.last.atMs > LOST_AFTER_MS) return 'lost';
    if (this.last.state === 'over') return 'over';
    if (this.last.state === 'under' || this.last.weightG < -EMPTY_STEPS * this.stepG) return 'under';
    const first = this.recent[0];
    if (!first || this.recent.length < MIN_READINGS || this.last.atMs - first.atMs < STEADY_MS) return 'moving';
    const weights = this.recent.map((r) => r.weightG);
    return Math.max(...weights) - Math.min(...weights) <= this.stepG * 1.001 ? 'steady' : 'moving';
  }
}
