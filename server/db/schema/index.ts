/*
 * Tables marked «append-only» refuse update, delete and truncate in the database itself (see the hand-written
 * migrations).
 * Amounts are whole smallest units: mg or µl. Times are UTC. `seq` is the order of recording, which a clock can't
 * disturb.
 */
export { atHand, secrets, people, sessions, idempotencyKeys } from './people';
export { deeds } from './deeds';
export { studio, heatSources, vessels, waters } from './room';
export { materials, spoonWeighings, stockLots, stocktakes } from './materials';
export { notes } from './notes';
export { recipes, recipeVersions, recipeStatuses, proofs } from './recipes';
export { stripTrials, stripLooks, stripReadings, stripPromotions } from './strip-trials';
export type { RunningOfLot } from './lots';
export {
  colourways,
  masters,
  lots,
  runEntries,
  readings,
  eyeReadings,
  verdicts,
  verdictTakeBacks,
  lotProgress,
} from './lots';
export { containers, cautionsPutAway, probeLogs, tags } from './bench';
export { attachments, stockBalances, conversions, liquorEntries, movements, pickings, reservations } from './ledger';
export { swatches, fastnessReadings, fastnessTests, patchCards } from './judge';
export { customers, goods, orderLineLots, orderLines, orders } from './orders';
export { arrivals, houseTimes, lotsWanted, plans } from './plan';
