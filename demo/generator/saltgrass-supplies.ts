/**
 * Deliveries a year: material, place on the shelf, source, grams or ml each, months between, months it keeps,
 * strength of each coming.
 */
export interface SupplySeed {
  readonly material: string;
  readonly place: string;
  readonly source: string;
  readonly each: number;
  readonly everyMonths: number;
  readonly keepsMonths: number | null;
  readonly strengths: readonly number[];
  /** Pence for a gram or millilitre; 0 for what is grown or gathered. */
  readonly pence: number;
}

export const supply = (
  material: string,
  place: string,
  source: string,
  each: number,
  everyMonths: number,
  keepsMonths: number | null,
  pence: number,
  strengths: readonly number[] = [1],
): SupplySeed => ({ material, place, source, each, everyMonths, keepsMonths, pence, strengths });

export const SUPPLIES: readonly SupplySeed[] = [
  supply('Rug wool', 'Loft, east rail', 'the fell mill', 20_000, 3, null, 1.9),
  supply('Linen scrim', 'Loft, west rail', 'the drapers’ clearance', 14_000, 4, null, 2.6),
  supply('Silk ribbon', 'Cabinet 1', 'the ribbon loom', 3_500, 5, null, 11),
  supply('Potassium alum', 'Mordant cupboard, top', 'order of the quarter', 4_000, 4, null, 0.9),
  supply('Aluminium acetate', 'Mordant cupboard, top', 'order of the quarter', 1_500, 7, 36, 3.4),
  supply('Cream of tartar', 'Mordant cupboard, middle', 'order of the quarter', 2_000, 5, null, 1.6),
  supply('Chalk', 'Mordant cupboard, middle', 'order of the quarter', 1_000, 12, null, 0.4),
  supply('Soda ash', 'Mordant cupboard, floor', 'order of the quarter', 2_500, 6, null, 0.5),
  supply('Neutral soap', 'By the sink', 'order of the quarter', 1_500, 5, 24, 1.1),
  supply('White vinegar', 'By the sink', 'the village shop', 5_000, 8, 24, 0.12),
  supply('Iron sulphate', 'Locked box', 'order of the quarter', 800, 10, 36, 0.8),
  supply('Weld, dried tops', 'Drying loft, jar row A', 'own bed by the sea wall', 13_000, 6, 30, 0, [1, 0.84, 0.93]),
  supply('Alder cones', 'Drying loft, jar row B', 'carr wood, with leave', 16_000, 7, 60, 0, [1, 1.08]),
  supply('Cutch', 'Cabinet 2', 'order of the year', 4_500, 9, null, 4.2, [1, 0.95]),
  supply('Buckthorn berries', 'Locked box', 'hedge by the pound', 5_000, 8, 18, 0, [1, 0.9]),
  supply('Tansy, dried', 'Drying loft, jar row A', 'creek bank, with leave', 9_000, 6, 24, 0, [1, 0.88]),
  supply('Bedstraw root', 'Drying loft, jar row C', 'grown in the sand bed', 9_500, 7, 48, 0, [1, 1.05]),
  supply('Safflower petals', 'Cabinet 2', 'order of the year', 3_000, 9, 20, 5.5),
  supply('Alkanet root', 'Cabinet 2', 'order of the year', 2_600, 9, 30, 4.8),
  supply('Oak galls, ground', 'Cabinet 2', 'order of the year', 2_200, 8, null, 3.9, [1, 0.97]),
];
