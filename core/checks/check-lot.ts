import type { CheckInput } from './check-input';
import { intakeChecks } from './intake';
import type { LotCheck } from './finding';
import { statusChecks } from './recipe-status';
import { vesselChecks } from './vessels';
import { fibreChecks } from './fibre';
import { preparationChecks } from './preparation';
import { ceilingChecks } from './ceilings';
import { stockChecks } from './stock';
import { waterChecks, ratioCheck } from './bath-water';
import { houseChecks } from './house-practice';
import { protectionChecks } from './protection';

/** Looks a proposed lot over before it may start. Stops first; each names why, and the line it rests on. */
export function checkLot(input: CheckInput): LotCheck[] {
  const found = [
    ...statusChecks(input),
    ...intakeChecks(input),
    ...vesselChecks(input),
    ...fibreChecks(input),
    ...preparationChecks(input),
    ...ceilingChecks(input),
    ...stockChecks(input),
    ...waterChecks(input),
    ...ratioCheck(input),
    ...houseChecks(input),
    ...protectionChecks(input),
  ];
  const seen = new Set<string>();
  const checks = found
    .map(({ code, ...c }) => ({ ...c, protection: c.protection ?? false, key: `${code}: ${c.message}` }))
    .filter((c) => !seen.has(c.key) && seen.add(c.key));
  return [...checks.filter((c) => c.severity === 'stop'), ...checks.filter((c) => c.severity === 'caution')];
}
