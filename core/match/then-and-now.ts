import { worded } from '../words/worded';
import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
import type { StockMeasure } from '../quantity/amount';

/** What made a lot, or would make the next: the factors that move a colour, in words. */
export interface LotConditions {
  readonly recipe: { readonly id: string; readonly name: string };
  readonly base: readonly MaterialSource[];
  readonly materials: readonly MaterialUse[];
  readonly water: {
    readonly id: string;
    readonly name: string;
    readonly ph: number | null;
    readonly hardnessDh: number | null;
  } | null;
  readonly vessels: readonly { readonly id: string; readonly name: string; readonly metal: string }[];
  readonly liquorRatio: number;
}

/** One stock lot that gave material. */
export interface MaterialSource {
  readonly stockLotId: string;
  readonly tag: string;
}

/** What a lot took of a material, and from which stock lots. */
export interface MaterialUse {
  readonly materialId: string;
  readonly name: string;
  /** What was dosed for 100 g of dry fibre: g, ml or packets, as it is measured. */
  readonly percentOwf: number;
  /**
   * The same at full strength: each stock lot's share by its tested strength, untested ones as the reference lot. As
   * dosed where absent.
   */
  readonly worthPercentOwf?: number | undefined;
  readonly measure: StockMeasure;
  readonly sources: readonly MaterialSource[];
}

/** One thing set then beside now, with what its difference does. */
export interface Factor {
  readonly name: string;
  readonly then: string;
  readonly now: string;
  /** What had been planned then, where it came otherwise. */
  readonly planned?: string | undefined;
  readonly same: boolean;
  /** What a difference may do; empty where there is none. */
  readonly effect: string;
}

/** Doses closer than this, relative to what was used, count as the same. */
const SAME_DOSE_SHARE = 0.02;

const DOSE_UNIT: Readonly<Record<StockMeasure, string>> = worded(() => ({
  weight: '% WOF',
  volume: $localize`ml per 100 g`,
  pieces: $localize`packets per 100 g`,
}));
const tags = (sources: readonly MaterialSource[]): string =>
  sources.length === 0 ? 'none' : [...new Set(sources.map((s) => s.tag))].sort().join(' + ');
const sameIds = (x: readonly string[], y: readonly string[]): boolean =>
  [...new Set(x)].sort().join() === [...new Set(y)].sort().join();
const sameSources = (x: readonly MaterialSource[], y: readonly MaterialSource[]): boolean =>
  sameIds(
    x.map((s) => s.stockLotId),
    y.map((s) => s.stockLotId),
  );

/**
 * Sets then beside now, factor by factor, in the order the work meets them. Differences are named with what they may do
 * to the shade; how much is not said, since nothing here has measured it.
 * @param then as it really was
 * @param planned as it had been planned then, where that is known: told where it came otherwise
 */
export function compareThenAndNow(then: LotConditions, now: LotConditions, planned?: LotConditions): Factor[] {
  const factors = compareTwo(then, now);
  if (planned === undefined) return factors;
  const wanted = new Map(compareTwo(planned, then).map((f) => [f.name, f]));
  return factors.map((f) => {
    const was = wanted.get(f.name);
    return was === undefined || was.same ? f : { ...f, planned: was.then };
  });
}

function compareTwo(then: LotConditions, now: LotConditions): Factor[] {
  const factor = (name: string, was: string, is: string, same: boolean, effect: string): Factor => ({
    name,
    then: was,
    now: is,
    same,
    effect: same ? '' : effect,
  });
  return [
    factor(
      $localize`Recipe`,
      then.recipe.name,
      now.recipe.name,
      then.recipe.id === now.recipe.id,
      $localize`Another version of the recipe: read what changed between them before the lot.`,
    ),
    factor(
      $localize`Base lot`,
      tags(then.base),
      tags(now.base),
      sameSources(then.base, now.base),
      $localize`Another lot of the base may be whiter or yellower and drink the dye faster or slower.`,
    ),
    ...materialFactors(then.materials, now.materials),
    factor(
      $localize`Water`,
      waterLabel(then.water),
      waterLabel(now.water),
      then.water?.id === now.water?.id &&
        then.water?.ph === now.water?.ph &&
        then.water?.hardnessDh === now.water?.hardnessDh,
      $localize`Hardness and pH shift the shade of the very same recipe; iron in water saddens it.`,
    ),
    factor(
      $localize`Vessel`,
      vesselLabel(then),
      vesselLabel(now),
      sameIds(
        then.vessels.map((v) => v.id),
        now.vessels.map((v) => v.id),
      ),
      vesselEffect(then, now),
    ),
    factor(
      $localize`Liquor ratio`,
      `1:${then.liquorRatio}`,
      `1:${now.liquorRatio}`,
      then.liquorRatio === now.liquorRatio,
      now.liquorRatio > then.liquorRatio
        ? $localize`A longer bath leaves more dye in the water: expect paler.`
        : $localize`A shorter bath drives more dye into the fibre: expect deeper, and less room to turn.`,
    ),
  ];
}

function materialFactors(then: readonly MaterialUse[], now: readonly MaterialUse[]): Factor[] {
  const names = new Map([...then, ...now].map((m) => [m.materialId, m.name]));
  return [...names].map(([id, name]) => {
    const was = then.find((m) => m.materialId === id);
    const is = now.find((m) => m.materialId === id);
    const label = (m: MaterialUse | undefined): string =>
      m
        ? $localize`${round(m.percentOwf)} ${DOSE_UNIT[m.measure]} from ${tags(m.sources)}${worthLabel(m)}`
        : $localize`not used`;
    const sameDose =
      was !== undefined && is !== undefined && Math.abs(worth(is) - worth(was)) <= SAME_DOSE_SHARE * worth(was);
    const same = sameDose && sameSources(was.sources, is.sources);
    return { name, then: label(was), now: label(is), same, effect: same ? '' : materialEffect(was, is, sameDose) };
  });
}

function materialEffect(was: MaterialUse | undefined, is: MaterialUse | undefined, sameDose: boolean): string {
  if (!was) return $localize`Not used then.`;
  if (!is) return $localize`Used then, not now.`;
  if (!sameDose)
    return worth(is) > worth(was)
      ? $localize`More than was really used then.`
      : $localize`Less than was really used then.`;
  if (is.worthPercentOwf !== undefined && Math.abs(is.percentOwf - was.percentOwf) > SAME_DOSE_SHARE * was.percentOwf)
    return $localize`Another stock lot, and the dose makes up for its strength: the shade should hold, the hue may still differ.`;
  return $localize`Another stock lot may be stronger or weaker: dye a strike-off before the whole lot.`;
}

/** A dose at full strength. */
const worth = (m: MaterialUse): number => m.worthPercentOwf ?? m.percentOwf;
const worthLabel = (m: MaterialUse): string =>
  Math.abs(worth(m) - m.percentOwf) > SAME_DOSE_SHARE * m.percentOwf
    ? $localize`, worth ${round(worth(m))} at full strength`
    : '';

function vesselEffect(then: LotConditions, now: LotConditions): string {
  const metals = (c: LotConditions): string => [...new Set(c.vessels.map((v) => v.metal))].sort().join();
  return metals(then) === metals(now)
    ? $localize`Another pot of the same metal: watch how fast it heats.`
    : $localize`Another metal: aluminium brightens, iron saddens.`;
}

const round = (value: number): number => Math.round(value * 100) / 100;
const vesselLabel = (c: LotConditions): string => c.vessels.map((v) => `${v.name} (${v.metal})`).join(' + ');

function waterLabel(water: LotConditions['water']): string {
  if (!water) return $localize`not recorded`;
  const facts = [
    water.ph === null ? '' : sayPh(water.ph),
    water.hardnessDh === null ? '' : `${trimZeros(water.hardnessDh, 1)} °dH`,
  ].filter((f) => f !== '');
  return facts.length === 0 ? water.name : `${water.name} (${facts.join(', ')})`;
}
