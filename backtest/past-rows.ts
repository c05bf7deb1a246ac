import type { StudioFile } from '@vestigia/contract';
import { figure } from '@vestigia/core';
import type { Ids } from './ids';
import { dayOf, fibresOf, metalOf, stepsOf, taken, under, within } from './studio-rows';
import type { Dyeing, PastDyeing, Setting } from './world';

type Rows<K extends keyof StudioFile> = NonNullable<StudioFile[K]>;
type Lot = Rows<'lots'>[number];
type Entry = Rows<'runEntries'>[number];
type Weighing = Lot['plan']['steps'][number]['weighings'][number];

const MINUTE_MS = 60_000;
const STEP_KIND = { mordant: 'mordant', dye: 'dye', modifier: 'modify' } as const;
const plain = (value: number, unit: string) => figure(value, unit, '', []);
const mgOf = (percentOwf: number, fibreG: number): number => Math.round((percentOwf / 100) * fibreG * 1000);

/** How strong each jar was told to be, 1 as the reference: a plan weighs more out of a weaker one. */
const toldOf = (setting: Setting): ReadonlyMap<string, number> =>
  new Map(
    setting.materials.flatMap((m) =>
      m.stockLots.map((j, i) => [j.id, i === 0 ? 1 : (j.knownStrengthPercent ?? 100) / 100] as const),
    ),
  );

/** Rows of a past: lots and strike-offs with their plans and what was written down at the bench; strips as trials. */
export function pastRows(setting: Setting, past: readonly PastDyeing[], ids: Ids, byId: string) {
  const isLot = (p: PastDyeing): boolean => p.recorded.purpose !== 'strip' && p.recorded.colourwayId !== null;
  const lots = past.filter(isLot);
  const strips = past.filter((p) => !isLot(p));
  const told = toldOf(setting);
  return {
    lots: lots.map((p, i) => lotOf(setting, p, i + 1, ids, byId, told)),
    runEntries: lots.flatMap((p) => entriesOf(p, ids, byId)),
    readings: lots.flatMap((p) =>
      p.readings.map((r, i) => ({
        id: ids.of('reading', `${p.id} ${i}`),
        lotId: ids.of('lot', p.id),
        batch: 1,
        dip: p.recorded.dip > 1 ? p.recorded.dip : null,
        state: r.state,
        ...labOf(r.lab),
        taken: taken(r.reflectance),
        note: '',
        replacesId: null,
        ...who(p, byId),
      })),
    ),
    recipes: strips.map((p, i) => ({ id: ids.of('recipe', p.id), name: `Recipe of strip ${i + 1}` })),
    recipeVersions: strips.map((p) => ({
      id: ids.of('version', p.id),
      recipeId: ids.of('recipe', p.id),
      number: 1,
      body: {
        fibres: ['wool' as const],
        liquorRatio: within(p.recorded.liquorRatio, 3, 200),
        allowedMetals: ['stainless' as const],
        note: '',
        steps: stepsOf(ids, p.recorded),
      },
      ...who(p, byId),
    })),
    stripTrials: strips.map((p, i) => trialOf(p, `Strip ${i + 1}`, ids, byId)),
    stripReadings: strips.flatMap((p) =>
      p.readings
        .filter((r) => r.state !== 'wet')
        .slice(0, 1)
        .map((r) => ({
          id: ids.of('reading', p.id),
          trialId: ids.of('trial', p.id),
          number: 1,
          ...labOf(r.lab),
          taken: taken(r.reflectance),
          note: '',
          replacesId: null,
          ...who(p, byId),
        })),
    ),
  };
}

const startOf = (p: PastDyeing): string => `${dayOf(p.recorded.on)}T08:00:00.000Z`;
const who = (p: PastDyeing, byId: string) => ({ byId, at: startOf(p) });
const labOf = (lab: Parameters<typeof under>[0]) => {
  const { illuminant, observer, ...own } = under(lab);
  return { lab: own, illuminant, observer };
};

/** What is weighed at a stage, jar by jar. */
function weighingsOf(
  { doses, fibreG }: Pick<Dyeing, 'doses' | 'fibreG'>,
  stage: string,
  ids: Ids,
  told: ReadonlyMap<string, number>,
): Weighing[] {
  const own = doses.filter((d) => d.stage === stage);
  return [...new Set(own.map((d) => d.materialId))].map((materialId) => {
    const picks = own
      .filter((d) => d.materialId === materialId)
      .map((d) => ({
        stockLotId: ids.of('jar', d.stockLotId),
        amount: Math.round(mgOf(d.percentOwf, fibreG) / (told.get(d.stockLotId) ?? 1)),
      }));
    return {
      batch: 1,
      materialId: ids.of('material', materialId),
      materialName: materialId,
      target: plain(picks.reduce((sum, p) => sum + p.amount, 0) / 1000, 'g'),
      tolerance: 0,
      picks,
    };
  });
}

function lotOf(
  setting: Setting,
  p: PastDyeing,
  number: number,
  ids: Ids,
  byId: string,
  told: ReadonlyMap<string, number>,
): Lot {
  const { asked, recorded } = p;
  const base = setting.bases.find((b) => b.id === recorded.baseId);
  const vessel = setting.vessels.find((v) => v.id === recorded.vesselId);
  const water = setting.waters.find((w) => w.id === recorded.waterId);
  const baseId = ids.of('base', recorded.baseId);
  const wof = plain(recorded.fibreG, 'g');
  return {
    id: ids.of('lot', p.id),
    number,
    colourwayId: ids.of('colourway', recorded.colourwayId ?? ''),
    recipeVersionId: ids.of('version', recorded.colourwayId ?? ''),
    baseMaterialId: baseId,
    waterId: ids.of('water', recorded.waterId),
    water: water ? { ...water, name: 'Water', id: ids.of('water', water.id) } : null,
    reorderOfId: null,
    quantityText: `${recorded.fibreG} g`,
    plan: {
      pieces: 1,
      pieceWeightG: recorded.fibreG,
      wof,
      liquorRatio: recorded.liquorRatio,
      groups: [
        {
          key: 'g',
          baseId,
          baseName: base?.name ?? '',
          fibre: fibresOf(setting).get(base?.fibre ?? '') ?? 'wool',
          pieceWord: 'hank',
          part: '',
          partName: '',
          pieces: 1,
          pieceWeightG: recorded.fibreG,
        },
      ],
      batches: [
        {
          number: 1,
          vesselId: ids.of('vessel', recorded.vesselId),
          vesselName: vessel?.name ?? '',
          metal: metalOf(vessel?.metal ?? ''),
          pieces: 1,
          wof,
          liquor: plain(recorded.fibreG * recorded.liquorRatio, 'ml'),
          fillLevel: plain(50, '%'),
        },
      ],
      materials: [
        {
          materialId: baseId,
          name: base?.name ?? '',
          total: wof,
          picks: [{ stockLotId: ids.of('jar', recorded.baseLotId), amount: recorded.fibreG * 1000 }],
          short: 0,
          notes: [],
        },
      ],
      steps: stepsOf(ids, asked).map(({ doses: _doses, cautions: _cautions, ...step }, index) => ({
        ...step,
        after: [],
        wait: null,
        lookEveryMin: undefined,
        index,
        cautions: [],
        weighings: weighingsOf(asked, stageOf(step.kind), ids, told),
      })),
      cautions: [],
    },
    extras: { strikeOff: recorded.purpose === 'strikeOff', ...correctedBy(setting, asked, ids) },
    factors: [],
    note: '',
    offBooks: true,
    ...who(p, byId),
  };
}

/** What a lot was asked for otherwise than its recipe says. */
function correctedBy(setting: Setting, asked: Dyeing, ids: Ids) {
  const recipe = setting.colourways.find((c) => c.id === asked.colourwayId);
  const inAll = (doses: readonly { readonly materialId: string; readonly percentOwf: number }[], id: string): number =>
    doses.filter((d) => d.materialId === id).reduce((sum, d) => sum + d.percentOwf, 0);
  const shares = [...new Set(asked.doses.map((d) => d.materialId))].map((id) => ({
    id,
    asked: inAll(asked.doses, id),
    recipe: inAll(recipe?.doses ?? [], id),
  }));
  return {
    corrected: shares
      .filter((s) => s.recipe > 0 && Math.abs(s.asked / s.recipe - 1) > 1e-9)
      .map((s) => ({ materialId: ids.of('material', s.id), share: Math.min(10, Math.max(0.1, s.asked / s.recipe)) })),
    added: shares
      .filter((s) => s.recipe === 0)
      .map((s) => ({ materialId: ids.of('material', s.id), percentOwf: s.asked })),
  };
}

const stageOf = (kind: string): string => Object.entries(STEP_KIND).find(([, k]) => k === kind)?.[0] ?? '';
/** Each step begun, weighed out, followed by a probe, and finished, one after another. */
function entriesOf(p: PastDyeing, ids: Ids, byId: string): Entry[] {
  const { asked, recorded } = p;
  let ms = Date.parse(startOf(p));
  return stepsOf(ids, asked).flatMap((step, stepIndex): Entry[] => {
    const stage = stageOf(step.kind);
    const course = recorded.courses.find((c) => c.stage === stage);
    const at = new Date(ms).toISOString();
    ms += (course?.points.at(-1)?.minute ?? step.durationMin) * MINUTE_MS;
    const end = new Date(ms).toISOString();
    let n = 0;
    const entry = (when: string) => ({
      id: ids.of('entry', `${p.id} ${stepIndex} ${(n += 1)}`),
      lotId: ids.of('lot', p.id),
      stepIndex,
      replacesId: null,
      text: null,
      at: when,
      recordedAt: when,
      byId,
    });
    const bare = { temperatureC: null, weighing: null } as const;
    return [
      { ...entry(at), ...bare, kind: 'start' as const },
      ...recorded.doses
        .filter((d) => d.stage === stage)
        .map((d) => ({
          ...entry(at),
          kind: 'weigh' as const,
          temperatureC: null,
          weighing: {
            batch: 1,
            materialId: ids.of('material', d.materialId),
            stockLotId: ids.of('jar', d.stockLotId),
            amount: mgOf(d.percentOwf, recorded.fibreG),
          },
        })),
      ...(course
        ? [
            {
              ...entry(end),
              kind: 'temperature' as const,
              weighing: null,
              temperatureC: Math.max(...course.points.map((q) => q.celsius)),
              detail: {
                course: course.points.map((q) => ({ minute: q.minute, temperatureC: within(q.celsius, -20, 130) })),
              },
            },
          ]
        : []),
      { ...entry(end), ...bare, kind: 'finish' as const },
    ];
  });
}

/** A strip is a trial of one, by a recipe of its own. */
function trialOf(p: PastDyeing, name: string, ids: Ids, byId: string): Rows<'stripTrials'>[number] {
  const { recorded } = p;
  const steps = stepsOf(ids, recorded);
  return {
    id: ids.of('trial', p.id),
    name,
    recipeVersionId: ids.of('version', p.id),
    baseMaterialId: ids.of('base', recorded.baseId),
    waterId: ids.of('water', recorded.waterId),
    factor: 'dose',
    materialId: null,
    totalMg: Math.round(recorded.fibreG * 1000),
    levels: [],
    note: '',
    layout: [
      {
        number: 1,
        label: name,
        knots: [1],
        weight: plain(recorded.fibreG, 'g'),
        minutes: null,
        weighings: steps.flatMap((s) =>
          weighingsOf(recorded, stageOf(s.kind), ids, new Map()).map(({ materialId, materialName, target, picks }) => ({
            stepTitle: s.title,
            materialId,
            materialName,
            target,
            advice: [],
            picks,
          })),
        ),
      },
    ],
    ...who(p, byId),
  };
}
