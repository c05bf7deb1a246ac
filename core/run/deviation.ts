import type { StockMeasure } from '../quantity/amount';
import { formatAmount } from '../quantity/amount';
import { sayMinutes } from '../quantity/duration';

/**
 * Something that went otherwise than planned at a step, as facts. Minutes, °C, and amounts in smallest units of their
 * measure.
 */
export type DeviationFact =
  | { readonly code: 'skipped' | 'redone' | 'outOfOrder' | 'reported'; readonly text: string }
  | {
      readonly code: 'otherVessel';
      readonly batch: number;
      readonly vesselName: string;
      readonly plannedName: string;
    }
  | { readonly code: 'otherWater'; readonly waterName: string }
  | { readonly code: 'late'; readonly waitedMin: number; readonly maxMin: number }
  | { readonly code: 'early'; readonly waitedMin: number; readonly minMin: number }
  | { readonly code: 'notWeighed'; readonly materialName: string; readonly batch: number }
  | { readonly code: 'leftOut'; readonly materialName: string; readonly batch: number; readonly reason: string }
  | {
      readonly code: 'otherAmount';
      readonly materialName: string;
      readonly batch: number;
      /** More than planned where above nothing, less where below. */
      readonly off: number;
      readonly measure: StockMeasure;
    }
  | { readonly code: 'otherStockLot'; readonly materialName: string; readonly tags: readonly string[] }
  | {
      readonly code: 'notHeld';
      readonly heldMin: number;
      readonly wantedMin: number;
      readonly atC: number;
      readonly bandC: number;
    }
  | { readonly code: 'aboveCeiling'; readonly hottestC: number; readonly ceilingC: number }
  | { readonly code: 'hotter' | 'colder'; readonly hottestC: number; readonly plannedC: number }
  | {
      readonly code: 'shorter';
      readonly minutes: number;
      readonly plannedMin: number;
      /** Where less time gives less colour. */
      readonly paler: boolean;
    }
  | { readonly code: 'longer'; readonly minutes: number; readonly plannedMin: number }
  | { readonly code: 'phOutside'; readonly ph: number; readonly low: number; readonly high: number };

/** A deviation in words, with its likely effect. */
export function sayDeviation(fact: DeviationFact): string {
  switch (fact.code) {
    case 'skipped':
      return `skipped: ${fact.text}`;
    case 'redone':
      return `done over: ${fact.text}`;
    case 'outOfOrder':
      return `begun out of order: ${fact.text}`;
    case 'reported':
      return fact.text;
    case 'otherVessel':
      return `batch ${fact.batch} in ${fact.vesselName} instead of ${fact.plannedName}: another metal or fill shifts the shade`;
    case 'otherWater':
      return `${fact.waterName} used instead of the water planned: the same recipe comes out otherwise in other water`;
    case 'late':
      return `late: stood ${sayMinutes(fact.waitedMin)} before it, ${sayMinutes(fact.maxMin)} at most planned`;
    case 'early':
      return `begun after ${sayMinutes(fact.waitedMin)}, ${sayMinutes(fact.minMin)} at least planned: it had not stood long enough`;
    case 'notWeighed':
      return `no ${fact.materialName} weighed for batch ${fact.batch}`;
    case 'leftOut':
      return `${fact.materialName} left out of batch ${fact.batch}: ${fact.reason}`;
    case 'otherAmount':
      return `${formatAmount(Math.abs(fact.off), fact.measure)} ${fact.off > 0 ? 'more' : 'less'} ${fact.materialName} than planned in batch ${fact.batch}`;
    case 'otherStockLot':
      return `${fact.materialName} taken from ${fact.tags.join(' and ')} instead of the jar planned`;
    case 'notHeld':
      return `held ${sayMinutes(fact.heldMin)} of ${sayMinutes(fact.wantedMin)} within ${fact.bandC} °C of ${fact.atC} °C: expect paler`;
    case 'aboveCeiling':
      return `reached ${fact.hottestC} °C, above the ceiling of ${fact.ceilingC} °C: the colour may have dulled`;
    case 'hotter':
      return `reached ${fact.hottestC} °C, planned ${fact.plannedC} °C`;
    case 'colder':
      return `only reached ${fact.hottestC} °C, planned ${fact.plannedC} °C: expect paler`;
    case 'shorter':
      return `short: ${sayMinutes(fact.minutes)} instead of ${sayMinutes(fact.plannedMin)}${fact.paler ? ', expect paler' : ''}`;
    case 'longer':
      return `${sayMinutes(fact.minutes)} instead of ${sayMinutes(fact.plannedMin)}`;
    case 'phOutside':
      return `left at pH ${fact.ph}, wanted ${fact.low} to ${fact.high}: expect another hue`;
  }
}
