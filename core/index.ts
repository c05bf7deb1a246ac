export type { Figure, FigureInput, Working } from './quantity/figure';
export { figure } from './quantity/figure';
export { convertGramsToMilligrams, convertMicrolitresToMillilitres, convertMilligramsToGrams, convertMillilitresToMicrolitres } from './quantity/smallest-units';
export { readWrittenNumber } from './quantity/written-number';
export type { WeightReading } from './quantity/weight';
export { formatVolume, formatWeight, readWeight } from './quantity/weight';
export type { AmountReading, StockMeasure } from './quantity/amount';
export { STOCK_MEASURES, formatAmount, readAmount } from './quantity/amount';
export type { LotSize, LotSizeReading } from './quantity/lot-size';
export { HEAVIEST_PIECE_G, readLotSize } from './quantity/lot-size';
export type { Balance } from './quantity/balance';
export { roundToResolution, weighableDose, weighingToleranceG } from './quantity/balance';

export type { FibreFamily, FibreKind } from './bath/fibre';
export { FIBRE_KINDS, fibreDisplacementMl, fibreFamily } from './bath/fibre';
export { bathVolumeMl, liquorVolume } from './bath/liquor';
export type { Vessel, VesselMetal } from './bath/vessel';
export { VESSEL_METALS, piecesThatFit } from './bath/vessel';

export type { Dose, RecipeStep, RecipeVersion, StepKind } from './recipe/recipe';
export { STEP_KINDS } from './recipe/recipe';
export type { LotPlan, PlannedBatch, PlannedMaterial, PlannedPick, PlannedStep, PlannedWeighing, PlanRefusal, PlanResult } from './recipe/lot-plan';
export type { PlanInput, PlanMaterial } from './recipe/plan-lot';
export { planLot } from './recipe/plan-lot';
export { scaleDose } from './recipe/scale-dose';
export { sharePicks } from './recipe/share-picks';
export type { BatchShare, SplitResult, VesselRoom } from './recipe/split-batches';
export { splitBatches } from './recipe/split-batches';
export type { Deviation, StepRecord } from './recipe/deviations';
export { findDeviations, sayMinutes } from './recipe/deviations';
export type { RunEntry, RunEntryKind, StepState } from './recipe/run-record';
export { RUN_ENTRY_KINDS, foldRun, nextStepIndex, standingEntries, stepState } from './recipe/run-record';

export type { LedgerLine, Movement, MovementKind } from './stock/ledger';
export { MOVEMENT_KINDS, countDifference, foldOnHand, ledgerLines } from './stock/ledger';
export type { Allocation, AvailableStock, Pick } from './stock/allocate';
export { allocate, byExpiryThenReceipt } from './stock/allocate';

export type { ColourConditions, Illuminant, Lab, Observer } from './colour/lab';
export { ILLUMINANTS, OBSERVERS, chroma, hueDegrees, meanLab, sameConditions } from './colour/lab';
export type { Ciede2000 } from './colour/ciede2000';
export { ciede2000 } from './colour/ciede2000';
export type { ScreenColour } from './colour/screen-colour';
export { screenColour } from './colour/screen-colour';
export type { DifferenceInWords } from './colour/words';
export { describeColour, describeDifference } from './colour/words';
export type { BatchReading, LotColour, MasterStandard, ReadingState, Verdict, VerdictCase, VerdictRefusal } from './colour/verdict';
export { READING_STATES, VERDICTS, checkVerdict, lotColour, settledReadings } from './colour/verdict';

export type { Factor, LotConditions, MaterialSource, MaterialUse } from './match/then-and-now';
export { compareThenAndNow } from './match/then-and-now';

export type { PotLine, PotSegment, RunningStep } from './schedule/pot-line';
export { layPotLine } from './schedule/pot-line';
export type { RemainingTime } from './schedule/remaining-time';
export { remainingTime } from './schedule/remaining-time';

export type { TracedMovement } from './trace/trace';
export { lotsFromStockLot, stockLotsInLot } from './trace/trace';

export type { Hazard } from './safety/hazards';
export { HAZARDS, HAZARD_WORDS } from './safety/hazards';
export { cautionsForStep } from './safety/cautions';
