import { describe, expect, it } from 'vitest';
import { catalogueEntry } from '../catalogue/catalogue';
import { recipeStep } from '../recipe/recipe-step';
import type { RecipeStep } from '../recipe/recipe-step';
import {
  bathStep,
  input,
  linen,
  material,
  percent,
  planned,
  pot,
  recipe,
  stockLot,
  wool,
} from '../scaling/plan-lot.fixture';
import type { PlanBase } from '../scaling/plan-input';
import type { CheckedMaterial } from './check-input';
import { checkLot } from './check-lot';

const KEYS = {
  alum: 'potassium-alum',
  acetate: 'aluminium-acetate',
  iron: 'iron-sulphate',
  copper: 'copper-sulphate',
  tartar: 'cream-of-tartar',
  soda: 'soda-ash',
  chalk: 'chalk',
  galls: 'oak-galls',
  bleach: 'chlorine-bleach',
  vinegar: 'white-vinegar',
  citric: 'citric-acid',
  ammonia: 'household-ammonia',
  dithionite: 'sodium-dithionite',
  weld: 'weld',
  indigo: 'indigo',
  walnut: 'walnut-hulls',
  turmeric: 'turmeric',
} as const;
type Id = keyof typeof KEYS;

/** A studio's own materials, as the catalogue has them. */
const MATERIALS: CheckedMaterial[] = Object.entries(KEYS).map(([id, catalogueKey]) => {
  const entry = catalogueEntry(catalogueKey);
  if (!entry) throw new Error(`no ${catalogueKey} in the catalogue`);
  const { name, kind, hazards, bringsTannin, needs } = entry;
  return { id, name, kind, hazards, ceilingC: null, bringsTannin, catalogueKey, needs };
});
const silk = (): PlanBase => ({ ...wool(4), ...material('ribbon', stockLot('SLK-1', 50_000)), fibre: 'silk' });
const dose = (id: Id, of: number) => percent(id, of);

const scour = recipeStep({ kind: 'scour', title: 'Scour' });
const rinse = recipeStep({ kind: 'rinse', title: 'Rinse' });
function look(steps: readonly RecipeStep[], base: PlanBase = wool(4)) {
  const version = recipe({ fibres: ['wool', 'silk', 'linen'], steps: [...steps] });
  const materials = Object.keys(KEYS).map((id) => material(id, stockLot(`${id}-1`, 900_000)));
  const plan = planned(input({ recipe: version, bases: [base], materials, vessels: [pot('kettle', 60)] }));
  return checkLot({
    plan,
    recipe: version,
    status: 'proven',
    materials: MATERIALS,
    vessels: [pot('kettle', 60)],
    stockLots: [],
    intake: { flags: [], syntheticPercent: null },
    house: {},
    water: null,
    otherWaters: [],
    today: '2026-06-01',
  }).filter((c) => !c.protection);
}
const said = (...of: Parameters<typeof look>): string[] => look(...of).map((c) => `${c.severity}: ${c.message}`);

describe('two things in one bath', () => {
  const NEVER: readonly (readonly [string, Id, Id])[] = [
    ['bleach and vinegar', 'bleach', 'vinegar'],
    ['bleach and citric acid', 'bleach', 'citric'],
    ['bleach and ammonia', 'bleach', 'ammonia'],
    ['bleach and a reducer', 'bleach', 'dithionite'],
    ['a reducer and acid', 'dithionite', 'vinegar'],
    ['acid on soda', 'soda', 'vinegar'],
    ['acid on chalk', 'chalk', 'citric'],
  ];

  it.each(NEVER)('%s in one step stop the lot', (_, a, b) => {
    const found = look([scour, bathStep('modify', [dose(a, 2), dose(b, 2)])], linen(4));
    expect(found.filter((c) => c.severity === 'stop').map((c) => c.message)).toEqual([
      expect.stringMatching(/“modify” brings .* and .* together in one liquor/),
    ]);
    expect(found[0]?.why).toMatch(/safety data sheets/);
  });

  it.each(NEVER)('%s in two steps of one liquor stop it as well', (_, a, b) => {
    const steps = [scour, bathStep('makeUp', [dose(a, 2)]), bathStep('dye', [dose(b, 2)])];
    expect(said(steps, linen(4)).join()).toMatch(/stop: “dye” brings .* together in one liquor/);
    const named = [
      scour,
      bathStep('mordant', [dose(a, 2)], { bath: 'pan' }),
      rinse,
      bathStep('dye', [dose(b, 2)], { bath: 'pan' }),
    ];
    expect(said(named, linen(4)).join()).toMatch(/stop: “dye” brings .* together in one liquor/);
  });

  it('a kept liquor brings along what is dissolved in it', () => {
    const version = recipe({
      fibres: ['linen'],
      steps: [scour, bathStep('modify', [dose('citric', 2), dose('walnut', 5)])],
    });
    const materials = Object.keys(KEYS).map((id) => material(id, stockLot(`${id}-1`, 900_000)));
    const vessels = [pot('kettle', 60)];
    const plan = planned(input({ recipe: version, bases: [linen(4)], materials, vessels }));
    const walnut = { id: 'walnut-1', tag: 'WAL-1', materialId: 'walnut', receivedOn: '2026-05-01', form: null };
    const found = (contents: readonly string[]) =>
      checkLot({
        plan,
        recipe: version,
        status: 'proven',
        materials: MATERIALS,
        vessels,
        stockLots: [{ ...walnut, strengthPercent: null, contents }],
        intake: { flags: [], syntheticPercent: null },
        house: {},
        water: null,
        otherWaters: [],
        today: '2026-06-01',
      }).filter((c) => c.severity === 'stop');
    expect(found([])).toEqual([]);
    expect(found(['soda'])[0]?.message).toMatch(/brings .*Soda ash.* together in one liquor/);
  });

  it('bleach still in the pieces stops an acid bath, and no longer does after a rinse', () => {
    const bleached = bathStep('modify', [dose('bleach', 2)], { title: 'Bleach' });
    const sour = bathStep('modify', [dose('vinegar', 2)], { title: 'Sour' });
    expect(said([scour, bleached, sour], linen(4)).join()).toContain(
      'stop: “Sour” puts White vinegar on pieces that still hold Chlorine bleach.',
    );
    expect(said([scour, bleached, recipeStep({ kind: 'dry', title: 'Dry' }), sour], linen(4)).join()).toMatch(
      /still hold/,
    );
    expect(said([scour, bleached, rinse, sour], linen(4)).join()).not.toMatch(/still hold|together/);
  });

  it('neutralising an alkaline bath drop by drop is a caution, and needs a reason', () => {
    const steps = [
      scour,
      bathStep('makeUp', [dose('soda', 2)]),
      bathStep('adjustPh', [dose('vinegar', 1)]),
      bathStep('dye'),
    ];
    const found = said(steps, linen(4));
    expect(found.join()).toMatch(/caution: “adjustPh” brings White vinegar and Soda ash together/);
    expect(found.join()).not.toMatch(/stop: “adjustPh”/);
  });

  it('iron meets tannin on purpose in a modifying bath, and by mistake elsewhere', () => {
    expect(said([scour, bathStep('mordant', [dose('iron', 1), dose('galls', 10)])], linen(4)).join()).toMatch(
      /caution: “mordant” brings Iron sulphate and Oak galls together/,
    );
    expect(said([scour, bathStep('modify', [dose('iron', 1), dose('galls', 10)])], linen(4)).join()).not.toMatch(
      /together/,
    );
  });
});

describe('doses as they are usual', () => {
  it.each<[string, Id, number, PlanBase, 'stop' | 'caution' | null]>([
    ['iron 2 % on wool', 'iron', 2, wool(4), null],
    ['iron 7 % on wool', 'iron', 7, wool(4), 'caution'],
    ['iron 50 % on silk', 'iron', 50, silk(), 'stop'],
    ['iron 12 % on linen', 'iron', 12, linen(4), 'caution'],
    ['copper 30 %', 'copper', 30, wool(4), 'stop'],
    ['alum 15 %', 'alum', 15, wool(4), null],
    ['alum 40 %', 'alum', 40, wool(4), 'caution'],
    ['alum 150 %', 'alum', 150, wool(4), 'stop'],
    ['tartar 6 %', 'tartar', 6, wool(4), null],
    ['tartar 100 %', 'tartar', 100, wool(4), 'stop'],
  ])('%s', (_, id, of, base, severity) => {
    const found = look([scour, bathStep('mordant', [dose(id, of)])], base).filter((c) => c.message.includes('usual'));
    expect(found.map((c) => c.severity)).toEqual(severity === null ? [] : [severity]);
  });

  it.each<[string, readonly RecipeStep[], PlanBase, RegExp]>([
    [
      'acetate on wool',
      [bathStep('mordant', [dose('acetate', 8)])],
      wool(4),
      /caution: “mordant” puts Aluminium acetate on protein/,
    ],
    [
      'tartar on linen',
      [bathStep('mordant', [dose('tartar', 6)])],
      linen(4),
      /caution: .* Cream of tartar on cellulose/,
    ],
    ['alum alone on linen', [bathStep('mordant', [dose('alum', 15)])], linen(4), /caution: .* with neither tannin/],
    [
      'alum with more soda than keeps it clear',
      [bathStep('mordant', [dose('alum', 15), dose('soda', 5)])],
      linen(4),
      /caution: “mordant” has 0.33 g of Soda ash to each gram/,
    ],
    [
      'iron with chalk',
      [bathStep('modify', [dose('iron', 2), dose('chalk', 2)])],
      linen(4),
      /caution: .* Iron sulphate and Chalk in one bath/,
    ],
    ['bleach on wool', [bathStep('modify', [dose('bleach', 2)])], wool(4), /stop: .* Chlorine bleach on protein/],
    [
      'silk at 98 °C',
      [bathStep('dye', [], { temperatureC: 98 })],
      silk(),
      /stop: “dye” goes to 98 °C; silk bears about 85/,
    ],
    ['silk at 90 °C', [bathStep('dye', [], { temperatureC: 90 })], silk(), /caution: “dye” goes to 90 °C; silk/],
    [
      'wool scoured at 95 °C',
      [bathStep('scour', [], { temperatureC: 95 })],
      wool(4),
      /stop: “scour” goes to 95 °C; wool/,
    ],
  ])('%s is told', (_, steps, base, message) => expect(said(steps, base).join('\n')).toMatch(message));

  it.each<[string, readonly RecipeStep[], PlanBase]>([
    ['wool simmered at 90 °C', [scour, bathStep('mordant', [dose('alum', 15)], { temperatureC: 90 })], wool(4)],
    ['linen boiled', [bathStep('scour', [dose('soda', 4)], { temperatureC: 95 })], linen(4)],
    [
      'alum after tannin on linen',
      [scour, bathStep('tannin', [dose('galls', 10)]), rinse, bathStep('mordant', [dose('alum', 15)])],
      linen(4),
    ],
    [
      'alum fixed with chalk',
      [scour, bathStep('mordant', [dose('alum', 15)]), rinse, bathStep('modify', [dose('chalk', 3)])],
      linen(4),
    ],
    ['alum kept clear', [scour, bathStep('mordant', [dose('alum', 20), dose('soda', 2)])], linen(4)],
  ])('%s is let pass', (_, steps, base) => expect(said(steps, base)).toEqual([]));
});

describe('what holds a dyestuff', () => {
  const on = (id: Id): string => said([scour, bathStep('dye', [dose(id, 20)])]).join();
  it('is a mordant for weld', () => expect(on('weld')).toMatch(/Nothing in the chain mordants the wool/));
  it.each<[Id]>([['indigo'], ['walnut'], ['turmeric']])('is none for %s', (id) =>
    expect(on(id)).not.toMatch(/mordant|fugitive/),
  );
  it('names only the dyestuff that wants one', () =>
    expect(look([scour, bathStep('dye', [dose('weld', 20), dose('turmeric', 5)])])[0]?.why).toMatch(
      /^Weld brings no tannin/,
    ));
});
