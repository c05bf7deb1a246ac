import type { PlacedZone } from '@vestigia/core';

const MIN_PERCENT = 1;

/** Moves one edge of a zone to whole per cents, kept on the piece, and never past its other edge. */
export function moveEdge(
  zones: readonly PlacedZone[],
  index: number,
  side: 'fromPercent' | 'toPercent',
  percent: number,
): PlacedZone[] {
  return zones.map((z, i) => {
    if (i !== index) return z;
    const whole = Math.round(percent);
    return side === 'fromPercent'
      ? { ...z, fromPercent: Math.max(0, Math.min(whole, z.toPercent - MIN_PERCENT)) }
      : { ...z, toPercent: Math.min(100, Math.max(whole, z.fromPercent + MIN_PERCENT)) };
  });
}
