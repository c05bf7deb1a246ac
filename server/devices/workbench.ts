import type { InstrumentOrder } from '@vestigia/contract';
import type { InstrumentKind, InstrumentMessage } from '@vestigia/core';
import { InstrumentLines } from '@vestigia/core';
import type { PotCard } from './simulated-pot';
import { SimulatedPot } from './simulated-pot';
import type { SimulatedInstrument } from './simulated-instruments';
import { SimulatedBalance, SimulatedProbe, SimulatedReader } from './simulated-instruments';

/** Readings a second, as a bench balance and a probe send them. */
const TICK_MS = 100;
/** Pots move on at most this much at once, so that a burner turned down in a fast rehearsal is felt. */
const LONGEST_STEP_S = 30;

export interface Heard {
  readonly kind: InstrumentKind;
  /** On the workbench's own clock, epoch ms. */
  readonly atMs: number;
  readonly message: InstrumentMessage;
}

export interface Hanging {
  readonly lotId: string;
  readonly stepIndex: number;
}

/**
 * A bench of simulated instruments over simulated pots, on a clock of its own. The house has one at the pace of the
 * day; each rehearsal has one of its own that may run faster. It rests while nobody listens and no pot is hung.
 */
export class Workbench {
  readonly balance: SimulatedBalance;
  readonly probe: SimulatedProbe;
  readonly reader: SimulatedReader;
  private readonly pots = new Map<string, SimulatedPot>();
  private readonly listeners = new Set<(heard: Heard) => void>();
  private readonly hangListeners = new Set<() => void>();
  private hanging: Hanging | undefined;
  private timer: ReturnType<typeof setInterval> | undefined;
  private lastMs: number;

  /**
   * @param clockMs its own clock, by which pots heat and cool; @param handsMs the pace of hands: a pan settles no
   * faster in a fast rehearsal
   */
  constructor(
    private readonly clockMs: () => number,
    private readonly handsMs: () => number,
    readonly card: { name: string; capacityG: number; resolutionG: number },
  ) {
    this.balance = new SimulatedBalance(card);
    this.probe = new SimulatedProbe(() => this.pot()?.state);
    this.reader = new SimulatedReader(() => this.pot()?.colour());
    this.lastMs = clockMs();
    const all: readonly [InstrumentKind, SimulatedInstrument][] = [
      ['balance', this.balance],
      ['probe', this.probe],
      ['colour', this.reader],
    ];
    for (const [kind, simulatedInstrument] of all) this.hear(kind, simulatedInstrument);
  }

  /** Listens to what an instrument says, as to any stream of text. */
  private hear(kind: InstrumentKind, { stream }: SimulatedInstrument): void {
    const lines = new InstrumentLines();
    stream.setEncoding('utf8');
    stream.on('data', (text: string) => {
      const atMs = this.clockMs();
      for (const message of lines.feed(text, atMs))
        for (const listener of this.listeners) listener({ kind, atMs, message });
    });
  }

  get hangs(): Hanging | undefined {
    return this.hanging;
  }

  pot(lotId = this.hanging?.lotId): SimulatedPot | undefined {
    return lotId === undefined ? undefined : this.pots.get(lotId);
  }

  listen(listener: (heard: Heard) => void): () => void {
    this.listeners.add(listener);
    this.wake();
    return () => {
      this.listeners.delete(listener);
      this.rest();
    };
  }

  /** Runs when the probe is hung elsewhere. */
  onHang(listener: () => void): () => void {
    this.hangListeners.add(listener);
    return () => this.hangListeners.delete(listener);
  }

  /** Hangs the probe into a lot's bath, or takes it out. A bath it hung in before goes on where it was. */
  hang(hanging: Hanging | undefined, card: PotCard | undefined): void {
    this.hanging = hanging;
    if (hanging && card) this.pots.set(hanging.lotId, this.pots.get(hanging.lotId) ?? new SimulatedPot(card));
    this.wake();
    this.rest();
    for (const listener of this.hangListeners) listener();
  }

  /** A new bath for a lot: the old one is poured away. */
  refill(lotId: string, card: PotCard): void {
    this.pots.set(lotId, new SimulatedPot(card));
  }

  obey(order: InstrumentOrder): void {
    const nowMs = order.kind === 'probe' ? this.clockMs() : this.handsMs();
    const simulatedInstrument = { balance: this.balance, probe: this.probe, colour: this.reader }[order.kind];
    switch (order.do) {
      case 'tare':
        simulatedInstrument.command('TARE', nowMs);
        break;
      case 'wake':
        simulatedInstrument.command('WAKE', nowMs);
        break;
      case 'read':
        simulatedInstrument.command('READ', nowMs);
        break;
      case 'unplug':
        simulatedInstrument.unplug(order.out);
        break;
      case 'put':
        this.balance.put(order.weightG, nowMs);
        break;
      case 'heat':
        this.pot()?.setHeat(order.share);
        break;
      case 'lid':
        this.pot()?.setLid(order.on);
        break;
      case 'pour':
        this.pot()?.pour(order.ml, order.temperatureC);
        break;
      case 'acid':
        this.pot()?.addAcid(order.ml);
        break;
      case 'hang':
        break;
    }
  }

  close(): void {
    this.listeners.clear();
    this.hangListeners.clear();
    this.hanging = undefined;
    this.rest();
  }

  /** One beat: pots move on by the time that passed, and every instrument says what it reads. */
  tick(): void {
    const nowMs = this.clockMs();
    for (let left = (nowMs - this.lastMs) / 1000; left > 0; left -= LONGEST_STEP_S)
      for (const pot of this.pots.values()) pot.advance(Math.min(left, LONGEST_STEP_S));
    this.lastMs = nowMs;
    this.balance.tick(this.handsMs());
    this.probe.tick(nowMs);
    this.reader.tick(this.handsMs());
  }

  private wake(): void {
    if (this.timer || (this.listeners.size === 0 && !this.hanging)) return;
    this.timer = setInterval(() => this.tick(), TICK_MS);
    this.timer.unref();
  }

  private rest(): void {
    if (this.listeners.size > 0 || this.hanging) return;
    clearInterval(this.timer);
    this.timer = undefined;
  }
}
