export type { Allocation, AvailableStock, Pick } from './allocate';
export { allocate, byExpiryThenReceipt } from './allocate';
export type { ConversionCheck, ConversionInput, ConversionKind, PacketFacts } from './conversion';
export {
  blendStrength,
  checkConversion,
  CONVERSION_KINDS,
  FIBRE_CONVERSIONS,
  CONVERSION_LABELS,
  freshToDried,
  packetsFor,
  stockConcentration,
  volumeForDose,
} from './conversion';
export type { CountCase } from './counting';
export { likelyReasons, netOfTare } from './counting';
export type { Equivalence, GradedStock } from './equivalence';
export { equivalenceOf } from './equivalence';
export type { Reorder, RunOut, Season, UseHistory, UseRate } from './forecast';
export { daysToNextSeason, isInSeason, rateOfUse, reorder, runOut, toGather } from './forecast';
export type { FormChange, JarUse, PickedUse, Picking } from './gathering';
export { fibrePerHour, followPicked, gramsPerHour } from './gathering';
export type { DatedMovement, Movement, MovementKind } from './ledger';
export { countDifference, firstOverdraft, foldOnHand, MOVEMENT_KINDS, onHandAt } from './ledger';
export type {
  FastnessWord,
  LightPlace,
  LiquorKind,
  LiquorSign,
  MaterialForm,
  MaterialKind,
  StockOrigin,
  Treatment,
} from './material-facts';
export {
  FASTNESS_LABELS,
  judgeSigns,
  KEPT_FORMS,
  LIGHT_PLACE_LABELS,
  LIGHT_PLACES,
  LIQUOR_KINDS,
  LIQUOR_SIGNS,
  LIQUOR_LABELS,
  MATERIAL_FORMS,
  MATERIAL_KIND_LABELS,
  MATERIAL_KINDS,
  STOCK_ORIGINS,
  TREATMENTS,
} from './material-facts';
export type { Valuation, ValuationMethod, ValuedMovement } from './valuation';
export { formatMoney, readMoney, VALUATION_METHODS, valueStock, withoutReversed } from './valuation';
