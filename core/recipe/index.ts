export type { Chain } from './chain';
export type { ChainFault } from './chain-fault';
export { sayChainFault } from './chain-fault';
export { findChainFault, followsLabel, keyOf, orderChain } from './chain';
export type { VersionDifference } from './compare-versions';
export { compareVersions, sayCourse, sayDose, sayLeg } from './compare-versions';
export type { FinishedBy, HeatLeg, HeatLegKind, LegNow, StrainWay } from './course';
export {
  FINISHED_BY,
  HEAT_LEG_LABELS,
  HEAT_LEGS,
  hottestC,
  legNow,
  stepMinutes,
  wholeCourse,
  STRAIN_WAYS,
  STRAIN_LABELS,
} from './course';
export type { BathUnit, Dose, DoseWay } from './dose';
export { BATH_UNITS, DOSE_WAYS } from './dose';
export type { ChosenDose, RangedDose } from './ranged-doses';
export { chooseDoses, findChoiceOutside, rangedDoses } from './ranged-doses';
export type { ZoneLayout, PlacedLayout, PlacedPlan, PlacedZone, ZoneWay } from './placed';
export type { PlacedCaution, PlacedFault } from './placed-fault';
export { sayPlacedCaution, sayPlacedFault } from './placed-fault';
export { findPlacedFault, layOutPlaced, ZONE_WAYS, ZONE_LABELS } from './placed';
export type { Practice, PracticeChoice, PracticeQuestion } from './practice-questions';
export { PRACTICE, practiceChoice, practiceDifferences } from './practice-questions';
export type { Evidence, RecipeStatus } from './proof';
export { DEFAULT_PROOFS_NEEDED, mayHaveStatus, RECIPE_STATUSES } from './proof';
export type { RecipePart, RecipeVersion } from './recipe';
export type { RecipeStep } from './recipe-step';
export { recipeStep } from './recipe-step';
export type { PracticeMaterials } from './replan-steps';
export { changesChain, replanFor } from './replan-chain';
export { practiceMaterials } from './replan-steps';
export type { StepKind } from './step-kind';
export { STEP_KIND_LABELS, STEP_KINDS, STEP_PURPOSES, takesPieces } from './step-kind';
export type { Starter, StarterBody } from './starters';
export { STARTER_LABELS, STARTERS, starterNeeds, starterRecipe, startersFor } from './starters';
export type { AddedToDye, CorrectedDose } from './corrected-doses';
export {
  LEAST_CORRECTED_SHARE,
  LEAST_DYE_TIME_SHARE,
  MOST_CORRECTED_SHARE,
  MOST_DYE_TIME_SHARE,
  addAfterDye,
  addToDye,
  correctDoses,
  wholeMaterials,
  dyeDips,
  stretchDye,
} from './corrected-doses';
export type { BathMark, SharedBath } from './shared-baths';
export { bathMarks, sharedBaths } from './shared-baths';
