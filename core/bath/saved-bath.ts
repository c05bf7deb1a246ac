import { trimZeros } from '../quantity/weight';
import { depthOfLightness } from '../colour/depth';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** Something dissolved in a kept liquor, by estimate. */
export interface BathContent {
  readonly materialId: string | null;
  readonly name: string;
  readonly grams: number;
  /** Whether fibre draws it, where that is known: dyes and mordants; assistants stay in the bath. */
  readonly drawn?: boolean | undefined;
}

/** A liquor as it stands: how much, and what is dissolved in it. */
export interface StandingLiquor {
  readonly volumeMl: number;
  readonly contents: readonly BathContent[];
}

/** What can happen to a liquor that stands. Volumes in ml. */
export type LiquorChange =
  /** Steam takes water alone. */
  | { readonly kind: 'steamedOff'; readonly ml: number }
  /** What is poured off, sampled or spilt takes its share of all that is dissolved. */
  | { readonly kind: 'pouredOff'; readonly ml: number }
  | { readonly kind: 'water'; readonly ml: number }
  | { readonly kind: 'dosed'; readonly content: BathContent }
  /** Fibre draws a share of what is there for it, and carries liquor off when it is lifted. */
  | {
      readonly kind: 'fibre';
      /** 0 to 1. */
      readonly takenShare: number;
      readonly carriedMl: number;
      /** Whether fibre draws this; it leaves assistants in the bath. All of it where absent. */
      readonly draws?: (content: BathContent) => boolean;
    };

/**
 * A liquor after something happened to it: the one rule for baths at the bench and liquors kept in Stores.
 * @throws {RangeError} for a volume below nothing, or a share outside 0 to 1
 */
export function changeLiquor(liquor: StandingLiquor, change: LiquorChange): StandingLiquor {
  const { volumeMl, contents } = liquor;
  switch (change.kind) {
    case 'steamedOff':
      return { volumeMl: Math.max(0, volumeMl - positive(change.ml)), contents };
    case 'water':
      return { volumeMl: volumeMl + positive(change.ml), contents };
    case 'pouredOff':
      return withoutShare(liquor, positive(change.ml));
    case 'dosed':
      return { volumeMl, contents: addContent(contents, change.content) };
    case 'fibre': {
      const { takenShare, carriedMl, draws = () => true } = change;
      if (!(takenShare >= 0 && takenShare <= 1))
        throw new RangeError(`takenShare must be from 0 to 1, got ${takenShare}`);
      const drawn = contents.map((c) => (draws(c) ? { ...c, grams: round3(c.grams * (1 - takenShare)) } : c));
      return withoutShare({ volumeMl, contents: drawn }, positive(carriedMl));
    }
  }
}

function withoutShare({ volumeMl, contents }: StandingLiquor, ml: number): StandingLiquor {
  const left = Math.max(0, volumeMl - ml);
  const share = volumeMl > 0 ? left / volumeMl : 0;
  return { volumeMl: left, contents: contents.map((c) => ({ ...c, grams: round3(c.grams * share) })) };
}

function addContent(contents: readonly BathContent[], added: BathContent): BathContent[] {
  // A material keeps its id when it is renamed; what was never one has its name alone.
  const there = contents.find((c) =>
    added.materialId === null ? c.materialId === null && c.name === added.name : c.materialId === added.materialId,
  );
  return there
    ? contents.map((c) => (c === there ? { ...c, grams: round3(c.grams + added.grams) } : c))
    : [...contents, { ...added, grams: round3(added.grams) }];
}

function positive(ml: number): number {
  if (!(ml >= 0)) throw new RangeError(`a liquor changes by volumes of nothing or more, got ${ml}`);
  return ml;
}

/**
 * What is in a kept liquor now: what went out since its last entry took its share along; what came in beside was
 * water.
 */
export function contentsAtVolume(
  contents: readonly BathContent[],
  volumeThenMl: number,
  volumeNowMl: number,
): BathContent[] {
  const gone = Math.max(0, volumeThenMl - volumeNowMl);
  return [...changeLiquor({ volumeMl: volumeThenMl, contents }, { kind: 'pouredOff', ml: gone }).contents];
}

/**
 * What fibre leaves in a bath: by a share it is taken to draw, less what it carries off; or as measured after.
 * @param inBathG grams before @param uptakeShare 0 to 1 @param carriedShare share of the liquor that left with the
 * fibre, 0 to 1
 */
export function leftAfterUse(
  inBathG: number,
  {
    uptakeShare,
    carriedShare = 0,
    measuredLeftG,
  }: { uptakeShare: number; carriedShare?: number; measuredLeftG?: number | undefined },
): Figure {
  const inputs = [{ name: $localize`in the bath before`, value: round3(inBathG), unit: 'g' }];
  if (measuredLeftG !== undefined)
    return figure(round3(measuredLeftG), 'g', $localize`as measured`, inputs, [$localize`measured, not assumed`]);
  const before = { volumeMl: 1, contents: [{ materialId: null, name: '', grams: inBathG }] };
  const after = changeLiquor(before, { kind: 'fibre', takenShare: uptakeShare, carriedMl: carriedShare });
  return figure(
    after.contents[0]?.grams ?? 0,
    'g',
    $localize`in the bath × (1 − uptake) × share of the liquor left`,
    [
      ...inputs,
      { name: $localize`uptake`, value: Math.round(uptakeShare * 1000) / 10, unit: '%', source: $localize`assumed` },
      { name: $localize`liquor left`, value: Math.round((1 - carriedShare) * 1000) / 10, unit: '%' },
    ],
    [$localize`by an assumed uptake: a strip mordanted beside a fresh bath tells better`],
  );
}

/**
 * How much to add to bring a saved mordant bath back to a target for the fibre that is next: what a fresh bath would
 * hold, less what is estimated to be left. Never below nothing: an over-strong bath is used as it is, or for more
 * fibre.
 * @param leftG estimated or measured grams in the bath @param targetPercentOwf @param wofG dry fibre that is next,
 * above zero
 */
export function replenish(leftG: number, targetPercentOwf: number, wofG: number): Figure {
  if (!(wofG > 0) || !(targetPercentOwf > 0)) throw new RangeError('wofG and targetPercentOwf must be above zero');
  const wantedG = (targetPercentOwf * wofG) / 100;
  const notes =
    leftG > wantedG
      ? [$localize`holds ${round3(leftG - wantedG)} g more than that already: add nothing, or use it for more fibre`]
      : [$localize`what is left is an estimate; so is this`];
  return figure(
    round3(Math.max(0, wantedG - leftG)),
    'g',
    $localize`target % × dry fibre ÷ 100 − what is left in the bath`,
    [
      { name: $localize`target`, value: targetPercentOwf, unit: '% WOF' },
      { name: $localize`dry fibre`, value: wofG, unit: 'g' },
      { name: $localize`left in the bath`, value: round3(leftG), unit: 'g', source: $localize`estimate` },
    ],
    notes,
  );
}

/** One rung of a ladder: a strip saddened by a weighed amount of crystals, and how light it came out. */
export interface LadderRung {
  /** Grams of crystals per 100 g of fibre. */
  readonly percentOwf: number;
  readonly lightness: number;
}

/** Strength of an iron liquor read off a ladder, with the range it lies in, g per litre; or why it can't be read. */
export type LadderReading =
  | { readonly ok: true; readonly strength: Figure; readonly lowGPerL: number; readonly highGPerL: number }
  | { readonly ok: false; readonly message: string };

/**
 * Strength of a home-made iron liquor, by its strip against a ladder of weighed crystals: the strip's depth (K/S) is
 * placed between its two neighbours, straight between them. The band is those two rungs: a ladder can't say more.
 * @param ladder at least two rungs of rising dose whose strips darken as they rise
 * @param strip lightness of the strip done with the liquor, which took `liquorMl` for `fibreG` of dry fibre
 */
export function ladderStrength(
  ladder: readonly LadderRung[],
  strip: { lightness: number; liquorMl: number; fibreG: number },
): LadderReading {
  const refuse = (message: string): LadderReading => ({ ok: false, message });
  const rungs = [...ladder]
    .sort((a, b) => a.percentOwf - b.percentOwf)
    .map((r) => ({ ...r, depth: depthOfLightness(r.lightness) }));
  if (rungs.length < 2)
    return refuse($localize`A ladder needs two strips or more, each with its own weighed dose of crystals.`);
  if (!(strip.liquorMl > 0) || !(strip.fibreG > 0))
    return refuse($localize`Say how much liquor the strip took, and what the strip weighs dry.`);
  if (rungs.some((r, i) => i > 0 && r.depth <= (rungs[i - 1]?.depth ?? 0)))
    return refuse(
      $localize`The ladder’s strips don’t darken step by step. Read them again, dry and in the same light, or dye that rung anew.`,
    );
  const depth = depthOfLightness(strip.lightness);
  const above = rungs.findIndex((r) => r.depth >= depth);
  if (above === -1)
    return refuse(
      $localize`The strip is darker than the strongest rung. Thin the liquor by half and dye another strip, or add a stronger rung.`,
    );
  if (above === 0 && depth < (rungs[0]?.depth ?? 0))
    return refuse(
      $localize`The strip is lighter than the weakest rung. Use more liquor on another strip, or add a weaker rung.`,
    );
  const high = rungs[above] as (typeof rungs)[number];
  const low = above === 0 ? high : (rungs[above - 1] as (typeof rungs)[number]);
  const percent =
    high === low
      ? high.percentOwf
      : low.percentOwf + ((depth - low.depth) / (high.depth - low.depth)) * (high.percentOwf - low.percentOwf);
  const gPerL = (p: number): number => Math.round(((p * strip.fibreG) / 100 / strip.liquorMl) * 100_000) / 100;
  return {
    ok: true,
    lowGPerL: gPerL(low.percentOwf),
    highGPerL: gPerL(high.percentOwf),
    strength: figure(
      gPerL(percent),
      'g/l',
      $localize`dose of crystals that gives the same depth × dry fibre ÷ liquor used`,
      [
        {
          name: $localize`the strip matches`,
          value: Math.round(percent * 1000) / 1000,
          unit: '% WOF',
          source:
            low === high
              ? $localize`the rung of ${trimZeros(low.percentOwf, 2)} %`
              : $localize`between the rungs of ${trimZeros(low.percentOwf, 2)} % and ${trimZeros(high.percentOwf, 2)} %`,
        },
        { name: $localize`dry strip`, value: strip.fibreG, unit: 'g' },
        { name: $localize`liquor used`, value: strip.liquorMl, unit: 'ml' },
      ],
      [$localize`as crystals; between ${gPerL(low.percentOwf)} and ${gPerL(high.percentOwf)} g/l`],
    ),
  };
}

const round3 = (value: number): number => Math.round(value * 1000) / 1000;
