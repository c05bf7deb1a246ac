import type { LotCost } from '@vestigia/contract';

/** What a lot was to cost in all, and what it did: what nobody said the price of isn’t in it. Minor units. */
export function wholeCost(cost: LotCost): { readonly planned: number; readonly real: number } {
  const of = ({ heatMinor, waterMinor, handsMinor }: LotCost['planned']): number =>
    (heatMinor ?? 0) + (waterMinor ?? 0) + (handsMinor ?? 0);
  return { planned: cost.plannedMinor + of(cost.planned), real: cost.averageMinor + of(cost.real) };
}

/** A piece’s share of it. */
export const costOfAPiece = (minor: number, { pieces }: Pick<LotCost, 'pieces'>): number =>
  Math.round(minor / Math.max(1, pieces));
