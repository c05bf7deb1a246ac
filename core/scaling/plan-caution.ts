import type { StockMeasure } from '../quantity/amount';
import { formatAmount } from '../quantity/amount';
import { countLabel } from '../quantity/word-list';
import type { BathNote } from './bath-note';
import { sayBathNote } from './bath-note';

/** What is to be known of a plan before it is agreed to, as facts. Amounts in smallest units, weights in g. */
export type PlanCaution =
  | {
      readonly code: 'short';
      readonly materialName: string;
      readonly amount: number;
      readonly measure: StockMeasure;
    }
  | {
      readonly code: 'unequalBatches';
      /** 0 where they differ in weight alone, or in kinds of pieces. */
      readonly pieces: number;
      readonly pieceWord: string;
      readonly weightG: number;
    }
  | { readonly code: 'severalBaths'; readonly baths: number }
  | { readonly code: 'secondFill' }
  | { readonly code: 'bath'; readonly note: BathNote }
  | {
      readonly code: 'unlikeBatches';
      readonly baseName: string;
      readonly minPercent: number;
      readonly maxPercent: number;
    }
  /** Steps by their titles: the second waits until the first is over and its vessel emptied. */
  | { readonly code: 'potWait'; readonly vesselName: string; readonly first: string; readonly then: string }
  | { readonly code: 'ironMarksPot'; readonly vesselName: string }
  | { readonly code: 'synthetic' }
  | { readonly code: 'proteinAndCellulose' }
  | { readonly code: 'severalFibres' }
  /** Of an earlier plan, which kept the sentence alone. */
  | { readonly code: 'written'; readonly text: string };

/** A caution in a sentence. */
export function sayPlanCaution(caution: PlanCaution): string {
  switch (caution.code) {
    case 'short':
      return $localize`${caution.materialName} is short by ${formatAmount(caution.amount, caution.measure)}.`;
    case 'unequalBatches': {
      const by = caution.pieces > 0 ? countLabel(caution.pieces, caution.pieceWord) : `${caution.weightG} g`;
      return $localize`The batches differ by ${by}:by:: the same ratio and doses, but they heat at different speeds.`;
    }
    case 'severalBaths':
      return $localize`${caution.baths} baths: take readings of every batch before the lot is passed.`;
    case 'secondFill':
      return $localize`Two runs: the second is dyed after the first. Judge them side by side before either is passed.`;
    case 'bath':
      return sayBathNote(caution.note);
    case 'unlikeBatches':
      return $localize`${caution.baseName} is ${caution.minPercent} to ${caution.maxPercent} % of the fibre, batch by batch: fibres share the dye otherwise in each, and the shades may differ. Make the pieces divide alike, or dye it in one bath.`;
    case 'potWait':
      return $localize`“${caution.then}” waits until “${caution.first}” is over and ${caution.vesselName} is emptied: no other vessel is free for it.`;
    case 'ironMarksPot':
      return $localize`Iron goes into ${caution.vesselName}:vesselName:: what is dyed in it after that comes out duller. Keep a pot for iron, or scrub it and try it with a strip.`;
    case 'synthetic':
      return $localize`Synthetic fibre takes nothing from these baths: polyester, acrylic and polypropylene stay as they are.`;
    case 'proteinAndCellulose':
      return $localize`Protein and cellulose in one pot: protein takes the dye first and deeper. Mark them, and judge each against its own shade.`;
    case 'severalFibres':
      return $localize`Several fibres in one pot come out as different shades: tie a mark to each that survives the pot.`;
    case 'written':
      return caution.text;
  }
}

/** A plan's caution as it may have been kept: by earlier plans, in a sentence. */
export function readPlanCaution(kept: PlanCaution | KeptHeatCaution | string): PlanCaution {
  if (typeof kept === 'string') return { code: 'written', text: kept };
  return isKeptHeat(kept) ? { code: 'written', text: kept.note.message } : kept;
}

/** That a heat source is too weak, as it was kept before its facts were. */
interface KeptHeatCaution {
  readonly code: 'bath';
  readonly note: { readonly code: 'tooLittleHeat'; readonly message: string };
}

const isKeptHeat = (kept: PlanCaution | KeptHeatCaution): kept is KeptHeatCaution =>
  kept.code === 'bath' && 'message' in kept.note;
