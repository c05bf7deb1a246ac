import { sayChainFault } from './chain-fault';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findChainFault, followsLabel, orderChain } from './chain';
import { compareVersions } from './compare-versions';
import { recipe } from '../scaling/plan-lot.fixture';
import { changesChain, replanFor } from './replan-chain';
import { mayHaveStatus } from './proof';
import { PRACTICE, practiceChoice, practiceDifferences } from './practice-questions';
import { hottestC, stepMinutes } from './course';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';

const step = (key: string, after: string[] | null = null, rest: Partial<RecipeStep> = {}): RecipeStep =>
  recipeStep({ key, kind: 'dye', title: key, after, ...rest });

describe('a chain', () => {
  it('follows the list where nothing is said, and its branches where it is', () => {
    expect(orderChain([step('a'), step('b'), step('c')])).toMatchObject({
      ok: true,
      order: [0, 1, 2],
      after: [[], [0], [1]],
    });
    const steps = [step('dye', ['w', 'l']), step('w', []), step('l', [])];
    expect(orderChain(steps)).toMatchObject({ ok: true, order: [1, 2, 0] });
    expect(followsLabel(steps, 0)).toBe('after w and l');
    expect(followsLabel(steps, 1)).toBe('may begin at once');
  });
  it.each<[string, RecipeStep[], string, RegExp]>([
    ['a circle of two', [step('a', ['b']), step('b', ['a'])], 'circle', /“a”, “b” each wait/],
    ['a step that follows itself', [step('a', ['a'])], 'circle', /circle/],
    ['a step that isn’t there', [step('a', ['z'])], 'unknownStep', /follows “z”/],
    ['two of one key', [step('a'), step('a')], 'twoKeys', /called “a”/],
    [
      'a wait shorter than its least',
      [step('a', null, { wait: { minMinutes: 60, maxMinutes: 30 } })],
      'waitTooShort',
      /30 min at most, but wants 60 min/,
    ],
    [
      'hotter than its ceiling',
      [step('a', null, { ceilingC: 70, course: [{ do: 'hold', toC: 82, minutes: 5 }] })],
      'tooHot',
      /goes to 82 °C/,
    ],
    ['a part that isn’t there', [step('a', null, { parts: ['dark'] })], 'unknownPart', /“dark”/],
  ])('finds %s', (_name, steps, code, message) => {
    const fault = findChainFault(steps, []);
    expect(fault?.code).toBe(code);
    expect(fault && sayChainFault(fault)).toMatch(message);
  });
  it('wants parts to come to the whole', () =>
    expect(findChainFault([step('a')], [{ key: 'x', name: 'x', sharePercent: 60 }])?.code).toBe('partsNotWhole'));
  it('orders any chain without a circle so that each comes after what it follows', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(20), { maxLength: 3 }), { minLength: 1, maxLength: 20 }), (links) => {
        // Only to earlier ones, then shuffled by reversing: never a circle.
        const steps = links
          .map((keys, i) => step(`s${i}`, [...new Set(keys.filter((k) => k < i).map((k) => `s${k}`))]))
          .reverse();
        const chain = orderChain(steps);
        expect(chain.ok).toBe(true);
        if (!chain.ok) return;
        expect([...chain.order].sort((a, b) => a - b)).toEqual(steps.map((_, i) => i));
        for (const [i, followed] of chain.after.entries())
          for (const k of followed) expect(chain.order.indexOf(k)).toBeLessThan(chain.order.indexOf(i));
      }),
      { seed: 61 },
    );
  });
  it('reckons time and heat by the course where there is one', () => {
    const dyed = step('a', null, {
      durationMin: 60,
      temperatureC: 60,
      repeats: 2,
      course: [
        { do: 'raise', toC: 80, minutes: 40 },
        { do: 'coast', minutes: 20 },
        { do: 'cool', minutes: 600 },
      ],
    });
    expect([stepMinutes(dyed), hottestC(dyed)]).toEqual([1320, 80]);
    expect([stepMinutes({ ...dyed, course: [] }), hottestC({ ...dyed, course: [] })]).toEqual([120, 60]);
  });
});

describe('schools', () => {
  const materials = {
    alum: 'alum',
    acetate: 'acetate',
    tartar: 'tartar',
    soy: 'soy',
    chalk: 'chalk',
    bran: 'bran',
    vats: ['indigo'],
  };
  const body = {
    fibres: ['wool' as const],
    steps: [
      recipeStep({
        key: 'm',
        kind: 'mordant',
        title: 'Mordant',
        temperatureC: 82,
        ceilingC: 88,
        usesBath: true,
        doses: [
          { materialId: 'alum', by: 'percentOwf', percentOwf: 15 },
          { materialId: 'tartar', by: 'percentOwf', percentOwf: 5 },
        ],
      }),
      recipeStep({ key: 'd', kind: 'dye', title: 'Dye', temperatureC: 75, after: ['m'] }),
      recipeStep({ key: 'r', kind: 'rinse', title: 'Rinse', after: ['d'] }),
      recipeStep({ key: 'dry', kind: 'dry', title: 'Dry', after: ['r'] }),
      recipeStep({ key: 'c', kind: 'cure', title: 'Cure', after: ['dry'] }),
      recipeStep({ key: 'w', kind: 'wash', title: 'Wash', after: ['c'] }),
    ],
  };
  const replanned = (key: string, answer: string) => replanFor(body, key, answer, materials);
  it('says of every choice what it costs and gains', () => {
    expect(PRACTICE).toHaveLength(22);
    for (const q of PRACTICE) {
      expect(q.choices.length, q.key).toBeGreaterThanOrEqual(2);
      for (const c of q.choices) expect(c.costsAndGains.length, `${q.key} ${c.key}`).toBeGreaterThan(20);
    }
    expect(practiceChoice('mordantHeat', 'lukewarm')).toBeUndefined();
  });
  it('takes days and no burner for a cold mordant, a pot and a burner for a hot one', () => {
    const cold = replanned('mordantHeat', 'cold').steps[0] as RecipeStep;
    expect([stepMinutes(cold), hottestC(cold)]).toEqual([4320, undefined]);
    const hot = replanFor({ ...body, steps: [cold] }, 'mordantHeat', 'hot', materials).steps[0] as RecipeStep;
    expect([stepMinutes(hot), hottestC(hot)]).toEqual([825, 82]);
  });
  it.each<[string, string, (steps: readonly RecipeStep[]) => unknown, unknown]>([
    [
      'aluminium',
      'alum20',
      (s) => s[0]?.doses.find((d) => d.materialId === 'alum'),
      { materialId: 'alum', by: 'percentOwf', percentOwf: 20 },
    ],
    ['aluminium', 'acetate', (s) => s[0]?.doses.some((d) => d.materialId === 'acetate'), false],
    ['tartar', 'none', (s) => s[0]?.doses.map((d) => d.materialId), ['alum']],
    ['tartar', 'rinse', (s) => s.map((x) => x.key), ['m', 'tartarRinse', 'd', 'r', 'dry', 'c', 'w']],
    [
      'rinseMordant',
      'yes',
      (s) => s.map((x) => [x.key, x.after]).slice(1, 3),
      [
        ['mordantRinse', ['m']],
        ['d', ['mordantRinse']],
      ],
    ],
    [
      'rinse',
      'once',
      (s) => s.map((x) => [x.key, x.after]).slice(-2),
      [
        ['dry', ['r']],
        ['w', ['dry']],
      ],
    ],
    ['finish', 'overnight', (s) => s[1]?.course.map((l) => l.do), ['raise', 'hold', 'cool']],
    ['finish', 'lift', (s) => s[1]?.finishedBy, 'eye'],
    ['endPoint', 'eye', (s) => s[1]?.finishedBy, 'eye'],
    ['straining', 'bag', (s) => s.length, 6],
    ['aluminium', 'soy', (s) => [s[0]?.title, s[0]?.doses.map((d) => d.materialId)], ['Bind with soy milk', ['soy']]],
    ['doseBy', 'pot', (s) => s, body.steps],
  ])('lays the chain anew for %s: %s', (key, answer, of, expected) => {
    const { steps } = replanned(key, answer);
    expect(of(steps)).toEqual(expected);
    expect(findChainFault(steps, [])).toBeUndefined();
  });
  const steps = (key: string, answer: string, of: Partial<typeof body> = {}) =>
    replanFor({ ...body, ...of }, key, answer, materials).steps;
  const cotton = { fibres: ['cotton' as const] as never };
  const mordant = (...ids: string[]) =>
    recipeStep({
      key: 'm',
      kind: 'mordant',
      title: 'Mordant',
      temperatureC: 82,
      usesBath: true,
      doses: ids.map((materialId) => ({ materialId, by: 'percentOwf', percentOwf: 8 })),
    });
  const dosed = (s: RecipeStep | undefined) => s?.doses.map((d) => d.materialId);
  it('puts no tartar into acetate or soy, nor on cellulose, and works acetate and silk cooler than alum', () => {
    const acetate = { ...cotton, steps: [mordant('acetate'), ...body.steps.slice(1)] };
    expect(dosed(steps('tartar', 'with', acetate)[0])).toEqual(['acetate']);
    expect(dosed(steps('tartar', 'with', { ...cotton, steps: [mordant('alum')] })[0])).toEqual(['alum']);
    expect(steps('tartar', 'rinse', acetate).map((s) => s.key)).not.toContain('tartarRinse');
    expect(hottestC(steps('mordantHeat', 'hot', acetate)[0] as RecipeStep)).toBe(45);
    expect(hottestC(steps('mordantHeat', 'hot', { fibres: ['silk'] as never })[0] as RecipeStep)).toBe(60);
    const toAcetate = steps('aluminium', 'acetate', { ...cotton, steps: [mordant('alum', 'tartar')] })[0];
    expect([dosed(toAcetate), hottestC(toAcetate as RecipeStep)]).toEqual([['acetate'], 45]);
  });
  it('binds with soy, doses it, and goes back to a salt again', () => {
    const soy = steps('aluminium', 'soy');
    expect([dosed(soy[0]), soy[0]?.usesBath]).toEqual([['soy'], false]);
    expect(steps('mordantHeat', 'hot', { steps: [...soy] as never })[0]?.title).toBe('Bind with soy milk');
    const back = steps('aluminium', 'alum12', { steps: [...soy] as never })[0];
    expect([dosed(back), back?.usesBath, hottestC(back as RecipeStep)]).toEqual([['alum'], true, 82]);
  });
  it('lays nothing before a vat, and lets nothing cool in one overnight', () => {
    const vat = [
      recipeStep({ key: 'soak', kind: 'wetOut', title: 'Soak' }),
      recipeStep({ key: 'd', kind: 'dye', title: 'Dip', doses: [{ materialId: 'indigo', by: 'gPerLitre', gPerL: 2 }] }),
    ];
    for (const [key, answer] of [
      ['mordantOnTannin', 'always'],
      ['finish', 'overnight'],
      ['mordantWhen', 'before'],
    ] as const)
      expect(steps(key, answer, { steps: vat as never })).toEqual(vat);
  });
  it('links those who went on from the step before to the mordant that is added', () => {
    const galls = [
      recipeStep({ key: 'scour', kind: 'scour', title: 'Scour', after: [] }),
      recipeStep({ key: 'draw', kind: 'extract', title: 'Draw', after: [] }),
      recipeStep({ key: 'd', kind: 'dye', title: 'Dye', after: ['scour', 'draw'] }),
    ];
    const added = steps('mordantOnTannin', 'always', { steps: galls as never });
    expect(added.map((s) => [s.key, s.after])).toEqual([
      ['scour', []],
      ['addedMordant', ['scour']],
      ['draw', []],
      ['d', ['addedMordant', 'draw']],
    ]);
    expect(steps('mordantOnTannin', 'none', { steps: [...added] as never }).map((s) => s.after)).toEqual(
      galls.map((s) => s.after),
    );
  });
  it('mordants with the dye or after it, and before it again', () => {
    const withDye = steps('mordantWhen', 'with');
    expect(withDye.map((s) => s.key)).toEqual(['d', 'r', 'dry', 'c', 'w']);
    expect(dosed(withDye[0])).toEqual(['alum']);
    const before = steps('mordantWhen', 'before', { steps: [...withDye] as never });
    expect(before.map((s) => [s.kind, dosed(s)]).slice(0, 2)).toEqual([
      ['mordant', ['alum']],
      ['dye', []],
    ]);
    const after = steps('mordantWhen', 'after');
    expect(after.map((s) => [s.key, s.after]).slice(0, 3)).toEqual([
      ['d', null],
      ['m', ['d']],
      ['r', ['m']],
    ]);
    for (const chain of [withDye, before, after]) expect(findChainFault(chain, [])).toBeUndefined();
  });
  it('turns tannin and alum round, and fixes the mordant on cellulose with chalk or bran', () => {
    const chain = [recipeStep({ key: 't', kind: 'tannin', title: 'Tannin' }), mordant('alum'), ...body.steps.slice(1)];
    const turned = steps('tanninOrder', 'alum', { ...cotton, steps: chain as never });
    expect(turned.map((s) => s.kind).slice(0, 2)).toEqual(['mordant', 'tannin']);
    expect(steps('tanninOrder', 'tannin', { ...cotton, steps: [...turned] as never }).map((s) => s.kind)).toEqual(
      chain.map((s) => s.kind),
    );
    const bran = steps('fixing', 'bran', { ...cotton, steps: chain as never });
    expect(bran.map((s) => s.key).slice(1, 4)).toEqual(['m', 'fixing', 'd']);
    expect(dosed(bran[2])).toEqual(['bran']);
    expect(steps('fixing', 'none', { ...cotton, steps: [...bran] as never })).toEqual(chain);
    expect(steps('fixing', 'chalk')).toEqual(body.steps);
  });
  it('adds a mordant to what brings its own tannin, and takes it away again', () => {
    const bare = { ...body, steps: body.steps.slice(1).map((s, i) => (i === 0 ? { ...s, after: [] } : s)) };
    const added = replanFor(bare, 'mordantOnTannin', 'always', materials);
    expect(added.steps[0]).toMatchObject({ kind: 'mordant', key: 'addedMordant' });
    expect(replanFor(added, 'mordantOnTannin', 'none', materials).steps.map((s) => s.key)).toEqual(
      bare.steps.map((s) => s.key),
    );
  });
  it('knows when a school changes nothing', () => {
    expect(changesChain(body, replanned('aluminium', 'acetate'))).toBe(false);
    expect(changesChain(body, replanned('aluminium', 'alum10'))).toBe(true);
  });
  it('throws on a school nobody holds', () => expect(() => replanned('mordantHeat', 'tepid')).toThrow(RangeError));
  it('tells where a recipe differs from the house', () => {
    expect(practiceDifferences({ mordantHeat: 'hot', rinse: 'cure' }, { mordantHeat: 'cold', rinse: 'cure' })).toEqual([
      'Heat of the mordant bath: cold, one to seven days, where the house says simmer an hour, cool overnight.',
    ]);
  });
});

describe('versions', () => {
  const was = { ...recipe(), note: 'old' };
  const names = (id: string): string => id.toUpperCase();
  it('finds nothing between a version and itself', () => expect(compareVersions(was, was, names)).toEqual([]));
  it('tells what changed, in dyers’ words', () => {
    const [mordant, extract, dye] = was.steps as [RecipeStep, RecipeStep, RecipeStep];
    const is = {
      ...was,
      liquorRatio: 25,
      note: 'new',
      water: { asks: 'hard' as const, hardnessDh: null },
      steps: [
        { ...mordant, doses: [{ materialId: 'alum', by: 'percentOwf' as const, percentOwf: 12 }], durationMin: 90 },
        extract,
        { ...dye, title: 'Dye slowly' },
        recipeStep({ kind: 'cure', title: 'Cure', durationMin: 10_080 }),
      ],
    };
    expect(compareVersions(was, is, names)).toEqual([
      { where: 'Liquor ratio', was: '1:30', is: '1:25' },
      { where: 'Water', was: 'any', is: 'hard' },
      { where: 'mordant: ALUM', was: '15 % WOF', is: '12 % WOF' },
      { where: 'mordant: time', was: '1 h', is: '1 h 30 min' },
      { where: 'Step', was: 'dye', is: 'Dye slowly' },
      { where: 'Step “Cure”', was: 'not there', is: 'cure, 7 d' },
      { where: 'Note', was: 'old', is: 'new' },
    ]);
  });
  it('tells a step taken out, and steps in another order', () => {
    expect(compareVersions(was, { ...was, steps: was.steps.slice(0, 2) }, names)).toEqual([
      { where: 'Step “dye”', was: 'dye, 1 h', is: 'taken out' },
    ]);
    expect(compareVersions(was, { ...was, steps: [...was.steps].reverse() }, names)).toEqual([
      { where: 'Order of the steps', was: 'mordant → extract → dye', is: 'dye → extract → mordant' },
    ]);
  });
  it.each<[Parameters<typeof mayHaveStatus>[0], Parameters<typeof mayHaveStatus>[1], number, number, RegExp | true]>([
    ['trial', 'proof', 0, 0, true],
    ['proof', 'proven', 2, 1, true],
    ['proof', 'proven', 1, 1, /wants 3 lots or proofs.*1 lot and 1 proof. Dye and judge 1 more/],
    ['trial', 'proven', 3, 0, true],
    ['proven', 'retired', 0, 0, true],
    ['proven', 'trial', 9, 9, /can’t become trial/],
    ['retired', 'proven', 9, 9, /begins again as a trial/],
    ['proven', 'proven', 9, 9, /proven already/],
  ])('%s to %s with %i lots and %i proofs', (from, to, lotsInTolerance, proofsInTolerance, answer) => {
    const may = mayHaveStatus(from, to, { lotsInTolerance, proofsInTolerance }, 3);
    if (answer === true) return expect(may.ok).toBe(true);
    expect(may.ok ? '' : may.message).toMatch(answer);
  });
});
