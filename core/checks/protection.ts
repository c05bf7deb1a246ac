import type { Hazard } from '../safety/hazards';
import { HAZARD_LABELS } from '../safety/hazards';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { checkFamily } from './finding';

interface ProtectionFinding {
  readonly code: 'protection';
  readonly materialName: string;
  readonly hazards: readonly Hazard[];
}

function findProtection({ plan, materials }: CheckInput): ProtectionFinding[] {
  const used = new Set(plan.materials.map((m) => m.materialId));
  return materials
    .filter((m) => used.has(m.id) && m.hazards.length > 0)
    .map((m) => ({ code: 'protection', materialName: m.name, hazards: [...new Set(m.hazards)] }));
}

const sayProtection = ({ materialName, hazards }: ProtectionFinding): CheckText => ({
  severity: 'caution',
  protection: true,
  message: `${materialName}: ${hazards.map((h) => HAZARD_LABELS[h]).join('; ')}.`,
  why: $localize`Read the supplier’s safety data sheet; local rules decide about waste.`,
  cites: $localize`${materialName} in Stores`,
});

/** What has to be at hand for each hazardous material of the lot. */
export const protectionChecks = checkFamily(findProtection, sayProtection);
