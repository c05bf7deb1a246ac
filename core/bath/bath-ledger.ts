import { worded } from '../words/worded';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** What can happen to the liquor in a pot, as kinds of entry. */
export const BATH_MOVES = ['fill', 'add', 'evaporate', 'takeOut', 'level'] as const;
/** One of `BATH_MOVES`. */
export type BathMoveKind = (typeof BATH_MOVES)[number];
/** How the bench says each move. */
export const BATH_MOVE_LABELS: Readonly<Record<BathMoveKind, string>> = worded(() => ({
  fill: $localize`filled`,
  add: $localize`water or solution added`,
  evaporate: $localize`steamed off`,
  takeOut: $localize`taken out`,
  level: 'measured',
}));

/**
 * One thing that changed how much is in a bath. `level` is a measuring: it sets the volume, and what is missing has
 * steamed off.
 */
export interface BathMove {
  readonly kind: BathMoveKind;
  readonly ml: number;
  readonly label: string;
}

/** Liquor that wet pieces carry out of a bath, ml per g of dry fibre, squeezed by hand. */
const CARRIED_ML_PER_G = 1.5;

/** A bath summed up: all that went in, what steamed off, was taken out, and what is left. Volumes in ml. */
export interface BathBalance {
  /** What is left, ml. */
  readonly left: Figure;
  readonly addedMl: number;
  readonly steamedOffMl: number;
  readonly takenOutMl: number;
}

/** Sums a bath: what went in, what steamed off, what was taken out and what pieces carried off. Never below nothing. */
export function foldBath(moves: readonly BathMove[]): BathBalance {
  let [leftMl, addedMl, steamedOffMl, takenOutMl] = [0, 0, 0, 0];
  for (const move of moves) {
    if (!(move.ml >= 0)) throw new RangeError('a bath moves by volumes above nothing');
    if (move.kind === 'level') {
      if (move.ml < leftMl) steamedOffMl += leftMl - move.ml;
      leftMl = move.ml;
    } else if (move.kind === 'fill' || move.kind === 'add') {
      leftMl += move.ml;
      addedMl += move.ml;
    } else {
      const gone = Math.min(move.ml, leftMl);
      leftMl -= gone;
      if (move.kind === 'evaporate') steamedOffMl += gone;
      else takenOutMl += gone;
    }
  }
  const inputs = [
    { name: $localize`in`, value: Math.round(addedMl), unit: 'ml' },
    { name: $localize`steamed off`, value: Math.round(steamedOffMl), unit: 'ml' },
    { name: $localize`taken out`, value: Math.round(takenOutMl), unit: 'ml' },
  ];
  return {
    left: figure(
      Math.round(leftMl),
      'ml',
      $localize`what went in − what steamed off − what was taken out`,
      inputs,
      moves.some((m) => m.kind === 'level')
        ? [$localize`set by measuring`]
        : [$localize`worked out; measure it to be sure`],
    ),
    addedMl,
    steamedOffMl,
    takenOutMl,
  };
}

/** What wet pieces take with them when they are lifted, ml. */
export const carriedOffMl = (dryG: number): number => Math.round(dryG * CARRIED_ML_PER_G);
