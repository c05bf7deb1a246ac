import type { StudioFile } from '@vestigia/contract';
import { recipeBody } from '@vestigia/contract';
import type { Lab, StripLevel } from '@vestigia/core';
import { ciede2000, layStrips, levelWords } from '@vestigia/core';
import type { Random } from './random';
import { SETTINGS } from './saltgrass';

type Body = StudioFile['recipeVersions'][number]['body'];
type Step = Body['steps'][number];
interface Teller {
  readonly random: Random;
  readonly endMs: number;
  materialId(name: string): string;
}

const DAY_MS = 86_400_000;
const D65 = { illuminant: 'D65' as const, observer: '10' as const };
const OVERNIGHT_MIN = 720;
const iso = (ms: number): string => new Date(ms).toISOString();
const step = (key: string, kind: Step['kind'], title: string, instruction: string, rest: Partial<Step> = {}): Step => ({
  key,
  kind,
  title,
  instruction,
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: false,
  doses: [],
  ...rest,
});

/** What the house has in hand beside its proven ten: a version at the proof, chains that branch, placed colour, strips. */
export function addRecipesHistory(doc: StudioFile, teller: Teller): void {
  const { random, endMs, materialId } = teller;
  const weld = doc.recipes.find((r) => r.name === 'Weld on alum');
  const first = doc.recipeVersions.find((v) => v.recipeId === weld?.id);
  const [owner, second] = doc.people;
  if (!weld || !first || !owner || !second) throw new Error('the house is not furnished');
  const of = (name: string, percentOwf: number, form?: 'dried' | 'ground') => ({
    materialId: materialId(name),
    by: 'percentOwf' as const,
    percentOwf,
    ...(form ? { form } : {}),
  });
  const version = (
    recipeId: string,
    number: number,
    body: Body,
    daysBefore: number,
    standing: 'trial' | 'proof' = 'trial',
    reason = '',
  ): string => {
    const atMs = endMs - daysBefore * DAY_MS;
    const id = random.id(atMs);
    doc.recipeVersions.push({ id, recipeId, number, body, byId: second.id, at: iso(atMs) });
    doc.standings.push({
      id: random.id(atMs),
      recipeVersionId: id,
      standing: 'trial',
      reason: '',
      byId: second.id,
      at: iso(atMs),
    });
    if (standing === 'proof')
      doc.standings.push({
        id: random.id(atMs),
        recipeVersionId: id,
        standing,
        reason,
        byId: second.id,
        at: iso(atMs + 2 * DAY_MS),
      });
    return id;
  };
  const recipe = (name: string, body: Body, daysBefore: number): string => {
    const id = random.id(endMs - daysBefore * DAY_MS);
    doc.recipes.push({ id, name });
    return version(id, 1, body, daysBefore);
  };
  const colourway = (name: string, recipeVersionId: string, base: string, master: Lab, note: string): void => {
    doc.colourways.push({
      id: random.id(endMs - 30 * DAY_MS),
      name,
      recipeVersionId,
      baseMaterialId: materialId(base),
      master: { ...master, ...D65 },
      toleranceDeltaE: 2.5,
      note,
    });
  };

  const next = version(
    weld.id,
    2,
    {
      ...first.body,
      liquorRatioLeast: 22,
      water: { asks: 'hard', hardnessDh: 8 },
      note: 'Less alum, and the pot left overnight. Hard water wanted: chalk if only the barrel is to hand.',
      practice: { mordantHeat: 'hot', aluminium: 'alum12', finish: 'overnight', straining: 'twice' },
      steps: first.body.steps.map((s) => {
        if (s.kind === 'mordant')
          return {
            ...s,
            doses: [of('Potassium alum', 12), of('Cream of tartar', 5)],
            course: [
              { do: 'raise' as const, toC: 82, minutes: 45 },
              { do: 'hold' as const, toC: 82, minutes: 60 },
              { do: 'cool' as const, minutes: OVERNIGHT_MIN },
            ],
          };
        if (s.kind === 'extract')
          return {
            ...s,
            doses: [of('Weld, dried tops', 90, 'dried')],
            strain: 'muslinTwice' as const,
            wait: { leastMin: 0, mostMin: 2880 },
          };
        if (s.kind === 'dye')
          return {
            ...s,
            finishedBy: 'both' as const,
            course: [
              { do: 'raise' as const, toC: 75, minutes: 40 },
              { do: 'hold' as const, toC: 75, minutes: 30 },
              { do: 'coast' as const, minutes: 60 },
              { do: 'raise' as const, toC: 75, minutes: 15 },
              { do: 'cool' as const, minutes: OVERNIGHT_MIN },
            ],
          };
        return s;
      }),
    },
    60,
    'proof',
    'Two proofs within tolerance, one to go',
  );
  const wanted = { L: 74.6, a: -4.8, b: 51.2 };
  for (const [n, lab] of [
    { L: 74.1, a: -4.5, b: 50.1 },
    { L: 75, a: -5, b: 52.4 },
    { L: 71.2, a: -3.6, b: 46.9 },
  ].entries()) {
    const atMs = endMs - (52 - n * 9) * DAY_MS;
    (doc.proofs ??= []).push({
      id: random.id(atMs),
      recipeVersionId: next,
      wofG: 25,
      lab,
      wanted,
      ...D65,
      toleranceDeltaE: 2,
      deltaE: Math.round(ciede2000(wanted, lab, { kL: 1, kC: 1, kH: 1 }).deltaE * 1000) / 1000,
      note: n === 2 ? 'Barrel water, no chalk: paler.' : '',
      byId: second.id,
      at: iso(atMs),
    });
  }

  const shades = (wool: Lab, linen: Lab, silk: Lab) =>
    (
      [
        ['Rug wool', wool],
        ['Linen scrim', linen],
        ['Silk ribbon', silk],
      ] as const
    ).map(([name, lab]) => ({ baseMaterialId: materialId(name), ...lab, ...D65, note: '' }));
  const three = recipe(
    'One weld pot, three fibres',
    {
      fibres: ['wool', 'linen', 'silk'],
      liquorRatio: 25,
      liquorRatioLeast: 18,
      allowedMetals: ['stainless', 'enamel'],
      water: { asks: 'hard', hardnessDh: null },
      practice: { mordantOnTannin: 'always' },
      note: 'For sets that must sit together: rug, gauze and ribbon from one bath.',
      parts: [
        { key: 'gold', name: 'left gold', sharePercent: 75 },
        { key: 'marsh', name: 'saddened', sharePercent: 25 },
      ],
      expectedShades: shades({ L: 73, a: -4, b: 49 }, { L: 79, a: -3, b: 34 }, { L: 76, a: -5, b: 44 }),
      steps: [
        step(
          'intake',
          'intake',
          'Look them over',
          'Stains, finish, what has been done to them. Tie a knot tag to each.',
          { attended: true, durationMin: 20, lookFor: 'Spots under the lamp' },
        ),
        step('scour wool', 'scour', 'Scour the wool', 'Lukewarm, neutral soap, no rubbing.', {
          after: ['intake'],
          fibres: ['wool', 'silk'],
          temperatureC: 38,
          ceilingC: 45,
          durationMin: 30,
          attended: true,
          doses: [of('Neutral soap', 1.5)],
        }),
        step('scour linen', 'scour', 'Scour the linen', 'Soda ash dissolved first. Simmer, rinse until clear.', {
          after: ['intake'],
          fibres: ['linen'],
          temperatureC: 90,
          ceilingC: 98,
          durationMin: 90,
          usesBath: true,
          doses: [{ materialId: materialId('Soda ash'), by: 'gPerLitre', gPerL: 2 }, of('Neutral soap', 1)],
        }),
        step('tannin', 'tannin', 'Tannin', 'Galls steeped hot, linen in, leave overnight.', {
          after: ['scour linen'],
          fibres: ['linen'],
          temperatureC: 55,
          ceilingC: 65,
          usesBath: true,
          course: [
            { do: 'raise', toC: 55, minutes: 30 },
            { do: 'steep', minutes: OVERNIGHT_MIN },
          ],
          doses: [of('Oak galls, ground', 10)],
        }),
        step('alum', 'mordant', 'Mordant wool and silk', 'Dissolve hot, bath lukewarm before the fibre.', {
          after: ['scour wool'],
          fibres: ['wool', 'silk'],
          temperatureC: 70,
          ceilingC: 75,
          usesBath: true,
          course: [
            { do: 'raise', toC: 70, minutes: 45 },
            { do: 'hold', toC: 70, minutes: 60 },
            { do: 'cool', minutes: OVERNIGHT_MIN },
          ],
          doses: [of('Potassium alum', 12)],
        }),
        step('acetate', 'mordant', 'Mordant the linen', 'Wet cloth in, work it, leave. Chalk bath after.', {
          after: ['tannin'],
          fibres: ['linen'],
          temperatureC: 45,
          ceilingC: 55,
          durationMin: 120,
          usesBath: true,
          doses: [of('Aluminium acetate', 8), of('Chalk', 3)],
        }),
        step(
          'extract',
          'extract',
          'Extract weld',
          'Cover, raise slowly, hold; again with fresh water, both liquors together.',
          {
            after: [],
            temperatureC: 78,
            ceilingC: 80,
            usesBath: true,
            bath: 'dye bath',
            repeats: 2,
            strain: 'muslinTwice',
            doses: [of('Weld, dried tops', 80, 'dried')],
            lookFor: 'Liquor clearly deeper than the shade wanted',
          },
        ),
        step('ph', 'adjustPh', 'Bring it to neutral', 'A third first, stir, test, then the rest in small doses.', {
          after: ['extract'],
          durationMin: 15,
          attended: true,
          usesBath: true,
          bath: 'dye bath',
          targetPh: { low: 6.5, high: 7.2 },
          doses: [{ materialId: materialId('White vinegar'), by: 'toPh', targetPh: 7, reagent: 'vinegar5' }],
        }),
        step('dye', 'dye', 'Dye together', 'All wetted out, in together. Turn gently.', {
          after: ['ph', 'alum', 'acetate'],
          temperatureC: 68,
          ceilingC: 72,
          usesBath: true,
          bath: 'dye bath',
          finishedBy: 'both',
          course: [
            { do: 'raise', toC: 68, minutes: 45 },
            { do: 'hold', toC: 68, minutes: 40 },
            { do: 'coast', minutes: 45 },
          ],
          lookFor: 'Silk leads; lift it when it stands',
        }),
        step('pull', 'pull', 'Pull the golds', 'Lift what stays gold; leave the rest in the pot.', {
          after: ['dye'],
          parts: ['gold'],
          durationMin: 10,
          attended: true,
          finishedBy: 'eye',
        }),
        step('sadden', 'modify', 'Sadden', 'Iron in its own cup, then clear water. Keep them moving.', {
          after: ['dye'],
          parts: ['marsh'],
          durationMin: 6,
          attended: true,
          temperatureC: 40,
          ceilingC: 50,
          usesBath: true,
          finishedBy: 'eye',
          doses: [{ materialId: materialId('Iron sulphate'), by: 'solution', mlPer100G: 100, gPerL: 10 }],
          cautions: ['Out a shade before the one wanted: it goes on until rinsed.'],
        }),
        step('rinse', 'rinse', 'Rinse all', 'Water as warm as the pieces.', {
          after: ['pull', 'sadden'],
          durationMin: 20,
          attended: true,
        }),
        step('dry', 'dry', 'Dry', 'In the loft, out of the sun.', { durationMin: 1440 }),
        step('cure', 'cure', 'Cure', 'Dry and dark.', { durationMin: 10_080, wait: { leastMin: 0, mostMin: 20_160 } }),
        step('wash', 'wash', 'Wash once', 'Neutral soap, lukewarm.', {
          durationMin: 40,
          attended: true,
          temperatureC: 30,
          ceilingC: 40,
        }),
        step('judge', 'judge', 'Judge', 'Dry, in daylight, each against its own shade.', {
          durationMin: 20,
          attended: true,
        }),
      ],
    },
    40,
  );
  colourway(
    'Saltings',
    three,
    'Rug wool',
    { L: 73, a: -4, b: 49 },
    'Rug, gauze and ribbon for the theatre’s marsh scene.',
  );

  const ribbon = doc.recipeVersions.find(
    (v) => doc.recipes.find((r) => r.id === v.recipeId)?.name === 'Weld and a breath of iron',
  )?.body;
  const tideline = recipe(
    'Tide-line ribbon',
    {
      ...(ribbon as Body),
      note: 'Gold with a dark tide line at each end and a bound speckle between. Lay every reel on the printed bands.',
      placed: {
        lengthCm: 90,
        piece: 'length',
        bleedPercent: 3,
        zones: [
          {
            title: 'Bound speckle',
            way: 'bind',
            fromPercent: 35,
            toPercent: 65,
            order: 1,
            minutes: 0,
            waitMin: 0,
            mlPerPiece: null,
            materialId: null,
            spacingCm: 3,
          },
          {
            title: 'Gold all over',
            way: 'dip',
            fromPercent: 0,
            toPercent: 100,
            order: 2,
            minutes: 45,
            waitMin: 30,
            mlPerPiece: null,
            materialId: null,
            spacingCm: null,
          },
          {
            title: 'First tide',
            way: 'modify',
            fromPercent: 0,
            toPercent: 14,
            order: 3,
            minutes: 4,
            waitMin: 10,
            mlPerPiece: null,
            materialId: materialId('Iron sulphate'),
            spacingCm: null,
          },
          {
            title: 'Last tide',
            way: 'modify',
            fromPercent: 86,
            toPercent: 100,
            order: 3,
            minutes: 4,
            waitMin: 10,
            mlPerPiece: null,
            materialId: materialId('Iron sulphate'),
            spacingCm: null,
          },
          {
            title: 'Spray at the edge',
            way: 'spray',
            fromPercent: 14,
            toPercent: 20,
            order: 4,
            minutes: 2,
            waitMin: 0,
            mlPerPiece: 6,
            materialId: materialId('Iron liquor'),
            spacingCm: null,
          },
        ],
      },
    },
    25,
  );
  colourway('Tide Line', tideline, 'Silk ribbon', { L: 61, a: -7, b: 35 }, 'Bookbinder’s headbands.');

  recipe(
    'Stage black',
    {
      fibres: ['linen'],
      liquorRatio: 20,
      allowedMetals: ['stainless'],
      note: 'Whole packets: never half of one. For cloth nobody will wash.',
      steps: [
        step('scour', 'scour', 'Scour hot', 'Soda ash first, then the cloth.', {
          temperatureC: 90,
          ceilingC: 98,
          durationMin: 90,
          usesBath: true,
          doses: [of('Soda ash', 4)],
        }),
        step('black', 'dye', 'Black', 'Packets dissolved in a jug of hot water, then the cloth.', {
          temperatureC: 85,
          ceilingC: 95,
          usesBath: true,
          doses: [{ materialId: materialId('Cloth-black packets'), by: 'packet' }],
        }),
        step('sour', 'rinse', 'Sour rinse', 'A splash of vinegar in the second water.', {
          durationMin: 15,
          attended: true,
          usesBath: true,
          doses: [{ materialId: materialId('White vinegar'), by: 'solution', mlPer100G: 20, gPerL: 50 }],
        }),
        step('dry', 'dry', 'Dry', 'In the loft.', { durationMin: 1440 }),
      ],
    },
    18,
  );

  addStrips(doc, teller, {
    recipeVersionId: first.id,
    recipeName: weld.name,
    body: first.body,
    byId: second.id,
    weldId: materialId('Weld, dried tops'),
    baseId: materialId('Rug wool'),
  });
}

interface Tried {
  readonly recipeVersionId: string;
  readonly recipeName: string;
  readonly body: Body;
  readonly byId: string;
  readonly weldId: string;
  readonly baseId: string;
}

/** Two trials of weld: how much of it, and which harvest. */
function addStrips(
  doc: StudioFile,
  { random, endMs }: Teller,
  { recipeVersionId, recipeName, body, byId, weldId, baseId }: Tried,
): void {
  const base = doc.materials.find((m) => m.id === baseId);
  const known = doc.materials.map((m) => ({ id: m.id, name: m.name, measure: m.measure, packet: null, spoons: [] }));
  const balance = {
    name: SETTINGS.balanceName,
    resolutionG: SETTINGS.balanceResolutionG,
    capacityG: SETTINGS.balanceCapacityG,
  };
  const trial = (
    name: string,
    factor: 'dose' | 'source',
    totalG: number,
    levels: StripLevel[],
    labs: readonly Lab[],
    daysBefore: number,
    note: string,
  ): void => {
    const atMs = endMs - daysBefore * DAY_MS;
    const laid = layStrips(
      { factor, materialId: weldId, totalG, levels },
      { id: recipeVersionId, recipeName, number: 1, ...recipeBody.parse(body) },
      known,
      { balance, water: null },
    );
    if (!laid.ok) throw new Error(laid.sentence);
    const id = random.id(atMs);
    (doc.stripTrials ??= []).push({
      id,
      name,
      recipeVersionId,
      baseMaterialId: baseId,
      waterId: doc.waters[0]?.id ?? null,
      factor,
      materialId: weldId,
      totalMg: totalG * 1000,
      levels,
      laid: laid.strips as NonNullable<StudioFile['stripTrials']>[number]['laid'],
      note,
      byId,
      at: iso(atMs),
    });
    labs.forEach((lab, i) => {
      const readMs = atMs + 4 * DAY_MS + i * 120_000;
      (doc.stripReadings ??= []).push({
        id: random.id(readMs),
        trialId: id,
        number: i + 1,
        lab,
        ...D65,
        note: '',
        replacesId: null,
        byId,
        at: iso(readMs),
      });
    });
  };
  if (!base) throw new Error('no base to cut strips of');
  const doses = [25, 50, 75, 100, 150, 200].map((value) => ({ value, refId: null, label: levelWords('dose', value) }));
  trial(
    'Weld, how much',
    'dose',
    72,
    doses,
    [
      { L: 80.9, a: -2.6, b: 29.8 },
      { L: 78.2, a: -3.9, b: 40.6 },
      { L: 76.2, a: -4.5, b: 47 },
      { L: 74.8, a: -4.7, b: 50.9 },
      { L: 73, a: -4.4, b: 55.2 },
      { L: 71.9, a: -3.9, b: 57.1 },
    ],
    33,
    'Levels off past 150 %.',
  );
  const jars = doc.stockLots.filter((s) => s.materialId === weldId).slice(0, 3);
  // A studio that has just begun has one harvest.
  if (jars.length > 1)
    trial(
      'Weld, which harvest',
      'source',
      36,
      jars.map((j) => ({ value: null, refId: j.id, label: j.tag })),
      [
        { L: 74.5, a: -4.8, b: 51.5 },
        { L: 77, a: -4.2, b: 44.3 },
      ].slice(0, jars.length),
      12,
      'The wet summer’s is weak.',
    );
}
