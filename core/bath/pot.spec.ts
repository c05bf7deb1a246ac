import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldBath } from './bath-ledger';
import { heatBath } from './heating';
import { nextPhDose } from './ph-dosing';
import type { Pot } from './pot-model';
import {
  coastsTo,
  evaporationGPerS,
  exhaustAt,
  heatCapacityJPerK,
  layIn,
  letDyeIn,
  letPotStand,
  lossWPerK,
  pourIn,
  temperatureAfter,
  uptakeRatePerMin,
} from './pot-model';
import { heldMinutes, holdOf, plannedAt, plannedCourse, riseCPerMin, watchCourse } from '../run/watch-course';

const pot: Pot = { liquorMl: 18_000, wofG: 600, temperatureC: 80, usefulW: 0, lid: true };

describe('the pot', () => {
  it('cools as Newton’s law says in closed form', () => {
    const [u, c] = [lossWPerK(pot), heatCapacityJPerK(pot)];
    for (const minutes of [10, 60, 240, 720])
      expect(coastsTo(pot, 18, minutes)).toBeCloseTo(18 + 62 * Math.exp((-u * minutes * 60) / c), 9);
    expect(c).toBeCloseTo(18_000 * 4.19 + 600 * 1.3, 6);
  });
  it('takes as long to heat as the planner says it will', () => {
    const room = { roomC: 18, coldWaterC: 12, hotWaterC: 55, liftLimitKg: 15, energyMinorPerKwh: null };
    const planned = heatBath(
      { liquorMl: 18_000, wofG: 600, fromC: 18, toC: 75 },
      { id: '', name: 'ring', powerW: 2000, efficiencyPercent: 60 },
      room,
    );
    if (!planned.ok) throw new Error(`reaches ${planned.reachesC} °C`);
    expect(temperatureAfter({ ...pot, temperatureC: 18, usefulW: 1200 }, 18, planned.minutes.value * 60)).toBeCloseTo(
      75,
      0,
    );
  });
  it('is the same whether time passes in one piece or in many', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 95 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 0, max: 2500 }),
        (temperatureC, minutes, usefulW) => {
          const begin = { ...pot, temperatureC, usefulW };
          const once = letPotStand(begin, 18, minutes * 60);
          const twice = letPotStand(letPotStand(begin, 18, minutes * 30), 18, minutes * 30);
          expect(twice.temperatureC).toBeCloseTo(once.temperatureC, 1);
          expect(once.temperatureC).toBeLessThanOrEqual(100);
          expect(once.liquorMl).toBeLessThanOrEqual(begin.liquorMl);
        },
      ),
    );
  });
  it('keeps close to the closed form under a lid, and steams off more and cools faster open', () => {
    expect(letPotStand(pot, 18, 3600).temperatureC).toBeCloseTo(coastsTo(pot, 18, 60), -0.5);
    const open = letPotStand({ ...pot, lid: false }, 18, 3600);
    expect(open.temperatureC).toBeLessThan(letPotStand(pot, 18, 3600).temperatureC - 2);
    expect(pot.liquorMl - open.liquorMl).toBeGreaterThan(150);
    expect(evaporationGPerS({ ...pot, temperatureC: 18 }, 18)).toBeLessThan(evaporationGPerS(pot, 18) / 20);
  });
  it('does not go past the boil: the heat leaves as steam', () => {
    const boiling = letPotStand({ ...pot, temperatureC: 99, usefulW: 3000 }, 18, 1800);
    expect(boiling.temperatureC).toBe(100);
    // 3 kW less what the walls lose, over the latent heat.
    expect(pot.liquorMl - boiling.liquorMl).toBeGreaterThan(1200);
  });
  it('mixes what is poured in by heat, and is cooled by what is laid in', () => {
    expect(pourIn({ ...pot, wofG: 0 }, 18_000, 20).temperatureC).toBeCloseTo(50, 6);
    expect(layIn({ ...pot, wofG: 0 }, 600, 18).temperatureC).toBeLessThan(80);
    expect(() => pourIn(pot, -1, 20)).toThrow(RangeError);
  });
  it('takes up dye by first order: half of what it ever takes in ln 2 ÷ rate', () => {
    const halfLife = (Math.LN2 / uptakeRatePerMin(60)) * 60;
    const max = exhaustAt(30);
    expect(letDyeIn({ onFibre: 0 }, { temperatureC: 60, liquorRatio: 30, seconds: halfLife }).onFibre).toBeCloseTo(
      max / 2,
      9,
    );
    expect(uptakeRatePerMin(75)).toBeGreaterThan(uptakeRatePerMin(60));
    expect(exhaustAt(60)).toBeLessThan(max);
  });
});

const step = {
  temperatureC: 75,
  ceilingC: 80,
  durationMin: 120,
  course: [
    { do: 'raise', toC: 75, minutes: 45 },
    { do: 'hold', toC: 75, minutes: 60 },
    { do: 'cool', minutes: 60 },
  ] as const,
};
const line = (from: number, to: number, fromC: number, perMin: number) =>
  Array.from({ length: to - from + 1 }, (_, i) => ({ minute: from + i, temperatureC: fromC + i * perMin }));

describe('watching a course', () => {
  it('plans corners, and lets the pot cool by its physics', () => {
    const course = plannedCourse(step, { fromC: 20, roomC: 18, pot });
    expect([plannedAt(course, 0), plannedAt(course, 22.5), plannedAt(course, 45), plannedAt(course, 100)]).toEqual([
      20, 47.5, 75, 75,
    ]);
    expect(plannedAt(course, 165)).toBeCloseTo(coastsTo({ ...pot, temperatureC: 75 }, 18, 60), 6);
    expect(plannedAt(course, 999)).toBe(course.at(-1)?.temperatureC);
    expect(holdOf(step)).toEqual({ atC: 75, minutes: 60 });
    expect(holdOf({ durationMin: 60, course: [] })).toBeUndefined();
    expect(holdOf({ durationMin: 60, temperatureC: 82, course: [] })).toEqual({ atC: 82, minutes: 60 });
  });
  it('counts a hold only while in band and looked at', () => {
    const sagged = [...line(0, 20, 75, 0), ...line(21, 40, 68, 0), ...line(41, 60, 74, 0)];
    expect(heldMinutes(sagged, 75)).toBe(39);
    expect(
      heldMinutes(
        [
          { minute: 0, temperatureC: 75 },
          { minute: 60, temperatureC: 75 },
        ],
        75,
      ),
    ).toBe(0);
  });
  it.each<[string, ReturnType<typeof line>, string[]]>([
    ['nothing of a steady hold', line(0, 30, 75, 0), []],
    ['above the ceiling', line(0, 10, 72, 1), ['aboveCeiling']],
    ['near the ceiling and rising', line(0, 10, 75, 0.3), ['nearCeiling']],
    ['too fast for wool', line(0, 12, 20, 3), ['tooFast']],
    ['never getting there', line(0, 30, 40, 0.02), ['notMakingIt']],
    ['getting there late', line(0, 30, 20, 0.4), ['notMakingIt']],
    ['sagged out of its hold', [...line(0, 30, 75, 0), ...line(31, 50, 69, 0)], ['sagged']],
  ])('says of a bath: %s', (_, readings, codes) => {
    const watch = watchCourse({ step, readings, fibres: ['wool'] });
    expect(watch.alarms.map((a) => a.code)).toEqual(codes);
  });
  it('knows by the pot’s losses that a rate now does not last', () => {
    const slow = watchCourse({ step, readings: line(0, 20, 55, 0.03), fibres: ['wool'], pot });
    expect(slow).toMatchObject({ reachesInMin: null });
    expect(watchCourse({ step, readings: line(0, 20, 40, 1), fibres: ['wool'], pot }).reachesInMin).toBeGreaterThan(0);
  });
  it('says no rate with too little to go by', () => {
    expect(
      riseCPerMin([
        { minute: 0, temperatureC: 20 },
        { minute: 1, temperatureC: 30 },
      ]),
    ).toBeUndefined();
    expect(watchCourse({ step, readings: [], fibres: ['wool'] })).toMatchObject({ alarms: [], rateCPerMin: undefined });
  });
});

describe('the next dose towards a pH', () => {
  const range = { low: 6.5, high: 7.2 };
  const at = (...tries: [number, number][]) =>
    nextPhDose(
      tries.map(([totalDose, ph]) => ({ totalDose, ph })),
      range,
      { firstDose: 9, unit: 'ml' },
    );
  it.each<[string, ReturnType<typeof at>, object]>([
    ['takes the pH first', at(), { state: 'untested', nextDose: null }],
    ['begins with a third', at([0, 9]), { state: 'doseMore', nextDose: 3 }],
    [
      'offers half of what is missing, never more than went in',
      at([0, 9], [3, 8.7]),
      { state: 'doseMore', nextDose: 3 },
    ],
    ['slows as it comes near', at([0, 9], [3, 8], [6, 7.3]), { state: 'doseMore', nextDose: 0.96 }],
    ['stops in range', at([0, 9], [3, 7]), { state: 'inRange', nextDose: null }],
    ['says when it went past', at([0, 9], [30, 5]), { state: 'overshot', nextDose: null }],
    ['knows a buffer', at([0, 9], [3, 8.98]), { state: 'noEffect', nextDose: 3 }],
    ['stops at the wrong jar', at([0, 9], [3, 9.6]), { state: 'noEffect', nextDose: null }],
  ])('%s', (_, advice, expected) => expect(advice).toMatchObject(expected));
});

describe('what is in a bath', () => {
  it('sums what went in and out, and lets a measuring set it', () => {
    const balance = foldBath([
      { kind: 'fill', ml: 10_000, label: '' },
      { kind: 'add', ml: 500, label: '' },
      { kind: 'evaporate', ml: 300, label: '' },
      { kind: 'takeOut', ml: 50, label: '' },
      { kind: 'level', ml: 9500, label: '' },
    ]);
    expect(balance).toMatchObject({
      left: { value: 9500, unit: 'ml' },
      addedMl: 10_500,
      steamedOffMl: 950,
      takenOutMl: 50,
    });
  });
  it('never goes below nothing, and refuses negative volumes', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            kind: fc.constantFrom('fill', 'add', 'evaporate', 'takeOut', 'level' as const),
            ml: fc.integer({ min: 0, max: 50_000 }),
          }),
        ),
        (moves) => {
          expect(foldBath(moves.map((m) => ({ ...m, label: '' }))).left.value).toBeGreaterThanOrEqual(0);
        },
      ),
    );
    expect(() => foldBath([{ kind: 'add', ml: -1, label: '' }])).toThrow(RangeError);
  });
});
