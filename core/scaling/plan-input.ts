import type { BlendShare, FibreKind } from '../bath/fibre';
import type { Room } from '../bath/heating';
import type { Vessel } from '../bath/vessel';
import type { WaterFacts } from '../bath/water';
import type { Balance } from '../quantity/balance';
import type { Hazard } from '../safety/hazards';
import type { NamedPart } from '../stock/allocate';
import type { GradedStock } from '../stock/equivalence';
import type { MaterialKind } from '../stock/material-facts';
import type { DosedMaterial } from './dose-context';
import type { RecipeVersion } from '../recipe/recipe';
import type { Practice } from '../recipe/practice-questions';

/** A material as planning needs it. `stock` is what is free, by stock lot, in smallest units. */
export interface PlanMaterial extends DosedMaterial {
  readonly id: string;
  readonly kind?: MaterialKind | null;
  readonly hazards: readonly Hazard[];
  readonly stock: readonly GradedStock[];
  /** Grams fresh that gave one gram dried, as this studio dried it last; `null` where it never did. */
  readonly dryFactor: number | null;
}

/** So many pieces of one base. */
export interface PlanBase extends PlanMaterial {
  readonly fibre: FibreKind;
  readonly blend?: readonly BlendShare[] | undefined;
  readonly pieceWord: string;
  readonly pieces: number;
  readonly pieceWeightG: number;
  /** A customer's own: it never stood on the shelf, and nothing is taken from there. */
  readonly ownGoods?: boolean | undefined;
}

/** All that a recipe is scaled with: pieces, shelf, vessels, balance, water, room. */
export interface PlanInput {
  /** The colourway's own base first; others go through the same chain where it is for them. */
  readonly bases: readonly [PlanBase, ...PlanBase[]];
  readonly recipe: RecipeVersion;
  /** Every material the recipe doses. */
  readonly materials: readonly PlanMaterial[];
  readonly vessels: readonly Vessel[];
  readonly balance: Balance;
  readonly water: WaterFacts | null;
  readonly room: Room;
  /** ISO date, for best-before. */
  readonly today: string;
  /** House practice, for what a recipe doesn't say; none where absent. */
  readonly house?: Practice | undefined;
  /** A shorter bath than the recipe's, within its limit; the recipe's where absent. */
  readonly liquorRatio?: number | undefined;
  /** Out of which jars a material comes for this lot, in parts of what is weighed; as the shelf offers it where absent. */
  readonly outOf?: readonly (NamedPart & { readonly materialId: string })[] | undefined;
  /** How many times each vessel may be filled for this lot, one after another; once where absent. */
  readonly fills?: number | undefined;
}

/** What is free of a material, in smallest units. */
export const freeOf = (material: PlanMaterial): number =>
  material.stock.reduce((sum, s) => sum + Math.max(0, s.free), 0);

/** Materials of an input by their ids: one is asked for at every weighing. The base of an id goes first. */
const byId = new WeakMap<PlanInput, ReadonlyMap<string, PlanMaterial>>();

/**
 * The material of an id.
 * @throws {RangeError} where the recipe doses one that was not given.
 */
export function materialById(input: PlanInput, id: string): PlanMaterial {
  let known = byId.get(input);
  if (!known) {
    known = new Map([...input.materials, ...[...input.bases].reverse()].map((m) => [m.id, m] as const));
    byId.set(input, known);
  }
  const found = known.get(id);
  if (!found) throw new RangeError(`the recipe doses material ${id}, which was not given`);
  return found;
}
