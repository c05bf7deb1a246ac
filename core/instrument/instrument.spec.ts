import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InstrumentLines, LONGEST_LINE, MAX_LINES_PER_SECOND, readInstrumentLine, withSum } from './protocol';
import { ReadingLog } from './reading-log';
import { PanWatch } from './settle';
import type { BalanceState } from './protocol';

describe('lines from instruments', () => {
  it.each<[string, object]>([
    [
      'ID balance bench_balance capacity=3000 step=0.1',
      { kind: 'hello', instrument: 'balance', name: 'bench balance', capacityG: 3000, stepG: 0.1 },
    ],
    ['W 62.4 g S', { kind: 'weight', weightG: 62.4, state: 'still' }],
    ['W -3.0 g M', { kind: 'weight', weightG: -3, state: 'moving' }],
    ['W ------ g O', { kind: 'weight', weightG: 0, state: 'over' }],
    ['T 61.25 C', { kind: 'temperature', temperatureC: 61.25 }],
    ['PH 6.82', { kind: 'ph', ph: 6.82 }],
    ['LAB 62.1 -4.2 48 D65 10', { kind: 'colour', L: 62.1, a: -4.2, b: 48, illuminant: 'D65', observer: '10' }],
    ['ERR pan removed', { kind: 'trouble', code: 'fault', message: 'The instrument says: pan removed.' }],
  ])('%s', (line, message) => {
    expect(readInstrumentLine(line)).toEqual(message);
    expect(readInstrumentLine(withSum(line))).toEqual(message);
  });
  it.each<[string, string]>([
    ['T 4000 C', 'outOfRange'],
    ['T -80 C', 'outOfRange'],
    ['PH 19', 'outOfRange'],
    ['W 62.4', 'garbled'],
    ['W 62,4 g S', 'garbled'],
    ['W 62.4 kg S', 'garbled'],
    ['W 900000 g S', 'outOfRange'],
    ['LAB 1 2', 'garbled'],
    ['LAB 400 0 0', 'outOfRange'],
    ['T 61.25 C ~00', 'checksum'],
    ['\u0000\u00ff', 'garbled'],
    ['ID toaster', 'unknown'],
    ['x'.repeat(LONGEST_LINE + 1), 'tooLong'],
  ])('refuses %s as %s, in a sentence', (line, code) => {
    const message = readInstrumentLine(line);
    expect(message).toMatchObject({ kind: 'trouble', code });
    expect('message' in message && message.message).toMatch(/^[A-Z].*\.$/);
  });
  it('never throws, and never lets a damaged line with a sum pass for another reading', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (line) => {
        expect(readInstrumentLine(line).kind).toBeTypeOf('string');
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 7 }), fc.constantFrom(...'0123456789.'), (at, sign) => {
        const line = withSum('W 123.45 g S');
        const damaged = line.slice(0, 2 + at) + sign + line.slice(3 + at);
        const read = readInstrumentLine(damaged);
        expect(damaged === line || read.kind === 'trouble').toBe(true);
      }),
    );
  });
});

describe('a stream from an instrument', () => {
  it('gives the same readings however the stream is cut', () => {
    const stream = ['W 1.0 g M', 'W 2.0 g S', 'T 40 C'].map((l) => `${withSum(l)}\r\n`).join('');
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: stream.length }), { maxLength: 8 }), (cuts) => {
        const lines = new InstrumentLines();
        const places = [0, ...cuts.sort((a, b) => a - b), stream.length];
        const read = places.slice(1).flatMap((end, i) => lines.feed(stream.slice(places[i], end), 0));
        expect(read.map((m) => m.kind)).toEqual(['weight', 'weight', 'temperature']);
      }),
    );
  });
  it('throws away a line without end and hears what follows it', () => {
    const lines = new InstrumentLines();
    const spoken = Array.from({ length: 50 }, () => lines.feed('x'.repeat(1000), 0)).flat();
    expect(spoken).toHaveLength(1);
    expect(lines.feed('tail\nT 40 C\n', 10)).toEqual([{ kind: 'temperature', temperatureC: 40 }]);
  });
  it('leaves out a flood, says so once, and listens again when it ends', () => {
    const lines = new InstrumentLines();
    const read = lines.feed('T 40 C\n'.repeat(5000), 1000);
    expect(read.filter((m) => m.kind === 'temperature')).toHaveLength(MAX_LINES_PER_SECOND);
    expect(read.filter((m) => m.kind === 'trouble')).toMatchObject([{ code: 'flood' }]);
    expect(lines.feed('T 41 C\n', 2500)).toEqual([{ kind: 'temperature', temperatureC: 41 }]);
  });
});

describe('a pan that settles', () => {
  const feed = (watch: PanWatch, weights: readonly number[], fromMs: number, state: BalanceState = 'moving'): number =>
    weights.reduce((ms, weightG) => {
      watch.feed({ atMs: ms, weightG, state });
      return ms + 100;
    }, fromMs);
  it('is steady only when it has stood still for a while, whatever the balance says', () => {
    const watch = new PanWatch(0.1);
    expect(watch.at(0).state).toBe('none');
    let ms = feed(watch, [0, 20, 55, 61, 62.3, 62.4, 62.5], 0, 'still');
    expect(watch.at(ms).state).toBe('moving');
    ms = feed(watch, Array<number>(13).fill(62.4), ms);
    expect(watch.at(ms)).toMatchObject({ state: 'steady', weightG: 62.4, empty: false });
    ms = feed(watch, [64], ms);
    expect(watch.at(ms).state).toBe('moving');
  });
  it('keeps the last value when it sleeps or is lost, and knows overload and below zero', () => {
    const watch = new PanWatch(0.1);
    let ms = feed(watch, Array<number>(15).fill(30), 0);
    expect(watch.at(ms + 5000)).toMatchObject({ state: 'lost', weightG: 30 });
    ms = feed(watch, [0], ms, 'asleep');
    expect(watch.at(ms + 60_000)).toMatchObject({ state: 'asleep', weightG: 30 });
    ms = feed(watch, [0], ms, 'over');
    expect(watch.at(ms)).toMatchObject({ state: 'over', weightG: 30 });
    ms = feed(watch, Array<number>(15).fill(-4), ms);
    expect(watch.at(ms).state).toBe('under');
    ms = feed(watch, Array<number>(15).fill(0.1), ms);
    expect(watch.at(ms)).toMatchObject({ state: 'steady', empty: true });
  });
  it('wants a step above zero', () => expect(() => new PanWatch(0)).toThrow(RangeError));
});

describe('a log of readings', () => {
  it('shows every peak and trough however long it is', () => {
    const log = new ReadingLog();
    for (let i = 0; i < 100_000; i += 1) log.add(i * 100, i === 61_234 ? 99 : i === 7 ? -20 : 50 + Math.sin(i / 900));
    const points = log.sampled(800);
    expect(points.length).toBeLessThanOrEqual(800);
    expect(Math.max(...points.map((p) => p[1]))).toBe(99);
    expect(Math.min(...points.map((p) => p[1]))).toBe(-20);
    expect(points.map((p) => p[0])).toEqual([...points.map((p) => p[0])].sort((a, b) => a - b));
    expect([points[0]?.[0], points.at(-1)?.[0]]).toEqual([0, 9_999_900]);
  });
  it('keeps few readings whole, leaves out what runs backwards or is no number, and finds a time', () => {
    const log = new ReadingLog();
    for (const [ms, value] of [
      [0, 1],
      [10, 2],
      [5, 9],
      [20, Number.NaN],
      [30, 3],
    ] as const)
      log.add(ms, value);
    expect(log.sampled(100)).toEqual([
      [0, 1],
      [10, 2],
      [30, 3],
    ]);
    expect([log.indexFrom(10), log.indexFrom(11), log.indexFrom(99), log.last()?.value, log.since(10).length]).toEqual([
      1, 2, 3, 3, 2,
    ]);
    expect(() => log.at(3)).toThrow(RangeError);
  });
});
