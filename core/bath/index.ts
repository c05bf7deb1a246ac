export type { BathBalance, BathMove, BathMoveKind } from './bath-ledger';
export { BATH_MOVE_LABELS, BATH_MOVES, carriedOffMl, foldBath, leftInBath } from './bath-ledger';
export type { FibreFamily, FibreKind } from './fibre';
export type { FibreHeat } from './fibre';
export { FIBRE_KINDS, fibreDisplacementMl, fibreFamily, fibreHeat, fibreLabel } from './fibre';
export type { Heating, HeatSource, Mixing, Room } from './heating';
export { fullPotWeight, heatBath, mixToTemperature, wetWeight } from './heating';
export { liquorVolume } from './liquor';
export type { DosedReagent, PhDose, PhReagent, PhRefusal } from './ph';
export { bathPh, doseToPh, PH_REAGENT_LABELS, PH_REAGENTS } from './ph';
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
export type { BathContent, LadderReading, LadderRung } from './saved-bath';
export { contentsAtVolume, ladderStrength, leftAfterUse, replenish } from './saved-bath';
export type { Vessel, VesselMetal } from './vessel';
export { maxC, VESSEL_METALS } from './vessel';
export type { HardnessUnit, WaterAnswer, WaterAsk, WaterFacts } from './water';
export { answerWater, ANY_WATER, chalkToHarden, convertHardness, HARDNESS_UNIT_LABELS, HARDNESS_UNITS } from './water';
