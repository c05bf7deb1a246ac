import type { PlacedPlan, PlacedZone, ZoneWay } from '../recipe/placed';
import { layOutPlaced } from '../recipe/placed';
import type { RecipeStep } from '../recipe/recipe-step';

/** A zone as it is put on at a step of a lot. Minutes, cm, ml and g. */
export interface PlannedZone {
  /** Its place among the zones of the recipe’s placed colour: by it an entry names the zone. */
  readonly zone: number;
  readonly title: string;
  readonly way: ZoneWay;
  readonly order: number;
  readonly fromCm: number;
  readonly toCm: number;
  readonly pointsCm: readonly number[];
  readonly minutes: number;
  readonly waitMin: number;
  readonly mlPerPiece: number | null;
  readonly gPerPiece: number | null;
  readonly materialName: string | null;
  /** Pieces that get it. */
  readonly pieces: number;
  /** Done on one piece after the other, not on all of them together. */
  readonly pieceByPiece: boolean;
}

/** Ways that hands do on one piece at a time; the others take all pieces in one go. */
const PIECE_BY_PIECE: readonly ZoneWay[] = ['spray', 'pour', 'layOn'];

/**
 * At which step of the recipe each zone is done: what modifies at the modifying step, all else where it is dyed, and
 * no turn before the turn it follows. In the order of the zones as written; -1 of a recipe without steps.
 */
export function stepsOfZones(placed: PlacedPlan, steps: readonly Pick<RecipeStep, 'kind'>[]): number[] {
  const natural = (way: ZoneWay): number => {
    const kinds: readonly RecipeStep['kind'][] = way === 'modify' ? ['modify', 'dye'] : ['dye', 'modify'];
    return kinds.map((kind) => steps.map((s) => s.kind).lastIndexOf(kind)).find((i) => i !== -1) ?? steps.length - 1;
  };
  const byTurn = [...placed.zones.entries()].sort(([, a], [, b]) => a.order - b.order);
  const found = new Map<number, number>();
  let [turn, before, latest] = [-Infinity, -1, -1];
  for (const [i, zone] of byTurn) {
    if (zone.order > turn) [turn, before] = [zone.order, latest];
    const at = Math.max(before, natural(zone.way));
    found.set(i, at);
    latest = Math.max(latest, at);
  }
  return placed.zones.map((_, i) => found.get(i) ?? -1);
}

/**
 * The zones that hands do at one step of the recipe, turn by turn. Stretches left undyed are none.
 * @param pieces of the lot, those that go through the step
 * @param nameOf the name of a material of the stores
 */
export function zonesAt(
  placed: PlacedPlan | null,
  steps: readonly RecipeStep[],
  step: RecipeStep,
  pieces: number,
  nameOf: (materialId: string) => string,
): PlannedZone[] {
  if (placed === null) return [];
  const at = stepsOfZones(placed, steps);
  const stepIndex = steps.indexOf(step);
  const numbers = new Map(placed.zones.map((z, i): [PlacedZone, number] => [z, i]));
  const layout = layOutPlaced(placed, 1);
  const inTurns = [...placed.zones].sort((a, b) => a.order - b.order || a.fromPercent - b.fromPercent);
  return layout.zones.flatMap((z, n) => {
    const zone = numbers.get(inTurns[n] as PlacedZone) ?? -1;
    if (at[zone] !== stepIndex || z.way === 'leave') return [];
    return [
      {
        zone,
        title: z.title,
        way: z.way,
        order: z.order,
        fromCm: z.fromCm,
        toCm: z.toCm,
        pointsCm: z.pointsCm,
        minutes: z.minutes,
        waitMin: z.waitMin,
        mlPerPiece: z.mlPerPiece,
        gPerPiece: z.gPerPiece ?? null,
        materialName: z.materialId === null ? null : nameOf(z.materialId),
        pieces,
        pieceByPiece: PIECE_BY_PIECE.includes(z.way),
      },
    ];
  });
}
