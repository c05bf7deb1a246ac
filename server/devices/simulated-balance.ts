import { createHash } from 'node:crypto';
import type { BalanceReading } from '@vestigia/contract';
import { roundToResolution } from '@vestigia/core';

/** What lies on the pan. Grams. */
export interface Load {
  /** Tells one load from another: the same thing weighs the same for a while, as on a real pan. */
  readonly key: string;
  readonly trueG: number;
  /** How far this thing may be from what is written of it: a shelf drifts, a spoon is never quite level. */
  readonly spreadShare: number;
}

export interface BalanceCard {
  readonly name: string;
  readonly resolutionG: number;
  readonly capacityG: number;
}

/** Normal deviate from a text, so that readings can be repeated and tests don't hang on chance. */
function deviateOf(key: string): number {
  const digest = createHash('sha256').update(key).digest();
  let sum = -6;
  for (let i = 0; i < 12; i += 1) sum += digest.readUInt16BE(i * 2) / 65_536;
  return sum;
}

/**
 * A simulated instrument for a balance on the bench: it ships so that counting and spoons can be tried without one,
 * and says what it is. It rounds to its step, refuses more than it carries, and takes a moment to settle.
 */
export function readSimulatedBalance(load: Load, card: BalanceCard): BalanceReading {
  const weightG = Math.max(0, load.trueG * (1 + load.spreadShare * deviateOf(load.key)));
  const overload = weightG > card.capacityG;
  return {
    instrument: `${card.name} (simulated)`,
    simulated: true,
    weightG: overload ? 0 : roundToResolution(weightG, card.resolutionG),
    settledMs: 600 + Math.round(200 * Math.abs(deviateOf(`${load.key} settles`))),
    overload,
  };
}
