import type { Hazard } from '../safety/hazards';
import { catalogueEntry } from './catalogue';

/**
 * What a material can do to people: what the studio wrote on it, and what the catalogue says of the stuff it is. One
 * that was written down without its hazards has them all the same.
 */
export function hazardsOf({
  hazards,
  catalogueKey,
}: {
  readonly hazards: readonly Hazard[];
  readonly catalogueKey: string | null;
}): Hazard[] {
  return [...new Set([...hazards, ...(catalogueEntry(catalogueKey)?.hazards ?? [])])];
}
