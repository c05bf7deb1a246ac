import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPotWeight, heatBath, mixToTemperature, wetWeight } from './heating';
import type { PhReagent } from './ph-reagent';
import { bathPh, doseToPh } from './ph';
import { PH_REAGENTS } from './ph-reagent';
import type { HardnessUnit, WaterAsk, WaterFacts } from './water';
import { chalkToHarden, convertHardness } from './water';
import { answerWater, sayWaterRemark } from './water-answer';
import { granted, refused } from '../result.fixture';

const ROOM = { roomC: 18, coldWaterC: 12, hotWaterC: 55, liftLimitKg: 15, energyMinorPerKwh: 30 };
const ring = { id: 'h', name: 'Gas ring', powerW: 3000, efficiencyPercent: 50 };

describe('water', () => {
  /** DIN 38409-6: 1 °dH = 10 mg CaO/l = 17.85 mg CaCO3/l = 7.15 mg Ca/l. */
  it.each<[number, HardnessUnit, HardnessUnit, number]>([
    [1, 'dh', 'ppm', 17.85],
    [14, 'dh', 'ppm', 249.87],
    [17.85, 'ppm', 'dh', 1],
    [1, 'dh', 'calcium', 7.15],
    [100, 'ppm', 'calcium', 40.04],
    [0, 'dh', 'ppm', 0],
  ])('%f %s is in %s %f', (value, from, to, is) => expect(convertHardness(value, from, to)).toBeCloseTo(is, 1));
  it('goes there and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.constantFrom<HardnessUnit>('ppm', 'calcium'),
        (dh, unit) => {
          expect(Math.abs(convertHardness(convertHardness(dh, 'dh', unit), unit, 'dh') - dh)).toBeLessThan(0.02);
        },
      ),
      { seed: 51 },
    );
    expect(() => convertHardness(-1, 'dh', 'ppm')).toThrow(RangeError);
  });

  const tap: WaterFacts = { name: 'Tap', ph: 7.5, hardnessDh: 14, ironMgPerL: 0.05 };
  const barrel: WaterFacts = { name: 'Barrel', ph: 6.3, hardnessDh: 1, ironMgPerL: null };
  const pump: WaterFacts = { name: 'Pump', ph: 7, hardnessDh: 12, ironMgPerL: 0.8 };
  const hard: WaterAsk = { asks: 'hard', hardnessDh: null };
  it.each<[string, WaterAsk, WaterFacts | null, boolean, RegExp]>([
    ['any from anywhere', { asks: 'any', hardnessDh: null }, barrel, true, /^$/],
    ['hard from the tap', hard, tap, true, /^$/],
    ['hard from the barrel: chalk, or the tap', hard, barrel, false, /add 2\.6 g of chalk to 25 l.*Tap would do/],
    [
      'soft from the tap: the barrel',
      { asks: 'soft', hardnessDh: null },
      tap,
      false,
      /too hard at 14 °dH \(250 ppm.*Barrel would do/,
    ],
    ['iron in it', hard, pump, false, /0\.8 mg\/l of iron: expect everything duller/],
    ['never tested', hard, { ...tap, hardnessDh: null }, false, /not known. Test it/],
    ['none chosen', hard, null, false, /no water was chosen/],
    ['as hard as the recipe says', { asks: 'hard', hardnessDh: 20 }, tap, false, /add 2\.7 g of chalk/],
  ])('%s', (_name, ask, water, fits, line) => {
    const answer = answerWater(ask, water, 25, [tap, barrel, pump]);
    expect(answer.length === 0).toBe(fits);
    expect(answer.map(sayWaterRemark).join(' ')).toMatch(line);
  });
  it('hardens by chalk, and asks for none where it is hard enough', () => {
    expect(chalkToHarden(1, 8, 10)).toMatchObject({ value: 1.2 });
    expect(chalkToHarden(14, 8, 10).value).toBe(0);
  });
  it('counts the chalk that the recipe gives already', () => {
    expect(chalkToHarden(1, 8, 10, 0.5)).toMatchObject({ value: 0.7 });
    expect(chalkToHarden(1, 8, 10, 5).value).toBe(0);
  });
});

describe('washing soda crystals', () => {
  it('do by 2.7 times the weight what soda ash does', () => {
    const grams = (reagent: PhReagent): number => {
      const dose = doseToPh({ ph: 7, hardnessDh: 5 }, 10.5, 10, reagent);
      return dose.ok ? dose.dose.value : NaN;
    };
    expect(grams('sodaCrystals') / grams('sodaAsh')).toBeCloseTo(2.7, 2);
  });
});

describe('a dose to a pH', () => {
  const dose = (ph: number, hardnessDh: number, target: number, reagent: PhReagent, litres = 10) =>
    doseToPh({ ph, hardnessDh }, target, litres, reagent);
  it('neutralises the carbonate of hard water, and no more: 5 mmol/l of alkalinity want about 5 mmol of acid below pH 4.5', () => {
    const citric = dose(7.5, 14, 4.3, 'citricAcid');
    // 14 °dH are 5.0 meq/l; citric acid is about 1.25 times charged at pH 4.3: 4 mmol/l, 0.77 g/l.
    expect(citric.ok && citric.dose.value).toBeCloseTo(7.6, 0);
    expect(citric.ok && citric.dose.working.notes[0]).toMatch(/add .* first, stir, test/);
  });
  /** Soda ash in pure water, CRC Handbook: 0.1 mol/l stands near pH 11.6, 1 mmol/l near 10.6. */
  it.each<[number, number]>([
    [10.6, 0.001],
    [11.2, 0.012],
  ])('to pH %f takes about %f mol/l of soda ash in pure water', (ph, mol) => {
    const answer = dose(7, 0, ph, 'sodaAsh', 1);
    expect(answer.ok).toBe(true);
    const worked = granted(answer).dose.value / 105.99 / mol;
    expect(worked).toBeGreaterThan(0.5);
    expect(worked).toBeLessThan(2);
  });
  it.each<[string, Parameters<typeof dose>, string]>([
    ['soda to sour', [7.5, 14, 5, 'sodaAsh'], 'wrongWay'],
    ['vinegar to alkaline', [7.5, 14, 9, 'vinegar5'], 'wrongWay'],
    ['bicarbonate beyond its own pH', [7.5, 2, 10.5, 'bicarbonate'], 'outOfReach'],
    ['a bath that is there', [7.5, 14, 7.5, 'vinegar5'], 'thereAlready'],
    ['off the scale', [7.5, 14, 13, 'sodaAsh'], 'outOfRange'],
  ])('refuses %s', (_name, args, code) => expect(dose(...args)).toMatchObject({ ok: false, refusal: { code } }));
  it('counts what is in the bath: 15 g of soda ash want about 200 ml of vinegar before they are neutral', () => {
    const water = { ph: 7.5, hardnessDh: 4 };
    const soda = [{ reagent: 'sodaAsh' as const, amount: 15 }];
    const alone = doseToPh(water, 7, 10, 'vinegar5');
    const after = doseToPh(water, 7, 10, 'vinegar5', soda);
    expect(alone.ok && alone.dose.value).toBeLessThan(10);
    expect(after.ok && after.dose.value).toBeGreaterThan(170);
    expect(after.ok && after.dose.value).toBeLessThan(230);
    expect(bathPh(water, 10, soda)).toBeGreaterThan(10.5);
  });
  it('and what it says is enough is enough: the bath then stands where it was wanted', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PH_REAGENTS),
        fc.constantFrom(...PH_REAGENTS),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 4, max: 10.5, noNaN: true }),
        (first, second, amount, target) => {
          const water = { ph: 7.4, hardnessDh: 8 };
          const before = [{ reagent: first, amount }];
          const dose = doseToPh(water, target, 12, second, before);
          fc.pre(dose.ok);
          const brought = dose.ok ? dose.dose.value : NaN;
          const reached = bathPh(water, 12, [...before, { reagent: second, amount: brought }]);
          expect(Math.abs(reached - target)).toBeLessThan(0.2);
        },
      ),
      { seed: 5 },
    );
  });
  it('rises with the bath and with the step, for every reagent', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PH_REAGENTS), fc.double({ min: 1, max: 30, noNaN: true }), (reagent, dh) => {
        const sour = reagent === 'vinegar5' || reagent === 'citricAcid' || reagent === 'tartaricAcid';
        const [near, far] = sour ? [6, 5] : [7.8, 8.1];
        const at = (target: number, litres: number): number => {
          const d = dose(sour ? 7.5 : 7, dh, target, reagent, litres);
          return d.ok ? d.dose.value : NaN;
        };
        expect(at(far, 10)).toBeGreaterThan(at(near, 10));
        expect(Math.abs(at(far, 20) - 2 * at(far, 10))).toBeLessThan(0.02);
      }),
      { seed: 52 },
    );
  });
});

describe('heating', () => {
  const bath = (liquorMl: number, toC: number, fromC = 12) => heatBath({ liquorMl, wofG: 0, fromC, toC }, ring, ROOM);
  it('takes at least what the heat itself needs, and a little more for what is lost', () => {
    const heated = bath(20_000, 80);
    // 20 kg × 4.19 kJ × 68 K ÷ 1.5 kW is 63 min without loss.
    expect(heated.ok && heated.minutes.value).toBeGreaterThanOrEqual(63);
    expect(heated.ok && heated.minutes.value).toBeLessThan(80);
    expect(heated.ok && heated.energy.value).toBeCloseTo(((heated.ok ? heated.minutes.value : 0) / 60) * 3, 1);
    expect(heated.ok && heated.cost?.value).toBe(Math.round((heated.ok ? heated.energy.value : 0) * 30));
  });
  it('says how far it gets where it doesn’t get there', () => {
    const weak = heatBath({ liquorMl: 60_000, wofG: 0, fromC: 12, toC: 95 }, { ...ring, powerW: 800 }, ROOM);
    expect(weak).toMatchObject({ ok: false });
    expect(refused(weak).reachesC).toBeLessThan(95);
    expect(weak).toMatchObject({ ok: false, reachesC: expect.any(Number) });
  });
  it('has nothing to do where it is warm already, and no cost where the price is not known', () => {
    expect(bath(10_000, 40, 60)).toMatchObject({ ok: true, minutes: { value: 0 } });
    expect(
      heatBath({ liquorMl: 1000, wofG: 0, fromC: 12, toC: 40 }, ring, { ...ROOM, energyMinorPerKwh: null }),
    ).toMatchObject({ cost: null });
  });
  it('takes longer for more water and for hotter', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 30 }), fc.integer({ min: 30, max: 80 }), (litres, toC) => {
        const [a, b, c] = [bath(litres * 1000, toC), bath(litres * 1000 + 5000, toC), bath(litres * 1000, toC + 8)];
        expect(granted(b).minutes.value).toBeGreaterThanOrEqual(granted(a).minutes.value);
        expect(granted(c).minutes.value).toBeGreaterThanOrEqual(granted(a).minutes.value);
      }),
      { seed: 53 },
    );
  });

  it.each<[number, number, number | RegExp]>([
    [38, 10_000, 6050],
    [12, 10_000, 0],
    [55, 10_000, 10_000],
    [60, 10_000, /hotter than the hot water/],
    [5, 10_000, /colder than the cold/],
  ])('mixes to %i °C in %i ml', (wantedC, ml, hot) => {
    const mix = mixToTemperature(ml, wantedC, { hotC: 55, coldC: 12 });
    if (hot instanceof RegExp) return expect(mix.ok ? '' : mix.message).toMatch(hot);
    expect(mix).toMatchObject({ ok: true, hotMl: hot, coldMl: ml - hot });
  });
  it('weighs what is lifted', () => {
    expect(fullPotWeight(20_000, 600, 4000).value).toBe(24.6);
    expect(fullPotWeight(20_000, 600, null).working.notes[0]).toContain('not weighed');
    expect(wetWeight(2400).value).toBe(6);
  });
});
