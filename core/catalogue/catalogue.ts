import { worded, wordedList } from '../words/worded';
import { AUXILIARIES } from './auxiliaries';
import type { CatalogueEntry } from './catalogue-entry';
import { slugOf } from './catalogue-entry';
import { MORDANTS } from './mordants';
import { OTHER_DYESTUFFS } from './other-dyestuffs';
import { YELLOW_DYESTUFFS } from './yellow-dyestuffs';

/** What a studio can begin from. General knowledge, widely agreed; its sources stand in docs/catalogue.md. */
export const CATALOGUE: readonly CatalogueEntry[] = wordedList(() => [
  ...YELLOW_DYESTUFFS,
  ...OTHER_DYESTUFFS,
  ...MORDANTS,
  ...AUXILIARIES,
]);

const BY_KEY: Readonly<Record<string, CatalogueEntry>> = worded(() =>
  Object.fromEntries(CATALOGUE.map((entry) => [entry.key, entry])),
);

/** What the catalogue says of a key; nothing of one it doesn't have. */
export const catalogueEntry = (key: string | null | undefined): CatalogueEntry | undefined =>
  key === null || key === undefined ? undefined : BY_KEY[key];

/** What people call the usual salts beside the catalogue's names. */
const ALSO_CALLED: readonly (readonly [RegExp, string])[] = [
  [/^alum\b(?!.*bath)/i, 'potassium-alum'],
  [/\btartar\b/i, 'cream-of-tartar'],
  [/\b(ferrous|iron(?: ii)?) (sulphate|sulfate)\b/i, 'iron-sulphate'],
  [/\bcopper sulfate\b/i, 'copper-sulphate'],
  [/\bwashing soda\b|\bsodium carbonate\b/i, 'soda-ash'],
  [/\bvinegar\b/i, 'white-vinegar'],
];

/**
 * Which of the catalogue's materials a name most likely means: the longest name of the catalogue that it begins with,
 * or what the usual salts are called besides. A guess, for materials written down before they said so themselves;
 * `null` where it is none of them.
 */
export function recogniseMaterial(name: string): string | null {
  const slug = slugOf(name.replace(/\baluminum\b/gi, 'aluminium'));
  const begun = Object.keys(BY_KEY).filter((key) => slug === key || slug.startsWith(`${key}-`));
  const longest = begun.sort((a, b) => b.length - a.length)[0];
  return longest ?? ALSO_CALLED.find(([pattern]) => pattern.test(name))?.[1] ?? null;
}

/** Salts that were once used and are left out on purpose. */
export const notOffered = (): string =>
  $localize`Chrome, tin, lead and mercury salts are not in this catalogue: they are poisonous to people and to water at the amounts dyeing takes, and no shade is worth them. Copper is here, and flagged.`;

const REFUSED = /\b(chrom(e|ium|ate)|dichromate|tin|stannous|stannic|lead|mercur(y|ic|ous))\b/i;

/** The sentence to show when somebody names one of the salts left out; `undefined` otherwise. */
export function refusedSalt(name: string): string | undefined {
  return REFUSED.test(name) ? notOffered() : undefined;
}
