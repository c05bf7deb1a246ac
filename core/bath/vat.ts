import { worded } from '../words/worded';
import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
import { formatTemperature } from '../quantity/temperature';
import { countLabel } from '../quantity/word-list';

/** Ways of bringing an indigo-class dye into solution: what takes the oxygen away, and in what. */
export const VAT_KINDS = ['ferment', 'fruit', 'iron', 'reducer'] as const;
/** One of `VAT_KINDS`. */
export type VatKind = (typeof VAT_KINDS)[number];
/** How each is said on screen. */
export const VAT_LABELS: Readonly<Record<VatKind, string>> = worded(() => ({
  ferment: $localize`fermented`,
  fruit: $localize`sugar and lime`,
  iron: $localize`iron and lime`,
  reducer: $localize`with a reducer`,
}));

/** How the liquor looks under its film, in a white cup. */
export const VAT_LOOKS = ['yellow', 'green', 'blue', 'cloudy'] as const;
/** One of `VAT_LOOKS`. */
export type VatLook = (typeof VAT_LOOKS)[number];
/** How each is said on screen. */
export const VAT_LOOK_LABELS: Readonly<Record<VatLook, string>> = worded(() => ({
  yellow: $localize`clear, yellow to amber`,
  green: $localize`green`,
  blue: $localize`blue`,
  cloudy: $localize`cloudy, not settled`,
}));

/** A vat as it was last looked at; pH and °C `null` where they were not taken. */
export interface VatReading {
  readonly kind: VatKind;
  readonly look: VatLook;
  readonly ph: number | null;
  readonly temperatureC: number | null;
}

/** What a kind of vat works at and is fed with. °C, minutes, grams for a gram of dyestuff. */
export interface VatFacts {
  readonly phLow: number;
  readonly phHigh: number;
  readonly lowC: number;
  readonly highC: number;
  /** Rest after it was fed or stirred, before a dip. */
  readonly restMin: number;
  readonly reducer: { readonly name: string; readonly perDyeG: number };
  readonly alkali: { readonly name: string; readonly perDyeG: number };
}

/** General practice of each kind of vat: what it wants, and in what proportion to its dyestuff it is set. */
export const VAT_FACTS: Readonly<Record<VatKind, VatFacts>> = worded(() => ({
  ferment: {
    phLow: 9,
    phHigh: 10,
    lowC: 30,
    highC: 45,
    restMin: 720,
    reducer: { name: $localize`bran or madder`, perDyeG: 1 },
    alkali: { name: $localize`soda ash`, perDyeG: 1 },
  },
  fruit: {
    phLow: 10,
    phHigh: 11.5,
    lowC: 20,
    highC: 50,
    restMin: 90,
    reducer: { name: 'fructose', perDyeG: 3 },
    alkali: { name: $localize`hydrated lime`, perDyeG: 2 },
  },
  iron: {
    phLow: 11,
    phHigh: 12.5,
    lowC: 12,
    highC: 30,
    restMin: 360,
    reducer: { name: $localize`iron sulphate`, perDyeG: 2 },
    alkali: { name: $localize`hydrated lime`, perDyeG: 3 },
  },
  reducer: {
    phLow: 9.5,
    phHigh: 11,
    lowC: 40,
    highC: 55,
    restMin: 45,
    reducer: { name: 'reducer', perDyeG: 1 },
    alkali: { name: $localize`soda ash`, perDyeG: 1 },
  },
}));

/** Above this a vat is not for protein fibre, whatever it is fed with. */
export const PROTEIN_VAT_PH = 10.5;
/** A vat that was last looked at longer ago than this is looked at again before a dip, hours. */
export const VAT_LOOK_HOURS = 24;
/** What is wrong with a vat, as facts; `gravity` `stop` where a dip would only dye the outside or harm the fibre. */
export type VatFinding = { readonly gravity: 'stop' | 'caution' } & (
  | { readonly code: 'notReduced' | 'halfReduced' | 'unsettled'; readonly kind: VatKind }
  | { readonly code: 'alkaliLow' | 'alkaliHigh'; readonly kind: VatKind; readonly ph: number }
  | { readonly code: 'tooAlkalineForProtein'; readonly ph: number }
  | { readonly code: 'cold' | 'hot'; readonly kind: VatKind; readonly temperatureC: number }
  | { readonly code: 'notLookedAt'; readonly days: number | null }
);

/**
 * Looks a vat over before pieces go in: whether it is reduced, alkaline and warm enough, and when that was seen.
 * @param hoursAgo since it was looked at; `null` where it never was @param protein whether wool, silk or the like goes in
 */
export function judgeVat(
  vat: VatReading | null,
  { hoursAgo, protein }: { readonly hoursAgo: number | null; readonly protein: boolean },
): VatFinding[] {
  if (!vat || hoursAgo === null) return [{ code: 'notLookedAt', gravity: 'caution', days: null }];
  const { kind, look, ph, temperatureC } = vat;
  const facts = VAT_FACTS[kind];
  const found: VatFinding[] = [];
  if (look === 'blue') found.push({ code: 'notReduced', gravity: 'stop', kind });
  if (look === 'green') found.push({ code: 'halfReduced', gravity: 'caution', kind });
  if (look === 'cloudy') found.push({ code: 'unsettled', gravity: 'caution', kind });
  if (ph !== null && protein && ph > PROTEIN_VAT_PH) found.push({ code: 'tooAlkalineForProtein', gravity: 'stop', ph });
  else if (ph !== null && ph > facts.phHigh) found.push({ code: 'alkaliHigh', gravity: 'caution', kind, ph });
  if (ph !== null && ph < facts.phLow) found.push({ code: 'alkaliLow', gravity: 'caution', kind, ph });
  if (temperatureC !== null && temperatureC < facts.lowC)
    found.push({ code: 'cold', gravity: 'caution', kind, temperatureC });
  if (temperatureC !== null && temperatureC > facts.highC)
    found.push({ code: 'hot', gravity: 'caution', kind, temperatureC });
  if (hoursAgo > VAT_LOOK_HOURS)
    found.push({ code: 'notLookedAt', gravity: 'caution', days: Math.floor(hoursAgo / 24) });
  return found;
}

/** What was found, and what to do. */
export function sayVat(finding: VatFinding): string {
  switch (finding.code) {
    case 'notReduced': {
      const { reducer, restMin } = VAT_FACTS[finding.kind];
      return $localize`The vat is blue under its film: not reduced, so it would dye only the outside and rub off. Feed it ${reducer.name}, keep it warm, leave it ${restMin} min or more, and look again.`;
    }
    case 'halfReduced':
      return $localize`The vat is green: half reduced, and the blue will be paler and rub off sooner. A little ${VAT_FACTS[finding.kind].reducer.name} and ${VAT_FACTS[finding.kind].restMin} min of rest bring it to yellow.`;
    case 'unsettled':
      return $localize`The vat is cloudy. Let it settle ${VAT_FACTS[finding.kind].restMin} min, or what floats marks the pieces.`;
    case 'alkaliLow':
      return $localize`${sayPh(finding.ph)} is low for a ${VAT_LABELS[finding.kind]} vat: below ${trimZeros(VAT_FACTS[finding.kind].phLow, 2)} reduced dye does not stay dissolved. Add ${VAT_FACTS[finding.kind].alkali.name} in small doses, testing between.`;
    case 'alkaliHigh':
      return $localize`${sayPh(finding.ph)} is high for a ${VAT_LABELS[finding.kind]} vat: above ${trimZeros(VAT_FACTS[finding.kind].phHigh, 2)} fibre takes less of it. Let it work off; add no more alkali.`;
    case 'tooAlkalineForProtein':
      return $localize`${sayPh(finding.ph)} dissolves wool and silk. Bring the vat to ${PROTEIN_VAT_PH} or below first, or use a gentler kind.`;
    case 'cold':
      return $localize`At ${formatTemperature(finding.temperatureC)} a ${VAT_LABELS[finding.kind]} vat hardly works: bring it to ${formatTemperature(VAT_FACTS[finding.kind].lowC)} or above.`;
    case 'hot':
      return $localize`At ${formatTemperature(finding.temperatureC)} a ${VAT_LABELS[finding.kind]} vat suffers: let it come down to ${formatTemperature(VAT_FACTS[finding.kind].highC)} or below.`;
    case 'notLookedAt':
      return finding.days === null
        ? $localize`Nobody has looked at the vat since it was set or used. Look at a cup of it, take its pH and its warmth, and write them down.`
        : $localize`The vat was last looked at ${countLabel(finding.days, 'day')} ago, and it changes by the hour. Look at a cup of it, take its pH and its warmth.`;
  }
}
