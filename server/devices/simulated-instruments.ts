import { PassThrough } from 'node:stream';
import type { InstrumentCommand, Lab } from '@vestigia/core';
import { Chance, roundToResolution, withSum } from '@vestigia/core';

/**
 * A simulated instrument for an instrument: says its lines on a stream as a real one does on its cable, and takes the
 * same few words back. Time is given to it, so that a rehearsal can run fast and a test need not wait.
 */
export abstract class SimulatedInstrument {
  readonly stream = new PassThrough();
  protected unplugged = false;

  constructor(protected readonly hello: string) {}

  /** Says what it reads now. */
  tick(nowMs: number): void {
    if (!this.unplugged) for (const line of this.linesAt(nowMs)) this.say(line);
  }

  command(command: InstrumentCommand, nowMs: number): void {
    if (this.unplugged) return;
    if (command === 'ID?') this.say(this.hello);
    else this.obey(command, nowMs);
  }

  get connected(): boolean {
    return !this.unplugged;
  }

  /** The lead pulled out, or put back. */
  unplug(out: boolean): void {
    this.unplugged = out;
    if (!out) this.say(this.hello);
  }

  protected say(line: string): void {
    this.stream.write(`${withSum(line)}\n`);
  }

  protected abstract linesAt(nowMs: number): string[];
  protected abstract obey(command: InstrumentCommand, nowMs: number): void;
}

/** A load comes to rest in about a second. */
const SETTLE_MS = 420;
const SLEEPS_AFTER_MS = 90_000;
const DRIFT_G_PER_HOUR = 0.05;

/**
 * A balance: settles, wobbles by less than its step, drifts, refuses too much, goes to sleep when nobody touches it.
 */
export class SimulatedBalance extends SimulatedInstrument {
  private readonly noise = new Chance(11);
  private loadG = 0;
  private shownG = 0;
  private tareG = 0;
  private touchedMs: number | undefined;
  private lastMs: number | undefined;
  private driftG = 0;

  constructor(private readonly card: { name: string; capacityG: number; resolutionG: number }) {
    super(`ID balance ${card.name.replaceAll(/\s+/g, '_')} capacity=${card.capacityG} step=${card.resolutionG}`);
  }

  get panG(): number {
    return this.loadG;
  }

  put(weightG: number, nowMs: number): void {
    this.loadG = weightG;
    this.touchedMs = nowMs;
  }

  protected obey(command: InstrumentCommand, nowMs: number): void {
    this.touchedMs = nowMs;
    if (command === 'TARE') this.tareG = this.loadG + this.driftG;
  }

  protected linesAt(nowMs: number): string[] {
    this.touchedMs ??= nowMs;
    const passedMs = nowMs - (this.lastMs ?? nowMs);
    this.lastMs = nowMs;
    this.shownG += (this.loadG - this.shownG) * (1 - Math.exp(-passedMs / SETTLE_MS));
    this.driftG += (passedMs / 3_600_000) * DRIFT_G_PER_HOUR;
    if (nowMs - this.touchedMs > SLEEPS_AFTER_MS) return ['W ------ g Z'];
    if (this.loadG > this.card.capacityG) return ['W ------ g O'];
    const wobble = this.noise.normal() * this.card.resolutionG * 0.12;
    const moving = Math.abs(this.loadG - this.shownG) > this.card.resolutionG;
    const g = roundToResolution(this.shownG + this.driftG - this.tareG + wobble, this.card.resolutionG);
    return [`W ${g.toFixed(3)} g ${moving ? 'M' : 'S'}`];
  }
}

/** The sheath of a probe follows the bath with this lag. */
const PROBE_LAG_MS = 6000;

/** A bath probe: follows the bath with a lag, wobbles by a few hundredths, reads pH every other second. */
export class SimulatedProbe extends SimulatedInstrument {
  private readonly noise = new Chance(23);
  private shownC: number | undefined;
  private lastMs: number | undefined;
  private lastPhMs = -Infinity;

  constructor(private readonly bath: () => { temperatureC: number; ph: number } | undefined) {
    super('ID probe bath_probe');
  }

  protected obey(): void {
    this.lastPhMs = -Infinity;
  }

  protected linesAt(nowMs: number): string[] {
    const bath = this.bath();
    if (!bath) return [];
    const passedMs = nowMs - (this.lastMs ?? nowMs);
    this.lastMs = nowMs;
    this.shownC =
      this.shownC === undefined
        ? bath.temperatureC
        : this.shownC + (bath.temperatureC - this.shownC) * (1 - Math.exp(-passedMs / PROBE_LAG_MS));
    const lines = [`T ${(this.shownC + this.noise.normal() * 0.04).toFixed(2)} C`];
    if (nowMs - this.lastPhMs >= 2000) {
      this.lastPhMs = nowMs;
      lines.push(`PH ${Math.min(14, Math.max(0, bath.ph + this.noise.normal() * 0.015)).toFixed(2)}`);
    }
    return lines;
  }
}

/** A contact colour reader: says a colour when it is pressed on the piece. */
export class SimulatedReader extends SimulatedInstrument {
  private readonly noise = new Chance(37);

  constructor(private readonly piece: () => Lab | undefined) {
    super('ID colour contact_reader');
  }

  protected linesAt(): string[] {
    return [];
  }

  protected obey(command: InstrumentCommand): void {
    if (command !== 'READ') return;
    const lab = this.piece();
    if (!lab) {
      this.say('ERR nothing under the opening');
      return;
    }
    const wobble = (value: number, low: number): string =>
      Math.min(100, Math.max(low, value + this.noise.normal() * 0.15)).toFixed(2);
    this.say(`LAB ${wobble(lab.L, 0)} ${wobble(lab.a, -100)} ${wobble(lab.b, -100)} D65 10`);
  }
}
