import { fibreFamily, fibresIn } from '../bath/fibre';
import type { BathNote } from './bath-note';
import { isPlanCaution } from './bath-note';
import type { PlannedBatch, PlannedGroup, PlannedMaterial } from './lot-plan';
import type { PlanCaution } from './plan-caution';
import { sayPlanCaution } from './plan-caution';

/** What is to be known of a plan before it is agreed to; each once. */
export function planCautions(
  batches: readonly PlannedBatch[],
  materials: readonly PlannedMaterial[],
  groups: readonly PlannedGroup[],
  notes: readonly BathNote[],
  pots: readonly PlanCaution[],
): PlanCaution[] {
  const cautions = [
    ...materials.filter((m) => m.short > 0).map(shortCaution),
    ...batchCautions(batches, groups),
    ...notes.filter(isPlanCaution).map((note) => ({ code: 'bath' as const, note })),
    ...pots,
    ...unlikeCautions(batches, groups),
    ...fibreCautions(groups),
  ];
  const said = new Set<string>();
  return cautions.filter((c) => !said.has(sayPlanCaution(c)) && said.add(sayPlanCaution(c)));
}

const shortCaution = ({ name, short, measure }: PlannedMaterial): PlanCaution => ({
  code: 'short',
  materialName: name,
  amount: short,
  measure,
});

function batchCautions(batches: readonly PlannedBatch[], groups: readonly PlannedGroup[]): PlanCaution[] {
  const cautions: PlanCaution[] = [];
  const weights = batches.map((b) => b.wof.value);
  const counts = batches.map((b) => b.pieces);
  const weightG = Math.max(...weights) - Math.min(...weights);
  if (weightG > 0.5)
    cautions.push({
      code: 'unequalBatches',
      pieces: groups.length === 1 ? Math.max(...counts) - Math.min(...counts) : 0,
      pieceWord: groups[0]?.pieceWord ?? 'piece',
      weightG: Math.round(weightG),
    });
  else if (batches.length > 1) cautions.push({ code: 'severalBaths', baths: batches.length });
  if (batches.some((b) => b.fill > 1)) cautions.push({ code: 'secondFill' });
  return cautions;
}

/** Batches of several bases or parts that don't hold the same mix: how unlike, and what it risks. */
export function unlikeCautions(batches: readonly PlannedBatch[], groups: readonly PlannedGroup[]): PlanCaution[] {
  const shareOf = (b: PlannedBatch, baseId: string): number =>
    b.groups.reduce((sum, part) => {
      const g = groups.find((o) => o.key === part.key);
      return sum + (g?.baseId === baseId ? part.pieces * g.pieceWeightG : 0);
    }, 0) / b.wof.value;
  return [...new Set(groups.map((g) => g.baseId))].flatMap((baseId) => {
    const percents = batches.map((b) => Math.round(shareOf(b, baseId) * 100));
    const [minPercent, maxPercent] = [Math.min(...percents), Math.max(...percents)];
    if (batches.length < 2 || maxPercent - minPercent <= 2) return [];
    const baseName = groups.find((g) => g.baseId === baseId)?.baseName ?? $localize`One base`;
    return [{ code: 'unlikeBatches' as const, baseName, minPercent, maxPercent }];
  });
}

/** What a mixed pot will do. */
export function fibreCautions(groups: readonly PlannedGroup[]): PlanCaution[] {
  const families = new Set(groups.flatMap(fibresIn).map(fibreFamily));
  const cautions: PlanCaution[] = [];
  if (families.has('synthetic')) cautions.push({ code: 'synthetic' });
  if (families.has('protein') && families.has('cellulose')) cautions.push({ code: 'proteinAndCellulose' });
  else if (new Set(groups.map((g) => fibresIn(g).join())).size > 1) cautions.push({ code: 'severalFibres' });
  return cautions;
}
