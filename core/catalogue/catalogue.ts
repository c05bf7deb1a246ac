import { AUXILIARIES } from './auxiliaries';
import type { CatalogueEntry } from './catalogue-entry';
import { DYESTUFFS } from './dyestuffs';

/** What a studio can begin from. General knowledge, widely agreed; its sources stand in docs/catalogue.md. */
export const CATALOGUE: readonly CatalogueEntry[] = [...DYESTUFFS, ...AUXILIARIES];

/** Salts that were once used and are left out on purpose. */
export const NOT_OFFERED =
  'Chrome, tin, lead and mercury salts are not in this catalogue: they are poisonous to people and to water at the amounts dyeing takes, and no shade is worth them. Copper is here, and flagged.';

const REFUSED = /\b(chrom(e|ium|ate)|dichromate|tin|stannous|stannic|lead|mercur(y|ic|ous))\b/i;

/** The sentence to show when somebody names one of the salts left out; `undefined` otherwise. */
export function refusedSalt(name: string): string | undefined {
  return REFUSED.test(name) ? NOT_OFFERED : undefined;
}
