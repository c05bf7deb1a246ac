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
const [LEAST_PERCENT, MOST_LEGS] = [0.001, 12];
/** More than any past takes out of a jar, mg. */
const PLENTY_MG = 10 ** 10;

/** A colour as a studio keeps it: what is read beyond the solid of real colours is cut off. */
export const under = ({ L, a, b }: Lab) => ({
  L: within(L, 0, 100),
  a: within(a, -128, 128),
  b: within(b, -128, 128),
  ...UNDER,
});
/** Reflectance as a studio keeps it. */
const bandsOf = (reflectance: readonly number[] | undefined) => reflectance?.map((r) => within(r, 0, 1.2)) ?? null;
export const taken = (reflectance: readonly number[] | undefined) =>
  takenBy(reflectance ? 'spectrum' : 'reader', { spectrum: bandsOf(reflectance) });

type FibreKind = (typeof FIBRE_KINDS)[number];
/** A world’s fibres as a studio knows them: those of another name each get a kind that no other has. */
export function fibresOf({ bases }: Setting): ReadonlyMap<string, FibreKind> {
  const names = [...new Set(bases.map((b) => b.fibre))];
  const left = FIBRE_KINDS.filter((f) => !names.includes(f));
  return new Map(names.map((name) => [name, FIBRE_KINDS.find((f) => f === name) ?? left.shift() ?? 'wool']));
}
export const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
/** Its date alone. */
export const dayOf = (on: string): string => new Date(Date.parse(on)).toISOString().slice(0, 10);
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
    return [
      {
        do: way,
        toC: Math.round(within(p.celsius, 0, 110)),
        minutes: Math.max(1, Math.round(p.minute - before.minute)),
      },
    ];
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
    const own = doses.filter((d) => d.stage === stage && d.percentOwf > LEAST_PERCENT);
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
        // What a recipe can’t hold in legs is followed by the probe alone.
        course: legsOf(course).slice(0, MOST_LEGS),
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
  const fibres = fibresOf(setting);
  // Names and tags are told apart here by number: a world may call two things alike.
  let jarsNamed = 0;
  const jar = (materialId: string, id: string, receivedOn: string, facts: object) => ({
    id: ids.of('jar', id),
    materialId,
    tag: `JAR-${(jarsNamed += 1)}`,
    receivedOn: dayOf(receivedOn),
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
        colourSpectrum: bandsOf(l.undyedReflectance),
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
        i === 0
          ? { reference: true, strengthPercent: 100 }
          : { strengthPercent: j.knownStrengthPercent === null ? null : within(j.knownStrengthPercent, 1, 1000) },
      ),
    ),
  );
  const body = (c: Setting['colourways'][number]) => ({
    fibres: [...new Set(fibres.values())],
    liquorRatio: within(c.liquorRatio, 3, 200),
    allowedMetals: [...VESSEL_METALS],
    note: '',
    steps: stepsOf(ids, c),
  });
  return {
    vessels: setting.vessels.map((v, i) => ({
      id: ids.of('vessel', v.id),
      name: `Vessel ${i + 1}`,
      metal: metalOf(v.metal),
      workingMl: within(v.litres * 1000, 100, 500_000),
      note: '',
    })),
    waters: setting.waters.map((w, i) => ({
      id: ids.of('water', w.id),
      name: `Water ${i + 1}`,
      ph: within(w.ph, 0, 14),
      hardnessDh: within(w.hardnessDh, 0, 100),
      ironMgPerL: within(w.ironMgPerL, 0, 100),
      note: '',
    })),
    materials: [
      ...setting.bases.map((b, i) => ({
        id: ids.of('base', b.id),
        name: `Base ${i + 1}`,
        kind: 'fibre' as const,
        measure: 'weight' as const,
        hazards: [],
        note: '',
        base: {
          fibre: fibres.get(b.fibre) ?? 'wool',
          pieceWord: 'hank',
          usualPieceWeightG: 100,
          undyed: under(b.lots[0]?.undyed ?? { L: 86, a: 0, b: 9 }),
          undyedSpectrum: bandsOf(b.lots[0]?.undyedReflectance),
        },
      })),
      ...setting.materials.map((m, i) => ({
        id: ids.of('material', m.id),
        name: `Material ${i + 1}`,
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
    recipes: setting.colourways.map((c, i) => ({ id: ids.of('recipe', c.id), name: `Recipe ${i + 1}` })),
    recipeVersions: setting.colourways.map((c) => ({
      id: ids.of('version', c.id),
      recipeId: ids.of('recipe', c.id),
      number: 1,
      body: body(c),
      ...who,
    })),
    colourways: setting.colourways.map((c, i) => ({
      id: ids.of('colourway', c.id),
      name: `Colourway ${i + 1}`,
      recipeVersionId: ids.of('version', c.id),
      baseMaterialId: ids.of('base', c.baseId),
      master: under(c.master),
      toleranceDeltaE: within(c.toleranceDeltaE00, 0.1, 20),
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
