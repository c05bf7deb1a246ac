import { HAZARD_LABELS } from '../safety/hazards';
import type { CheckInput } from './check-input';
import type { Found } from './finding';

/** What has to be at hand for each hazardous material of the lot. */
export function protectionChecks({ plan, materials }: CheckInput): Found[] {
  const used = new Set(plan.materials.map((m) => m.materialId));
  return materials
    .filter((m) => used.has(m.id) && m.hazards.length > 0)
    .map((m) => ({
      code: 'protection',
      severity: 'caution',
      protection: true,
      message: `${m.name}: ${[...new Set(m.hazards)].map((h) => HAZARD_LABELS[h]).join('; ')}.`,
      why: 'Read the supplier’s safety data sheet; local rules decide about waste.',
      cites: `${m.name} in Stores`,
    }));
}
