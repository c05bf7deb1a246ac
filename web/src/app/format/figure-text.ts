import type { Figure, FigureInput } from '@vestigia/core';
import { trimZeros, decimals, formatVolume, formatWeight } from '@vestigia/core';

/** A number with its unit, as the studio reads it. */
export function quantityText(value: number | string, unit: string): string {
  if (typeof value === 'string') return unit === '' ? value : `${value} ${unit}`;
  if (unit === 'g') return formatWeight(value);
  if (unit === 'ml') return formatVolume(value);
  if (unit === 'ΔE00') return `ΔE00 ${decimals(value, 1)}`;
  const rounded = Math.round(value * 1000) / 1000;
  const written = trimZeros(rounded, 3);
  return unit === '' ? written : `${written} ${unit}`;
}

export const figureText = (figure: Figure): string => quantityText(figure.value, figure.unit);
export const inputText = (input: FigureInput): string => quantityText(input.value, input.unit);
