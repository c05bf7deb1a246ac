import { bathChecks } from './bath-water';
import { ceilingChecks } from './ceilings';
import type { CheckInput } from './check-input';
import { doseChecks } from './doses';
import { fibreChecks } from './fibre';
import { fibreHeatChecks } from './fibre-heat';
import type { CheckFamily, LotCheck } from './finding';
import { houseChecks } from './house-practice';
import { intakeChecks } from './intake';
import { mixtureChecks } from './mixtures';
import { preparationChecks } from './preparation';
import { protectionChecks } from './protection';
import { statusChecks } from './recipe-status';
import { stockChecks } from './stock';
import { vatChecks } from './vat';
import { vesselChecks } from './vessels';

const FAMILIES: readonly CheckFamily[] = [
  statusChecks,
  intakeChecks,
  mixtureChecks,
  vesselChecks,
  fibreChecks,
  fibreHeatChecks,
  doseChecks,
  preparationChecks,
  ceilingChecks,
  stockChecks,
  bathChecks,
  vatChecks,
  houseChecks,
  protectionChecks,
];

/** Looks a proposed lot over before it may start. Stops first; each names why, and the line it rests on. */
export function checkLot(input: CheckInput): LotCheck[] {
  const found = new Map(FAMILIES.flatMap((family) => family(input)).map((c) => [c.key, c] as const));
  const checks = [...found.values()];
  return [...checks.filter((c) => c.severity === 'stop'), ...checks.filter((c) => c.severity === 'caution')];
}
