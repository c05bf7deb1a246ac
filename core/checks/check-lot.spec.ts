import { describe, expect, it } from 'vitest';
import type { CheckInput, CheckedMaterial } from './check-input';
import { sayStepCaution } from '../scaling/step-caution';
import { checkLot } from './check-lot';
import {
  bathStep,
  input,
  stockLot,
  linen,
  material,
  percent,
  planned,
  pot,
  recipe,
  wool,
} from '../scaling/plan-lot.fixture';
import type { PlanInput } from '../scaling/plan-input';
import type { RecipeVersion } from '../recipe/recipe';
import { recipeStep } from '../recipe/recipe-step';

const known = (
  id: string,
  name: string,
  kind: CheckedMaterial['kind'],
  rest: Partial<CheckedMaterial> = {},
): CheckedMaterial => ({
  id,
  name,
  kind,
  hazards: [],
  ceilingC: null,
  bringsTannin: false,
  catalogueKey: null,
  needs: null,
  ...rest,
});
const MATERIALS: CheckedMaterial[] = [
  known('hanks', 'hanks', 'fibre'),
  known('alum', 'Alum', 'mordant', { hazards: ['dust'], catalogueKey: 'potassium-alum' }),
  known('weld', 'Weld', 'dyestuff', { ceilingC: 80, needs: 'mordant' }),
  known('cones', 'Alder cones', 'dyestuff', { ceilingC: 100, bringsTannin: true }),
  known('soda', 'Soda ash', 'assistant', { hazards: ['caustic', 'carbonate'], catalogueKey: 'soda-ash' }),
  known('iron', 'Iron', 'modifier', { hazards: ['ironSalt'], catalogueKey: 'iron-sulphate' }),
];
const scour = recipeStep({ kind: 'scour', title: 'Scour' });
const sound = recipe({
  steps: [
    scour,
    bathStep('mordant', [percent('alum', 15)]),
    bathStep('extract', [percent('weld', 100)], { temperatureC: 78 }),
    bathStep('dye', [], { temperatureC: 75 }),
  ],
});

function check(change: { plan?: Partial<PlanInput>; recipe?: RecipeVersion; check?: Partial<CheckInput> } = {}) {
  const version = change.recipe ?? sound;
  const vessels = change.plan?.vessels ?? input().vessels;
  const stocked = ['alum', 'weld', 'cones', 'soda', 'iron'].map((id) => material(id, stockLot(`${id}-1`, 9000)));
  const plan = planned(input({ recipe: version, bases: [wool(4)], materials: stocked, ...change.plan }));
  return checkLot({
    plan,
    recipe: version,
    status: 'proven',
    materials: MATERIALS,
    vessels,
    stockLots: [],
    intake: { flags: [], syntheticPercent: null },
    house: {},
    water: null,
    otherWaters: [],
    today: '2026-06-01',
    ...change.check,
  });
}
const intake = (flags: CheckInput['intake']['flags'], syntheticPercent: number | null = null) => ({
  check: { intake: { flags, syntheticPercent } },
});

describe('checks before a lot', () => {
  it('has nothing but protection to say of a sound lot', () =>
    expect(check().map((c) => [c.severity, c.protection, c.message])).toEqual([
      ['caution', true, 'Alum: fine powder: dust mask, goggles, no draught.'],
    ]));

  it.each<[string, Parameters<typeof check>[0], 'stop' | 'caution', RegExp, RegExp]>([
    ['a retired recipe', { check: { status: 'retired' } }, 'stop', /is retired/, /Weld on alum, version 2/],
    ['a trial', { check: { status: 'trial' } }, 'caution', /a trial, not proven/, /Weld on alum/],
    ['fibre not weighed', intake(['notWeighed']), 'stop', /not weighed dry/, /intake/],
    ['pieces of different weight', intake(['unevenWeights']), 'caution', /differ in weight/, /intake/],
    ['a little synthetic', intake(['syntheticShare'], 20), 'caution', /20 % of it is synthetic/, /intake/],
    ['mostly synthetic', intake(['syntheticShare'], 80), 'stop', /80 % of it is synthetic/, /intake/],
    ['a blend', intake(['blend']), 'caution', /Protein and cellulose/, /intake/],
    ['stains', intake(['stain']), 'caution', /stains/, /intake/],
    ['deposits', intake(['deposit']), 'caution', /under-arm/, /intake/],
    ['mordanted already', intake(['mordanted']), 'caution', /mordants it again/, /intake/],
    [
      'a pot that held iron',
      { plan: { vessels: [pot('dented', 30, { heldIron: true })] } },
      'caution',
      /dented once held iron/,
      /card of dented/,
    ],
    [
      'caustic in aluminium',
      {
        plan: { vessels: [pot('pan', 30, { metal: 'aluminium' })] },
        recipe: recipe({
          fibres: ['wool'],
          allowedMetals: ['aluminium'],
          steps: [
            scour,
            bathStep('mordant', [percent('alum', 15)]),
            bathStep('extract', [percent('soda', 2)]),
            bathStep('dye', [percent('weld', 10)]),
          ],
        }),
      },
      'stop',
      /Soda|soda.* goes into pan, which is aluminium/,
      /“extract”/,
    ],
    [
      'boiling into a plastic bucket',
      {
        plan: { vessels: [pot('bucket', 30, { metal: 'plastic' })] },
        recipe: { ...sound, allowedMetals: ['plastic'] },
      },
      'stop',
      /bucket takes 60 °C/,
      /card of bucket/,
    ],
    [
      'a hold above boiling in an open pot',
      { recipe: { ...sound, steps: [...sound.steps, bathStep('modify', [], { temperatureC: 110 })] } },
      'stop',
      /“modify” goes to 110 °C; an open pot boils at 100 °C/,
      /card of/,
    ],
    [
      'a burner too weak',
      {
        plan: {
          vessels: [pot('vat', 60, { heatSource: { id: 'h', name: 'Plate', powerW: 200, efficiencyPercent: 50 } })],
          bases: [wool(16)],
        },
      },
      'stop',
      /never reaches 78 °C/,
      /heat source of vat/,
    ],
    [
      'soda ash on wool',
      { recipe: recipe({ steps: [bathStep('scour', [percent('soda', 4)]), ...sound.steps.slice(1)] }) },
      'stop',
      /puts Soda ash on protein/,
      /“scour”/,
    ],
    [
      'high pH on wool',
      { recipe: recipe({ steps: [...sound.steps, bathStep('modify', [], { targetPh: { low: 9, high: 10 } })] }) },
      'caution',
      /at pH 10, on protein/,
      /“modify”/,
    ],
    [
      'a heat jump',
      {
        recipe: recipe({
          steps: [...sound.steps.slice(0, 3), bathStep('dye', [], { course: [{ do: 'hold', toC: 75, minutes: 60 }] })],
        }),
      },
      'caution',
      /begins at 75 °C/,
      /“dye”/,
    ],
    [
      'a cold rinse after a hot bath',
      { recipe: recipe({ steps: [...sound.steps, recipeStep({ kind: 'rinse', title: 'Rinse', temperatureC: 15 })] }) },
      'caution',
      /at 15 °C follows “dye” at 75 °C/,
      /“Rinse”/,
    ],
    [
      'too hot for the dyestuff',
      { recipe: recipe({ steps: [...sound.steps.slice(0, 3), bathStep('dye', [], { temperatureC: 92 })] }) },
      'caution',
      /goes to 92 °C; Weld dulls above 80 °C/,
      /catalogue/,
    ],
    ['nothing scoured', { recipe: recipe({ steps: sound.steps.slice(1) }) }, 'caution', /scours the wool/, /version 2/],
    [
      'nothing mordanted',
      { recipe: recipe({ steps: [scour, ...sound.steps.slice(2)] }) },
      'caution',
      /mordants the wool/,
      /version 2/,
    ],
    [
      'the house that always mordants',
      {
        recipe: recipe({ steps: [scour, bathStep('dye', [percent('cones', 100)])] }),
        check: { house: { mordantOnTannin: 'always' } },
      },
      'caution',
      /the house always mordants/,
      /house practice/,
    ],
    [
      'water too soft',
      {
        recipe: { ...sound, water: { asks: 'hard', hardnessDh: null } },
        check: { water: { name: 'Barrel', ph: 6, hardnessDh: 1, ironMgPerL: null } },
      },
      'caution',
      /Barrel is too soft/,
      /version 2/,
    ],
    [
      'a shorter bath',
      { recipe: { ...sound, minLiquorRatio: 20 }, plan: { liquorRatio: 22 } },
      'caution',
      /shorter than the 1:30/,
      /version 2/,
    ],
    [
      'an old jar',
      {
        check: {
          stockLots: [
            {
              id: 'weld-1',
              tag: 'WEL-1',
              materialId: 'weld',
              receivedOn: '2020-05-01',
              form: null,
              strengthPercent: null,
            },
          ],
        },
      },
      'caution',
      /WEL-1 is 6 years old/,
      /label of WEL-1/,
    ],
    [
      'another form',
      {
        recipe: recipe({
          steps: [
            ...sound.steps.slice(0, 2),
            bathStep('extract', [{ materialId: 'weld', by: 'percentOwf', percentOwf: 10, form: 'dried' }]),
            bathStep('dye'),
          ],
        }),
        check: {
          stockLots: [
            {
              id: 'weld-1',
              tag: 'WEL-1',
              materialId: 'weld',
              receivedOn: '2026-05-01',
              form: 'ground',
              strengthPercent: 100,
            },
          ],
        },
      },
      'caution',
      /WEL-1 is ground; the recipe means dried/,
      /label/,
    ],
  ])('%s', (_name, change, severity, message, cites) => {
    const found = check(change).find((c) => message.test(c.message));
    expect(found?.severity).toBe(severity);
    expect(found?.cites).toMatch(cites);
    expect(found?.why.length).toBeGreaterThan(15);
  });

  it.each<[string, Parameters<typeof check>[0], RegExp]>([
    [
      'an aluminium pot where only inert ones are used',
      {
        plan: { vessels: [pot('pan', 30, { metal: 'aluminium' })] },
        recipe: { ...sound, allowedMetals: ['aluminium'] },
        check: { house: { vessel: 'inert' } },
      },
      /pan is of aluminium. The house says of vessels: stainless or enamel only/,
    ],
    [
      'a dose by the litre',
      {
        recipe: recipe({
          steps: [
            ...sound.steps.slice(0, 2),
            bathStep('extract', [{ materialId: 'weld', by: 'gPerLitre', gPerL: 5 }]),
            bathStep('dye'),
          ],
        }),
        check: { house: { doseBy: 'fibre' } },
      },
      /Weld is dosed by the litre/,
    ],
    [
      'home-made liquor',
      {
        recipe: recipe({ steps: [...sound.steps, bathStep('modify', [percent('iron', 1)])] }),
        check: {
          house: { modifiers: 'crystals' },
          stockLots: [
            {
              id: 'i',
              tag: 'IRO-1',
              materialId: 'iron',
              receivedOn: '2026-05-01',
              form: 'liquor',
              strengthPercent: null,
            },
          ],
        },
      },
      /Iron is a home-made liquor/,
    ],
    [
      'fresh where the house dyes with dried',
      {
        check: {
          house: { form: 'dried' },
          stockLots: [
            {
              id: 'w',
              tag: 'WEL-1',
              materialId: 'weld',
              receivedOn: '2026-05-01',
              form: 'fresh',
              strengthPercent: null,
            },
          ],
        },
      },
      /WEL-1 is fresh. The house dyes with dried/,
    ],
  ])('asks about %s, unless the recipe says so itself', (_name, change, message) => {
    const [rule] = Object.keys(change?.check?.house ?? {});
    expect(check(change).some((c) => c.cites === 'house practice' && message.test(c.message))).toBe(true);
    const spoken = { ...(change?.recipe ?? sound), practice: { [rule ?? '']: 'said' } };
    expect(check({ ...change, recipe: spoken }).some((c) => message.test(c.message))).toBe(false);
  });
  it('says at the step what the house does and the recipe doesn’t say', () => {
    const cautions = (house: Record<string, string>, kind: 'extract' | 'dry') =>
      planned(
        input({
          bases: [wool(2)],
          house,
          recipe: recipe({ steps: [...sound.steps, recipeStep({ kind: 'dry', title: 'dry' })] }),
        }),
      )
        .steps.find((s) => s.kind === kind)
        ?.cautions.map(sayStepCaution)
        .join(' ') ?? '';
    expect(cautions({ sun: 'never' }, 'dry')).toContain('Out of the sun');
    expect(cautions({ sun: 'either' }, 'dry')).not.toContain('sun');
    expect(cautions({ fibreInExtraction: 'cellulose' }, 'extract')).toContain(
      'Protein fibre only once the bath is cool',
    );
    expect(cautions({ fibreInExtraction: 'never' }, 'extract')).toContain('No fibre in the pot');
  });
  it('doesn’t hold one dyestuff to the heat of another’s bath', () => {
    const two = recipe({
      steps: [
        scour,
        bathStep('mordant', [percent('alum', 15)]),
        bathStep('extract', [percent('weld', 50)], { temperatureC: 78 }),
        bathStep('dye', [], { temperatureC: 75 }),
        bathStep('extract', [percent('cones', 50)], { title: 'cones', temperatureC: 95 }),
        bathStep('dye', [], { title: 'dye over', temperatureC: 90 }),
      ],
    });
    expect(check({ recipe: two }).filter((c) => /dulls above/.test(c.message))).toEqual([]);
  });

  it('puts stops first, says each thing once, and knows each by its key', () => {
    const checks = check({ check: { intake: { flags: ['stain', 'notWeighed'], syntheticPercent: null } } });
    expect(checks[0]?.severity).toBe('stop');
    expect(new Set(checks.map((c) => c.key)).size).toBe(checks.length);
  });
  it('takes what was scoured or mordanted at intake as done', () => {
    const bare = recipe({ steps: [bathStep('extract', [percent('weld', 100)]), bathStep('dye')] });
    expect(
      check({ recipe: bare, ...intake(['scoured', 'mordanted']) }).filter((c) => /scours|mordants/.test(c.message)),
    ).toEqual([]);
    expect(check({ recipe: bare }).filter((c) => /scours|mordants/.test(c.message))).toHaveLength(2);
  });
  it('lets iron into an iron pot on purpose', () => {
    const iron = recipe({
      steps: [
        scour,
        bathStep('mordant', [percent('alum', 15)]),
        bathStep('dye', [percent('weld', 50)]),
        bathStep('modify', [percent('iron', 2)]),
      ],
    });
    expect(
      check({ recipe: iron, plan: { vessels: [pot('dented', 30, { heldIron: true })] } }).some((c) =>
        /held iron/.test(c.message),
      ),
    ).toBe(false);
    expect(
      check({ plan: { bases: [linen(2)] }, recipe: { ...sound, fibres: ['linen'] } }).some((c) =>
        /protein/.test(c.message),
      ),
    ).toBe(false);
  });

  it('asks each step for its own metal, also where two steps are called alike', () => {
    const twice = recipe({
      allowedMetals: ['stainless', 'enamel'],
      steps: [
        scour,
        bathStep('mordant', [percent('alum', 15)]),
        bathStep('extract', [percent('weld', 100)], { temperatureC: 70 }),
        bathStep('dye', [], { title: 'Dye', metals: ['enamel'] }),
        bathStep('dye', [], { title: 'Dye', metals: ['stainless'] }),
      ],
    });
    const vessels = [pot('steel', 30), pot('white', 30, { metal: 'enamel' })];
    expect(check({ recipe: twice, plan: { vessels } }).filter((c) => c.severity === 'stop')).toEqual([]);
  });

  it('keeps every remark on the water: hard where soft is asked for, and iron that stains', () => {
    const soft = { ...sound, water: { asks: 'soft' as const, hardnessDh: null } };
    const water = { name: 'Well', ph: 7.4, hardnessDh: 20, ironMgPerL: 1 };
    const remarks = check({ recipe: soft, plan: { water }, check: { water } }).filter((c) =>
      c.why.startsWith('Hardness and iron'),
    );
    expect(remarks.length).toBeGreaterThan(1);
    expect(new Set(remarks.map((c) => c.key)).size).toBe(remarks.length);
  });
});
