import { worded } from '../words/worded';
import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
import { formatDegreesApart, formatTemperature } from '../quantity/temperature';
import type { StockMeasure } from '../quantity/amount';
import { formatAmount } from '../quantity/amount';
import { sayMinutes } from '../quantity/duration';
import { countLabel, joinList } from '../quantity/word-list';
import type { StrainWay } from '../recipe/course';
import { STRAIN_LABELS } from '../recipe/course';
import { formatVolume } from '../quantity/volume';
import type { NotDry } from './run-entry';

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
  | {
      readonly code: 'added';
      readonly name: string;
      readonly batch: number;
      /** Smallest units, or `null` where nobody knows; then `quantityText` says it. */
      readonly amount: number | null;
      readonly measure: StockMeasure;
      readonly quantityText: string;
      readonly guessed: boolean;
    }
  | { readonly code: 'stretched'; readonly batch: number; readonly ml: number; readonly plannedMl: number }
  | { readonly code: 'piecesIn' | 'piecesOut'; readonly batch: number; readonly pieces: number; readonly text: string }
  | {
      readonly code: 'extraStep';
      readonly title: string;
      readonly minutes: number | null;
      readonly temperatureC: number | null;
      readonly text: string;
    }
  | {
      readonly code: 'zoneLeft' | 'zoneNote';
      readonly title: string;
      /** `null`: on all of them. */
      readonly piece: number | null;
      readonly text: string;
    }
  | {
      readonly code: 'zoneUndone';
      readonly title: string;
      /** Which pieces lack it; empty where all do. */
      readonly pieces: readonly number[];
    }
  | {
      readonly code: 'zoneTime';
      readonly title: string;
      readonly piece: number | null;
      readonly minutes: number;
      readonly plannedMin: number;
    }
  | {
      readonly code: 'zoneMl';
      readonly title: string;
      readonly piece: number | null;
      readonly ml: number;
      readonly plannedMl: number;
    }
  | { readonly code: 'notDry'; readonly materialName: string; readonly batch: number; readonly how: NotDry }
  | { readonly code: 'strainedOtherwise'; readonly way: StrainWay; readonly planned: StrainWay | null }
  | { readonly code: 'stoodStill'; readonly minutes: number }
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
  | {
      readonly code: 'longer';
      readonly minutes: number;
      readonly plannedMin: number;
      /** What longer does there. */
      readonly means: 'deeper' | 'moreShift' | 'unknown';
    }
  | { readonly code: 'phOutside'; readonly ph: number; readonly low: number; readonly high: number };

const LONGER_MEANS = worded(
  () => ({ deeper: $localize`, expect deeper`, moreShift: $localize`, expect a stronger shift`, unknown: '' }) as const,
);
const onPiece = (piece: number | null): string => (piece === null ? '' : $localize` on piece ${piece}`);
const reason = (text: string): string => (text === '' ? '' : ` (${text})`);

/** A deviation in words, with its likely effect. */
export function sayDeviation(fact: DeviationFact): string {
  switch (fact.code) {
    case 'skipped':
      return $localize`skipped: ${fact.text}`;
    case 'redone':
      return $localize`done over: ${fact.text}`;
    case 'outOfOrder':
      return $localize`begun out of order: ${fact.text}`;
    case 'reported':
      return fact.text;
    case 'otherVessel':
      return $localize`batch ${fact.batch} in ${fact.vesselName} instead of ${fact.plannedName}:plannedName:: another metal or fill shifts the shade`;
    case 'otherWater':
      return $localize`${fact.waterName} used instead of the water planned: the same recipe comes out otherwise in other water`;
    case 'added': {
      const amount =
        fact.amount === null
          ? fact.quantityText
          : `${fact.guessed ? $localize`about ` : ''}${formatAmount(fact.amount, fact.measure)}`;
      return $localize`${fact.name} was put in as well, ${amount} in batch ${fact.batch}:batch:: the plan has none, so it may come out otherwise`;
    }
    case 'stretched':
      return $localize`the bath of batch ${fact.batch} was stretched to ${formatVolume(fact.ml)} from ${formatVolume(fact.plannedMl)}:plannedMl:: expect paler`;
    case 'piecesIn':
      return $localize`${countLabel(fact.pieces, 'piece')} more went into batch ${fact.batch}${reason(fact.text)}:text:: expect paler`;
    case 'piecesOut':
      return $localize`${countLabel(fact.pieces, 'piece')} taken out of batch ${fact.batch}${reason(fact.text)}:text:: a shade of ${fact.pieces === 1 ? $localize`its` : $localize`their`} own, and more dye for the rest`;
    case 'extraStep': {
      const how = [
        fact.minutes === null ? '' : sayMinutes(fact.minutes),
        fact.temperatureC === null ? '' : `${formatTemperature(fact.temperatureC)}`,
      ].filter((part) => part !== '');
      return $localize`“${fact.title}” was done after it, which the chain doesn’t have${how.length === 0 ? '' : ` (${how.join(', ')})`}${fact.text === '' ? '' : `: ${fact.text}`}`;
    }
    case 'zoneLeft':
      return $localize`“${fact.title}” left out${onPiece(fact.piece)}:piece:: ${fact.text}`;
    case 'zoneUndone':
      return $localize`“${fact.title}” was not put on${fact.pieces.length === 0 ? '' : ` ${fact.pieces.length === 1 ? 'piece' : 'pieces'} ${joinList(fact.pieces.map(String))}`}`;
    case 'zoneTime':
      return $localize`“${fact.title}”${onPiece(fact.piece)} was in for ${sayMinutes(fact.minutes)} instead of ${sayMinutes(fact.plannedMin)}, expect ${fact.minutes > fact.plannedMin ? $localize`deeper` : $localize`paler`} there`;
    case 'zoneMl':
      return $localize`“${fact.title}”${onPiece(fact.piece)} got ${fact.ml} ml instead of ${fact.plannedMl}${fact.ml > fact.plannedMl ? $localize`, and may have crept further` : ''}`;
    case 'zoneNote':
      return `“${fact.title}”${onPiece(fact.piece)}: ${fact.text}`;
    case 'notDry':
      return $localize`${fact.materialName} in batch ${fact.batch} was ${fact.how === 'damp' ? $localize`weighed damp` : $localize`guessed`}:how:: every per cent of fibre stands on it, so weigh it once it is dry`;
    case 'strainedOtherwise':
      return $localize`${STRAIN_LABELS[fact.way]}${fact.planned === null ? '' : $localize` instead of ${STRAIN_LABELS[fact.planned]}`}:planned:: spots and evenness may differ`;
    case 'stoodStill':
      return $localize`stood still for ${sayMinutes(fact.minutes)}:minutes:: what cools takes on less`;
    case 'late':
      return $localize`late: stood ${sayMinutes(fact.waitedMin)} before it, ${sayMinutes(fact.maxMin)} at most planned`;
    case 'early':
      return $localize`begun after ${sayMinutes(fact.waitedMin)}, ${sayMinutes(fact.minMin)} at least planned: it had not stood long enough`;
    case 'notWeighed':
      return $localize`no ${fact.materialName} weighed for batch ${fact.batch}`;
    case 'leftOut':
      return $localize`${fact.materialName} left out of batch ${fact.batch}:batch:: ${fact.reason}`;
    case 'otherAmount':
      return $localize`${formatAmount(Math.abs(fact.off), fact.measure)} ${fact.off > 0 ? $localize`more` : $localize`less`} ${fact.materialName} than planned in batch ${fact.batch}`;
    case 'otherStockLot':
      return $localize`${fact.materialName} taken from ${fact.tags.join($localize` and `)} instead of the jar planned`;
    case 'notHeld':
      return $localize`held ${sayMinutes(fact.heldMin)} of ${sayMinutes(fact.wantedMin)} within ${formatDegreesApart(fact.bandC)} of ${formatTemperature(fact.atC)}:atC:: expect paler`;
    case 'aboveCeiling':
      return $localize`reached ${formatTemperature(fact.hottestC)}, above the ceiling of ${formatTemperature(fact.ceilingC)}:ceilingC:: the colour may have dulled`;
    case 'hotter':
      return $localize`reached ${formatTemperature(fact.hottestC)}, planned ${formatTemperature(fact.plannedC)}`;
    case 'colder':
      return $localize`only reached ${formatTemperature(fact.hottestC)}, planned ${formatTemperature(fact.plannedC)}:plannedC:: expect paler`;
    case 'shorter':
      return $localize`short: ${sayMinutes(fact.minutes)} instead of ${sayMinutes(fact.plannedMin)}${fact.paler ? $localize`, expect paler` : ''}`;
    case 'longer':
      return $localize`${sayMinutes(fact.minutes)} instead of ${sayMinutes(fact.plannedMin)}${LONGER_MEANS[fact.means]}`;
    case 'phOutside':
      return $localize`left at ${sayPh(fact.ph)}, wanted ${trimZeros(fact.low, 2)} to ${trimZeros(fact.high, 2)}:high:: expect another hue`;
  }
}
