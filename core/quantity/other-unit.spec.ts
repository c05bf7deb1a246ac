import { afterEach, describe, expect, it } from 'vitest';
import { Chance } from './chance';
import { figuresElsewhere } from './other-unit';
import { SHOWN_AT_FIRST, showFiguresIn } from './shown-in';
import { formatDegreesApart, formatTemperature } from './temperature';
import { formatVolume } from './volume';
import { formatWeight } from './weight';

const others = (text: string): string[] => figuresElsewhere(text).map((f) => f.other);

describe('figures in the other units', () => {
  afterEach(() => showFiguresIn(SHOWN_AT_FIRST));

  it.each([
    ['161.7 g', ['5.704 oz']],
    ['29,675 kg', ['65 lb 6.75 oz']],
    ['from 240 g for 1.6 kg of wool', ['8.466 oz', '3 lb 8.44 oz']],
    ['1 lb 4 oz', ['567 g']],
    ['24 l', ['6.34 US gal · 5.28 imperial gal']],
    ['2 US gal', ['7.57 l']],
    ['16 imperial fl oz', ['455 ml']],
    ['82 °C', ['180 °F']],
    ['180 °F', ['82.2 °C']],
    ['40–60 °C', ['104 – 140 °F']],
    ['held 20 min within 2\u00a0°C of 85 °C', ['3.6 °F', '185 °F']],
    ['rising 1.5\u00a0°C a minute', ['2.7 °F']],
    ['6 × 200 g', ['7.055 oz']],
  ])('reads them in “%s”', (text, found) => expect(others(text)).toEqual(found));

  it.each(['10 g/l', '17.8 mg/l of lime', '1:30', 'Lot 81', '12 gulls', '5 ΔE', '3 litres', 'v1.2 g', '20 % WOF'])(
    'leaves “%s” alone',
    (text) => expect(others(text)).toEqual([]),
  );

  it('tells where in the text each stands', () => {
    const text = 'Weld 120\u00a0g in 6 l';
    expect(figuresElsewhere(text).map((f) => text.slice(f.from, f.to))).toEqual(['120\u00a0g', '6 l']);
  });

  it('is the same amount, to less than a hundredth, whatever is written, with either mark', () => {
    const chance = new Chance(7);
    for (let i = 0; i < 500; i += 1) {
      const weightG = 10 ** (chance.next() * 5);
      for (const decimalMark of ['.', ','] as const) {
        showFiguresIn({ ...SHOWN_AT_FIRST, decimalMark });
        const [pounds = ''] = others(formatWeight(weightG));
        const [grams = ''] = others(pounds);
        expect(Math.abs(amountOf(grams) - weightG)).toBeLessThan(Math.max(0.02, weightG * 0.01));
        const [gallons = ''] = others(formatVolume(weightG));
        for (const one of gallons.split(' · ')) {
          const [litres = ''] = others(one);
          expect(Math.abs(amountOf(litres) - weightG)).toBeLessThan(Math.max(2.5, weightG * 0.01));
        }
      }
    }
  });

  it('goes back and forth between temperatures, and between what lies between two', () => {
    for (let c = 0; c <= 100; c += 1) {
      showFiguresIn(SHOWN_AT_FIRST);
      const [fahrenheit = ''] = others(formatTemperature(c));
      expect(Math.abs(parseFloat(others(fahrenheit)[0] ?? '') - c)).toBeLessThan(0.3);
      expect(others(`${formatDegreesApart(c)} under the ceiling`)).toEqual([`${Math.round(c * 18) / 10} °F`]);
    }
  });
});

/** Grams or millilitres of `1.2 kg`, `340 ml`. */
const amountOf = (text: string): number => parseFloat(text.replace(',', '.')) * (/ (kg|l)$/.test(text) ? 1000 : 1);
