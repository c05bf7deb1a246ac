import { fibreFamily } from '../bath/fibre';
import { formatAmount } from '../quantity/amount';
import type { BathNote } from './bath-notes';
import { isPlanCaution, sayBathNote } from './bath-notes';
import type { PlannedBatch, PlannedGroup, PlannedMaterial } from './lot-plan';
import { countLabel } from '../quantity/word-list';

/** What is to be known of a plan before it is agreed to. */
export function planCautions(
  batches: readonly PlannedBatch[],
  materials: readonly PlannedMaterial[],
  groups: readonly PlannedGroup[],
  notes: readonly BathNote[],
): string[] {
  const cautions: string[] = [];
  for (const m of materials)
    if (m.short > 0) cautions.push(`${m.name} is short by ${formatAmount(m.short, m.measure)}.`);
  const word = groups[0]?.pieceWord ?? 'piece';
  const weights = batches.map((b) => b.wof.value);
  const [max, min] = [Math.max(...weights), Math.min(...weights)];
  if (max - min > 0.5) {
    const pieces = Math.max(...batches.map((b) => b.pieces)) - Math.min(...batches.map((b) => b.pieces));
    cautions.push(
      `The batches differ by ${groups.length === 1 && pieces > 0 ? countLabel(pieces, word) : `${Math.round(max - min)} g`}: the same ratio and doses, but they heat at different speeds.`,
    );
  } else if (batches.length > 1)
    cautions.push(`${batches.length} baths: take readings of every batch before the lot is passed.`);
  if (batches.some((b) => b.fill > 1))
    cautions.push('Two runs: the second is dyed after the first. Judge them side by side before either is passed.');
  cautions.push(...notes.filter(isPlanCaution).map(sayBathNote));
  cautions.push(...unlikeCaution(batches, groups), ...fibreCautions(groups));
  return [...new Set(cautions)];
}

/** Batches of several bases or parts that don't hold the same mix: how unlike, and what it risks. */
export function unlikeCaution(batches: readonly PlannedBatch[], groups: readonly PlannedGroup[]): string[] {
  const shareOf = (b: PlannedBatch, baseId: string): number =>
    b.groups.reduce((sum, part) => {
      const g = groups.find((o) => o.key === part.key);
      return sum + (g?.baseId === baseId ? part.pieces * g.pieceWeightG : 0);
    }, 0) / b.wof.value;
  return [...new Set(groups.map((g) => g.baseId))].flatMap((baseId) => {
    const percents = batches.map((b) => Math.round(shareOf(b, baseId) * 100));
    const [min, max] = [Math.min(...percents), Math.max(...percents)];
    return batches.length > 1 && max - min > 2
      ? [
          `${groups.find((g) => g.baseId === baseId)?.baseName ?? 'One base'} is ${min} to ${max} % of the fibre, batch by batch: fibres share the dye otherwise in each, and the shades may differ. Make the pieces divide alike, or dye it in one bath.`,
        ]
      : [];
  });
}

/** What a mixed pot will do. */
export function fibreCautions(groups: readonly PlannedGroup[]): string[] {
  const families = new Set(groups.map((g) => fibreFamily(g.fibre)));
  const cautions: string[] = [];
  if (families.has('synthetic')) cautions.push('Synthetic fibre takes nothing from these baths: it stays as it is.');
  if (families.has('protein') && families.has('cellulose'))
    cautions.push(
      'Protein and cellulose in one pot: protein takes the dye first and deeper. Mark them, and judge each against its own shade.',
    );
  else if (new Set(groups.map((g) => g.fibre)).size > 1)
    cautions.push('Several fibres in one pot come out as different shades: tie a mark to each that survives the pot.');
  return cautions;
}
