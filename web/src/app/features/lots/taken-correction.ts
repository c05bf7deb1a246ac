import type { LotExtras } from '@vestigia/contract';
import type { Dyeing, LeverTurned, MatchDose, ReorderWay } from '@vestigia/core';
import {
  LEAST_CORRECTED_SHARE,
  LEAST_DYE_TIME_SHARE,
  MOST_CORRECTED_SHARE,
  MOST_DYE_TIME_SHARE,
  unknownLotOf,
} from '@vestigia/core';

/** What a correction asks of the plan. */
export interface TakenCorrection extends Pick<LotExtras, 'corrected' | 'added' | 'outOf' | 'dyeTimeShare'> {
  readonly waterId: string | null;
}

/** What a plan was corrected by. */
export type Corrected = Omit<TakenCorrection, 'waterId'>;

/** A plan as its recipe has it. */
export const NOT_CORRECTED: Corrected = { corrected: [], added: [], outOf: [], dyeTimeShare: 1 };

/** How strong a plan takes each jar, against the reference: 1 where nothing was tested. */
export type DosedAs = ReadonlyMap<string, number>;

/** A stay in the dye that is turned by less isn’t. */
const ANOTHER_TIME = 0.03;
/** A jar’s part in a material that differs by less is the same. */
const SAME_PART = 0.03;
/** Corrected again and again a plan comes to an end: what it can take, it takes, and is foretold anew. */
const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
const toThousandth = (value: number): number => Math.max(0.001, Math.round(value * 1000) / 1000);

interface Part {
  readonly stockLotId: string;
  readonly part: number;
}

function partsOf(doses: readonly MatchDose[], materialId: string): Part[] {
  const own = doses.filter((d) => d.materialId === materialId);
  const whole = own.reduce((sum, d) => sum + d.percentOwf, 0);
  return whole > 0 ? own.map(({ stockLotId, percentOwf }) => ({ stockLotId, part: percentOwf / whole })) : [];
}

const isSameMix = (x: readonly Part[], y: readonly Part[]): boolean =>
  x.length === y.length &&
  x.every((p) => y.some((q) => q.stockLotId === p.stockLotId && Math.abs(q.part - p.part) < SAME_PART));

/**
 * What the plan takes of a way. A way says what is weighed; a plan says what the recipe means, and weighs more of a weaker
 * jar.
 */
export function correctionOf(way: ReorderWay, plan: Dyeing, dosedAs: DosedAs): TakenCorrection {
  const isAfterDye = (t: LeverTurned): boolean =>
    way.doses.some((d) => d.stockLotId === t.stockLotId && d.materialId === t.materialId && d.stage === 'modifier');
  const isAdded = (t: LeverTurned): boolean => t.share === null;
  const worthOf = (parts: readonly Part[]): number =>
    parts.reduce((sum, p) => sum + p.part * (dosedAs.get(p.stockLotId) ?? 1), 0);
  const own = [...new Set(way.turned.filter((t) => !isAdded(t)).map((t) => t.materialId))].map((materialId) => ({
    materialId,
    share: way.turned.find((t) => t.materialId === materialId)?.share ?? 1,
    now: partsOf(plan.doses, materialId),
    then: partsOf(way.doses, materialId),
  }));
  const added = way.turned.filter(isAdded);
  return {
    corrected: own.map(({ materialId, share, now, then }) => ({
      materialId,
      share: toThousandth(share * (worthOf(then) / Math.max(1e-9, worthOf(now)))),
    })),
    added: added.map((t) => ({
      materialId: t.materialId,
      percentOwf: toThousandth(t.percentOwf * (dosedAs.get(t.stockLotId) ?? 1)),
      afterDye: isAfterDye(t),
    })),
    outOf: [
      ...own.flatMap(({ materialId, now, then }) =>
        isSameMix(now, then) ? [] : then.map((p) => ({ materialId, ...p })),
      ),
      ...added.map(({ materialId, stockLotId }) => ({ materialId, stockLotId, part: 1 })),
      ...(way.baseLotId === null ? [] : [{ materialId: plan.baseId, stockLotId: way.baseLotId, part: 1 }]),
    ].map((o) => ({ ...o, part: toThousandth(o.part) })),
    dyeTimeShare: Math.abs(way.timeShare - 1) > ANOTHER_TIME ? Math.round(way.timeShare * 100) / 100 : 1,
    waterId: way.waterId,
  };
}

/**
 * What a strike-off of a way asks of its plan: the same, out of the very jars and the lot of the base that the whole lot is
 * to be dyed from, since that is what it is to show.
 */
export function strikeOffOf(way: ReorderWay, plan: Dyeing, dosedAs: DosedAs): TakenCorrection {
  const named = [...new Set(way.doses.map((d) => d.materialId))].flatMap((materialId) =>
    partsOf(way.doses, materialId).map((p) => ({ materialId, ...p, part: toThousandth(p.part) })),
  );
  const baseLotId = way.baseLotId ?? plan.baseLotId;
  const base =
    baseLotId === unknownLotOf(plan.baseId) ? [] : [{ materialId: plan.baseId, stockLotId: baseLotId, part: 1 }];
  return { ...correctionOf(way, plan, dosedAs), outOf: [...named.filter((o) => dosedAs.has(o.stockLotId)), ...base] };
}

/** Corrected again, a plan is corrected further; jars are those that were asked for last. */
export function correctedFurther(now: Corrected, { corrected, added, outOf, dyeTimeShare }: Corrected): Corrected {
  const before = new Map(now.corrected.map((c) => [c.materialId, c.share]));
  const isNew = (materialId: string, all: readonly { readonly materialId: string }[]): boolean =>
    all.every((x) => x.materialId !== materialId);
  return {
    corrected: [
      ...now.corrected.filter((c) => isNew(c.materialId, corrected)),
      ...corrected.map((c) => ({
        ...c,
        share: within(
          toThousandth(c.share * (before.get(c.materialId) ?? 1)),
          LEAST_CORRECTED_SHARE,
          MOST_CORRECTED_SHARE,
        ),
      })),
    ],
    added: [...now.added.filter((a) => isNew(a.materialId, added)), ...added],
    outOf: [...now.outOf.filter((o) => isNew(o.materialId, outOf)), ...outOf],
    dyeTimeShare: within(now.dyeTimeShare * dyeTimeShare, LEAST_DYE_TIME_SHARE, MOST_DYE_TIME_SHARE),
  };
}
