import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fibrePerHour, followPicked, gramsPerHour } from './gathering';

const picking = (weightG: number, hands: number, minutesEach: number | null) => ({ weightG, hands, minutesEach });

describe('what an hour of picking gives', () => {
  it.each([
    { pickings: [picking(300, 1, 60)], per: 300 },
    // Three people for forty minutes are two hours of hands.
    { pickings: [picking(500, 3, 40)], per: 250 },
    { pickings: [picking(500, 3, 40), picking(100, 1, 60)], per: 200 },
    { pickings: [picking(90, 0, 30)], per: 180 },
  ])('$per g', ({ pickings, per }) => expect(gramsPerHour(pickings)?.value).toBe(per));

  it('leaves out what nobody timed, and says so', () => {
    expect(gramsPerHour([picking(300, 1, null)])).toBeNull();
    expect(gramsPerHour([])).toBeNull();
    const some = gramsPerHour([picking(300, 1, 60), picking(900, 2, null)]);
    expect(some?.value).toBe(300);
    expect(some?.working.notes).toEqual(['1 without a time left out']);
  });
});

describe('pickings followed into lots', () => {
  const dried = { inputs: [{ stockLotId: 'fresh', weightG: 600 }], outputs: [{ stockLotId: 'dry', weightG: 120 }] };
  it('a gram dried stands for what it was fresh', () => {
    expect(followPicked('fresh', [dried], [{ lotId: 'l', stockLotId: 'dry', weightG: 60, fibreG: 500 }])).toEqual([
      { lotId: 'l', pickedG: 300, fibreG: 500 },
    ]);
  });
  it('of a blend only its share; nothing of another jar', () => {
    const blend = {
      inputs: [
        { stockLotId: 'dry', weightG: 50 },
        { stockLotId: 'bought', weightG: 150 },
      ],
      outputs: [{ stockLotId: 'mix', weightG: 200 }],
    };
    const uses = [
      { lotId: 'l', stockLotId: 'mix', weightG: 100, fibreG: 400 },
      { lotId: 'm', stockLotId: 'bought', weightG: 100, fibreG: 400 },
    ];
    expect(followPicked('fresh', [dried, blend], uses)).toEqual([{ lotId: 'l', pickedG: 125, fibreG: 400 }]);
  });
  it('used up through any chain of forms, all that was picked is accounted for', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 50, max: 5000, noNaN: true }),
        fc.array(fc.double({ min: 0.1, max: 1, noNaN: true }), { minLength: 1, maxLength: 6 }),
        (pickedG, yields) => {
          let weightG = pickedG;
          const changes = yields.map((share, i) => {
            const change = {
              inputs: [{ stockLotId: `j${i}`, weightG }],
              outputs: [{ stockLotId: `j${i + 1}`, weightG: weightG * share }],
            };
            weightG *= share;
            return change;
          });
          const used = followPicked('j0', changes, [
            { lotId: 'l', stockLotId: `j${yields.length}`, weightG, fibreG: 100 },
          ]);
          expect(used[0]?.pickedG).toBeCloseTo(pickedG, 6);
        },
      ),
      { seed: 12 },
    ));
});

describe('fibre that an hour dyes', () => {
  it('by the doses its lots were dyed with', () =>
    expect(
      fibrePerHour(gramsPerHour([picking(300, 1, 60)]), [
        { lotId: 'a', pickedG: 200, fibreG: 100 },
        { lotId: 'b', pickedG: 100, fibreG: 200 },
      ])?.value,
    ).toBe(300));
  it('is unknown before a lot was dyed, or without a time', () => {
    expect(fibrePerHour(gramsPerHour([picking(300, 1, 60)]), [])).toBeNull();
    expect(fibrePerHour(null, [{ lotId: 'a', pickedG: 200, fibreG: 100 }])).toBeNull();
  });
});
