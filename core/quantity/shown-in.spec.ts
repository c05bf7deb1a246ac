import { afterEach, describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { formatDay, formatMoment } from '../calendar/format-date';
import { formatMoney } from '../stock/valuation';
import { explainNumber, readNumberText } from './number-text';
import { SHOWN_AT_FIRST, showFiguresIn } from './shown-in';
import { degreesShown, formatDegreesApart, formatTemperature, readTemperatureC } from './temperature';
import { formatVolume, readVolume } from './volume';
import { formatWeight, GRAMS_PER_OUNCE, readWeight } from './weight';

afterEach(() => showFiguresIn(SHOWN_AT_FIRST));

describe('figures as a studio reads them', () => {
  // NIST Handbook 44, appendix C: 1 lb = 453.592 37 g, 1 oz = 28.349 523 125 g.
  it.each([
    [28.349523125, '1 oz'],
    [14.1747615625, '0.5 oz'],
    [0.5, '0.018 oz'],
    [453.59237, '1 lb'],
    [1474.1752, '3 lb 4 oz'],
    [453.5, '15.997 oz'],
    // Never sixteen ounces: the pound is carried.
    [907.1, '2 lb'],
  ])('weighs %s g as %s', (weightG, shown) => {
    showFiguresIn({ ...SHOWN_AT_FIRST, weight: 'pounds' });
    expect(formatWeight(weightG)).toBe(shown);
  });

  it('writes pounds that are read back as the same weight, to half a hundredth of an ounce', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 60_000, noNaN: true }), (weightG) => {
        showFiguresIn({ ...SHOWN_AT_FIRST, weight: 'pounds' });
        const read = readWeight(formatWeight(weightG));
        expect(read.ok && Math.abs(read.weightG - weightG)).toBeLessThanOrEqual(GRAMS_PER_OUNCE * 0.00501);
      }),
    );
  });

  // US gallon 3785.411784 ml, imperial gallon 4546.09 ml.
  it.each([
    ['us', 3785.411784, '1 US gal'],
    ['us', 23_658.82365, '6.25 US gal'],
    ['us', 1000, '1.06 US qt'],
    ['us', 100, '3.4 US fl oz'],
    ['imperial', 4546.09, '1 imperial gal'],
    ['imperial', 500, '17.6 imperial fl oz'],
  ] as const)('pours %s, %s ml, as %s', (volume, volumeMl, shown) => {
    showFiguresIn({ ...SHOWN_AT_FIRST, volume });
    expect(formatVolume(volumeMl)).toBe(shown);
    const read = readVolume(shown);
    expect(read.ok && Math.abs(read.volumeMl / volumeMl - 1)).toBeLessThan(0.01);
  });

  it.each([
    [0, '32 °F'],
    [82, '180 °F'],
    [100, '212 °F'],
    [-40, '-40 °F'],
  ])('heats to %s °C as %s', (temperatureC, shown) => {
    showFiguresIn({ ...SHOWN_AT_FIRST, temperature: 'fahrenheit' });
    expect(formatTemperature(temperatureC)).toBe(shown);
    expect(degreesShown(readTemperatureC(shown) ?? NaN)).toBe(Number(shown.split(' ')[0]));
  });

  it('reads a bare temperature in the studio’s scale, and either where it is written along', () => {
    expect([readTemperatureC('82'), readTemperatureC('180 F')]).toEqual([82, 82.2]);
    showFiguresIn({ ...SHOWN_AT_FIRST, temperature: 'fahrenheit' });
    expect([readTemperatureC('180'), readTemperatureC('82 C')]).toEqual([82.2, 82]);
    expect(formatDegreesApart(2)).toBe('3.6\u00a0°F');
  });

  it('writes a fraction with the studio’s mark, and reads either', () => {
    showFiguresIn({ ...SHOWN_AT_FIRST, decimalMark: ',' });
    expect([formatWeight(12.5), formatVolume(1500), formatMoney(9209, 'GBP')]).toEqual(['12,5 g', '1,5 l', '£92,09']);
    expect([readNumberText('12,5'), readNumberText('12.5')]).toEqual([12.5, 12.5]);
    expect(explainNumber('x')).not.toBe('');
  });

  it.each([
    ['dayMonthYear', '5 Nov 2026', 'Thu 5 Nov, 09:40'],
    ['monthDayYear', 'Nov 5, 2026', 'Thu Nov 5, 09:40'],
    ['yearMonthDay', '2026 Nov 5', 'Thu Nov 5, 09:40'],
  ] as const)('writes a day %s', (days, day, moment) => {
    showFiguresIn({ ...SHOWN_AT_FIRST, days });
    expect(formatDay('2026-11-05', 'Europe/London')).toBe(day);
    expect(formatMoment('2026-11-05T09:40:00.000Z', 'Europe/London')).toBe(moment);
  });

  it.each([
    ['GBP', '£12.50'],
    ['EUR', '€12.50'],
    ['USD', '$12.50'],
    ['CHF', 'CHF\u00a012.50'],
  ])('writes %s as money', (currency, shown) => expect(formatMoney(1250, currency)).toBe(shown));
});
