import type { StudioFile } from '@vestigia/contract';
import { FIBRE_KINDS, VESSEL_METALS, takenBy } from '@vestigia/core';
import type { Ids } from './ids';
import type { Lab, Setting, StageCourse } from './world';

type Rows<K extends keyof StudioFile> = NonNullable<StudioFile[K]>;
type Step = Rows<'recipeVersions'>[number]['body']['steps'][number];

const UNDER = { illuminant: 'D65', observer: '10' } as const;
const KIND_OF = { mordant: 'mordant', dye: 'dye', modifier: 'modify' } as const;
const TITLE_OF = { mordant: 'Mordant', dye: 'Dye', modifier: 'Modify' } as const;
const STAGES = ['mordant', 'dye', 'modifier'] as const;
/** More than any past takes out of a jar, mg. */
const PLENTY_MG = 10 ** 10;

/** A colour as a studio keeps it: what is read beyond the solid of real colours is cut off. */
export const under = ({ L, a, b }: Lab) => ({ L: Math.min(100, Math.max(0, L)), a, b, ...UNDER });
export const taken = (reflectance: readonly number[] | undefined) =>
  reflectance ? takenBy('spectrum', { spectrum: reflectance }) : takenBy('reader', {});

const fibreOf = (fibre: string) => FIBRE_KINDS.find((f) => f === fibre) ?? 'wool';
/** Steel that takes no part is stainless. */
export const metalOf = (metal: string) => VESSEL_METALS.find((m) => m === metal) ?? 'stainless';

/** Legs of a course between its corner points. */
export const legsOf = (course: StageCourse | undefined) =>
  (course?.points ?? []).flatMap((p, i, all) => {
    const before = all[i - 1];
    if (!before || p.minute <= before.minute) return [];
    const way =
      p.celsius > before.celsius
        ? ('raise' as const)
        : p.celsius < before.celsius
          ? ('cool' as const)
          : ('hold' as const);
    return [{ do: way, toC: Math.round(p.celsius), minutes: Math.max(1, Math.round(p.minute - before.minute)) }];
  });

/** A chain as a recipe is written: mordant, dye, modify, each in a bath of its own with its doses and its course. */
export function stepsOf(
  ids: Ids,
  {
    doses,
    courses,
  }: {
    readonly doses: readonly { readonly stage: string; readonly materialId: string; readonly percentOwf: number }[];
    readonly courses: readonly StageCourse[];
  },
): Step[] {
  return STAGES.flatMap((stage): Step[] => {
    const own = doses.filter((d) => d.stage === stage);
    const course = courses.find((c) => c.stage === stage);
    if (own.length === 0 && !course) return [];
    return [
      {
        kind: KIND_OF[stage],
        title: TITLE_OF[stage],
        instruction: '',
        durationMin: Math.round(course?.points.at(-1)?.minute ?? 60),
        attended: false,
        lookFor: '',
        usesBath: true,
        course: legsOf(course),
        doses: own.map(({ materialId, percentOwf }) => ({
          by: 'percentOwf' as const,
          materialId: ids.of('material', materialId),
          percentOwf,
        })),
      },
    ];
  });
}

/** What a studio owns, as rows of its file. */
export function studioRows(setting: Setting, ids: Ids, { byId, at }: { byId: string; at: string }) {
  const who = { byId, at };
  const jar = (materialId: string, id: string, receivedOn: string, facts: object) => ({
    id: ids.of('jar', id),
    materialId,
    tag: id.slice(0, 20),
    receivedOn,
    bestBefore: null,
    place: '',
    source: '',
    note: '',
    facts,
  });
  const baseJars = setting.bases.flatMap((b) =>
    b.lots.map((l) =>
      jar(ids.of('base', b.id), l.id, '1970-01-01', {
        colour: under(l.undyed),
        colourSpectrum: l.undyedReflectance ?? null,
      }),
    ),
  );
  // Strengths are told against the first lot of each material.
  const jars = setting.materials.flatMap((m) =>
    m.stockLots.map((j, i) =>
      jar(
        ids.of('material', m.id),
        j.id,
        j.receivedOn,
        i === 0 ? { reference: true, strengthPercent: 100 } : { strengthPercent: j.knownStrengthPercent },
      ),
    ),
  );
  const body = (c: Setting['colourways'][number]) => ({
    fibres: [fibreOf(setting.bases.find((b) => b.id === c.baseId)?.fibre ?? '')],
    liquorRatio: c.liquorRatio,
    allowedMetals: [...VESSEL_METALS],
    note: '',
    steps: stepsOf(ids, c),
  });
  return {
    vessels: setting.vessels.map((v) => ({
      id: ids.of('vessel', v.id),
      name: v.name,
      metal: metalOf(v.metal),
      workingMl: v.litres * 1000,
      note: '',
    })),
    waters: setting.waters.map(({ id, ...w }) => ({ id: ids.of('water', id), ...w, note: '' })),
    materials: [
      ...setting.bases.map((b) => ({
        id: ids.of('base', b.id),
        name: `Base ${b.name}`,
        kind: 'fibre' as const,
        measure: 'weight' as const,
        hazards: [],
        note: '',
        base: {
          fibre: fibreOf(b.fibre),
          pieceWord: 'hank',
          usualPieceWeightG: 100,
          undyed: under(b.lots[0]?.undyed ?? { L: 86, a: 0, b: 9 }),
          undyedSpectrum: b.lots[0]?.undyedReflectance ?? null,
        },
      })),
      ...setting.materials.map((m) => ({
        id: ids.of('material', m.id),
        name: m.name,
        kind: m.kind,
        measure: 'weight' as const,
        hazards: [],
        note: '',
        base: null,
      })),
    ],
    stockLots: [...baseJars, ...jars],
    movements: [...baseJars, ...jars].map((j) => ({
      id: ids.of('movement', j.id),
      stockLotId: j.id,
      kind: 'receive' as const,
      amount: PLENTY_MG,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note: '',
      ...who,
    })),
    recipes: setting.colourways.map((c) => ({ id: ids.of('recipe', c.id), name: `Recipe of ${c.name}` })),
    recipeVersions: setting.colourways.map((c) => ({
      id: ids.of('version', c.id),
      recipeId: ids.of('recipe', c.id),
      number: 1,
      body: body(c),
      ...who,
    })),
    colourways: setting.colourways.map((c) => ({
      id: ids.of('colourway', c.id),
      name: c.name,
      recipeVersionId: ids.of('version', c.id),
      baseMaterialId: ids.of('base', c.baseId),
      master: under(c.master),
      toleranceDeltaE: c.toleranceDeltaE00,
      note: '',
    })),
    masters: setting.colourways.map((c) => ({
      id: ids.of('master', c.id),
      colourwayId: ids.of('colourway', c.id),
      lab: under(c.master),
      reason: '',
      taken: taken(c.masterReflectance),
      fromLotId: null,
      ...who,
    })),
  };
}
