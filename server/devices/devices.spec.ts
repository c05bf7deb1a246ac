import type { InstrumentMessage } from '@vestigia/core';
import { PanWatch, coastsTo, readInstrumentLine } from '@vestigia/core';
import { afterEach, describe, expect, it } from 'vitest';
import type { SimulatedInstrument } from './simulated-instruments';
import { SimulatedBalance, SimulatedProbe, SimulatedReader } from './simulated-instruments';
import { SimulatedPot } from './simulated-pot';
import { Workbench } from './workbench';

const CARD = { name: 'bench balance', capacityG: 3000, resolutionG: 0.1 };
const POT = {
  liquorMl: 18_000,
  wofG: 600,
  usefulW: 1200,
  fromC: 12,
  roomC: 18,
  ph: 8.4,
  liquorRatio: 30,
  undyed: { L: 84, a: 1, b: 12 },
  wanted: { L: 60, a: -4, b: 48 },
};

/** All an instrument said since the last time, as a listener reads it. */
function hearing(simulatedInstrument: SimulatedInstrument): () => InstrumentMessage[] {
  simulatedInstrument.stream.setEncoding('utf8');
  return () =>
    ((simulatedInstrument.stream.read() as string | null) ?? '')
      .split('\n')
      .filter((line) => line !== '')
      .map(readInstrumentLine);
}
const weights = (messages: readonly InstrumentMessage[]) => messages.filter((m) => m.kind === 'weight');

describe('a simulated balance', () => {
  const run = (balance: SimulatedBalance, fromMs: number, seconds: number): number => {
    for (let ms = fromMs; ms < fromMs + seconds * 1000; ms += 100) balance.tick(ms);
    return fromMs + seconds * 1000;
  };
  it('settles on what was put, within its step, and is noisy but steady there', () => {
    const balance = new SimulatedBalance(CARD);
    const heard = hearing(balance);
    const ms = run(balance, 0, 1);
    balance.put(62.4, ms);
    run(balance, ms, 8);
    const watch = new PanWatch(CARD.resolutionG);
    const readings = weights(heard());
    readings.forEach((m, i) => watch.feed({ atMs: i * 100, weightG: m.weightG, state: m.state }));
    expect(watch.at((readings.length - 1) * 100).state).toBe('steady');
    expect(Math.abs((readings.at(-1)?.weightG ?? 0) - 62.4)).toBeLessThanOrEqual(0.15);
    expect(readings.some((m) => m.state === 'moving')).toBe(true);
  });
  it('refuses too much, sets to zero, sleeps when nobody touches it and wakes', () => {
    const balance = new SimulatedBalance(CARD);
    const heard = hearing(balance);
    balance.put(9000, 0);
    let ms = run(balance, 0, 2);
    expect(weights(heard()).at(-1)?.state).toBe('over');
    balance.put(180, ms);
    ms = run(balance, ms, 8);
    balance.command('TARE', ms);
    heard();
    ms = run(balance, ms, 2);
    expect(Math.abs(weights(heard()).at(-1)?.weightG ?? 9)).toBeLessThanOrEqual(0.2);
    ms = run(balance, ms, 100);
    expect(weights(heard()).at(-1)?.state).toBe('asleep');
    balance.command('WAKE', ms);
    run(balance, ms, 1);
    expect(weights(heard()).at(-1)?.state).toBe('still');
  });
  it('says nothing with its lead out, and who it is when it is back', () => {
    const balance = new SimulatedBalance(CARD);
    const heard = hearing(balance);
    balance.unplug(true);
    run(balance, 0, 3);
    expect(heard()).toEqual([]);
    balance.unplug(false);
    expect(heard()).toMatchObject([
      { kind: 'hello', instrument: 'balance', name: 'bench balance', capacityG: 3000, stepG: 0.1 },
    ]);
  });
});

describe('a simulated pot and what hangs in it', () => {
  it('heats by its burner, and coasts as the closed form says', () => {
    const pot = new SimulatedPot(POT);
    pot.setLid(true);
    pot.setHeat(1);
    for (let i = 0; i < 60; i += 1) pot.advance(60);
    const hot = pot.state.temperatureC;
    expect(hot).toBeGreaterThan(55);
    pot.setHeat(0);
    pot.advance(3600);
    expect(
      Math.abs(pot.state.temperatureC - coastsTo({ liquorMl: POT.liquorMl, wofG: 0, temperatureC: hot }, 18, 60)),
    ).toBeLessThan(1.5);
  });
  it('dyes the fibre in it, and buffers before its pH goes', () => {
    const pot = new SimulatedPot(POT);
    pot.advance(3600);
    expect(pot.colour()).toEqual(POT.undyed);
    pot.setHeat(1);
    pot.enterFibre();
    for (let i = 0; i < 90; i += 1) pot.advance(60);
    expect(pot.colour().L).toBeLessThan(75);
    const at = [0, 10, 20, 40, 80].map((ml, i, all) => {
      pot.addAcid(ml - (all[i - 1] ?? 0));
      return pot.state.ph;
    });
    expect(at).toEqual([...at].sort((a, b) => b - a));
    expect((at[0] ?? 0) - (at[1] ?? 0)).toBeLessThan(0.6);
    expect(at.at(-1)).toBeLessThan(7);
  });
  it('is followed by the probe with a lag, and read by the reader when it is pressed', () => {
    let bath: { temperatureC: number; ph: number } | undefined;
    const probe = new SimulatedProbe(() => bath);
    const heard = hearing(probe);
    probe.tick(0);
    expect(heard()).toEqual([]);
    bath = { temperatureC: 20, ph: 7 };
    probe.tick(100);
    bath = { temperatureC: 80, ph: 7 };
    probe.tick(1100);
    const [, , late] = heard();
    expect(late).toMatchObject({ kind: 'temperature' });
    expect((late as { temperatureC: number }).temperatureC).toBeLessThan(40);
    for (let ms = 1200; ms < 60_000; ms += 100) probe.tick(ms);
    expect(
      (
        heard()
          .filter((m) => m.kind === 'temperature')
          .at(-1) as { temperatureC: number }
      ).temperatureC,
    ).toBeCloseTo(80, 0);
    const reader = new SimulatedReader(() => ({ L: 62, a: -4, b: 48 }));
    const spoken = hearing(reader);
    reader.tick(0);
    reader.command('READ', 0);
    expect(spoken()).toMatchObject([{ kind: 'colour', illuminant: 'D65' }]);
    const empty = new SimulatedReader(() => undefined);
    const nothing = hearing(empty);
    empty.command('READ', 0);
    expect(nothing()).toMatchObject([{ kind: 'trouble', code: 'fault' }]);
  });
});

describe('a workbench', () => {
  let bench: Workbench | undefined;
  afterEach(() => bench?.close());
  it('runs its pots on its own clock and its pan at the pace of hands', () => {
    let nowMs = 0;
    bench = new Workbench(
      () => nowMs * 120,
      () => nowMs,
      CARD,
    );
    bench.hang({ lotId: 'l', stepIndex: 1 }, POT);
    bench.obey({ kind: 'probe', do: 'heat', share: 1 });
    bench.obey({ kind: 'balance', do: 'put', weightG: 100 });
    for (let i = 0; i < 300; i += 1) {
      nowMs += 100;
      bench.tick();
    }
    // Half a minute of hands, an hour of pots.
    expect(bench.pot()?.state.temperatureC).toBeGreaterThan(50);
    expect(bench.hangs).toEqual({ lotId: 'l', stepIndex: 1 });
    bench.hang(undefined, undefined);
    expect(bench.pot()).toBeUndefined();
    expect(bench.pot('l')?.state.temperatureC).toBeGreaterThan(50);
  });
});
