export type { BathBalance, BathMove, BathMoveKind } from './bath-ledger';
export { BATH_MOVE_LABELS, BATH_MOVES, carriedOffMl, foldBath } from './bath-ledger';
export type { BlendShare, OfFibre, FibreFamily, FibreKind } from './fibre';
export type { FibreHeat } from './fibre';
export {
  baseDisplacementMl,
  fibresIn,
  FIBRE_KINDS,
  fibreDisplacementMl,
  fibreFamily,
  fibreHeat,
  fibreLabel,
} from './fibre';
export type { Heating, HeatSource, Mixing, Room } from './heating';
export { fullPotWeight, heatBath, mixToTemperature, wetWeight } from './heating';
export { liquorVolume } from './liquor';
export type { DosedReagent, PhDose } from './ph';
export { bathPh, doseToPh } from './ph';
export type { PhReagent } from './ph-reagent';
export { PH_REAGENT_LABELS, PH_REAGENTS } from './ph-reagent';
export type { PhRefusal } from './ph-refusal';
export { sayPhRefusal } from './ph-refusal';
export type { PhAdvice, PhTry } from './ph-dosing';
export { nextPhDose } from './ph-dosing';
export type { DyeState, Pot, PotBody } from './pot-model';
export {
  coastsTo,
  evaporationGPerS,
  exhaustAt,
  heatCapacityJPerK,
  layIn,
  letDyeIn,
  letPotStand,
  lossWPerK,
  pourIn,
  temperatureAfter,
  uptakeRatePerMin,
} from './pot-model';
export type { BathContent, LadderReading, LadderRung, LiquorChange, StandingLiquor } from './saved-bath';
export { changeLiquor, contentsAtVolume, ladderStrength, leftAfterUse, replenish } from './saved-bath';
export type { Vessel, VesselMetal } from './vessel';
export { maxC, VESSEL_METALS } from './vessel';
export type { HardnessUnit, WaterAsk, WaterFacts } from './water';
export type { WaterRemark } from './water-answer';
export { answerWater, sayWaterRemark } from './water-answer';
export { ANY_WATER, chalkToHarden, convertHardness, HARDNESS_UNIT_LABELS, HARDNESS_UNITS } from './water';
export type { VatFacts, VatFinding, VatKind, VatLook, VatReading } from './vat';
export { judgeVat, sayVat, VAT_FACTS, VAT_KINDS, VAT_LABELS, VAT_LOOK_LABELS, VAT_LOOKS } from './vat';
export type { VatDips } from './vat-dips';
export { dipsFor, vatDips, vatDipShare } from './vat-dips';
export type { VatFeed } from './vat-feed';
export { feedVat } from './vat-feed';
