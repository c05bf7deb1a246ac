export type { Figure, FigureInput, Working } from './quantity/figure';
export { figure } from './quantity/figure';
export { convertGramsToMilligrams, convertMicrolitresToMillilitres, convertMilligramsToGrams, convertMillilitresToMicrolitres } from './quantity/smallest-units';
export { readWrittenNumber } from './quantity/written-number';
export type { WeightReading } from './quantity/weight';
export { formatVolume, formatWeight, readWeight } from './quantity/weight';
export type { AmountOptions, AmountReading, StockMeasure } from './quantity/amount';
export { STOCK_MEASURES, formatAmount, readAmount } from './quantity/amount';
export type { KitchenUnit, VolumeReading, VolumeSystem } from './quantity/volume';
export { KITCHEN_UNITS, VOLUME_SYSTEMS, VOLUME_SYSTEM_WORDS, kitchenUnitMl, readVolume, sayKitchenUnit } from './quantity/volume';
export type { TaughtSpoon } from './quantity/spoon';
export { learnSpoon, planInSpoons } from './quantity/spoon';
export type { LotSize, LotSizeReading } from './quantity/lot-size';
export { HEAVIEST_PIECE_G, readLotSize } from './quantity/lot-size';
export type { Balance } from './quantity/balance';
export { roundToResolution, weighableDose, weighingToleranceG } from './quantity/balance';

export type { FibreFamily, FibreKind } from './bath/fibre';
export { FIBRE_KINDS, fibreDisplacementMl, fibreFamily } from './bath/fibre';
export { bathVolumeMl, liquorVolume } from './bath/liquor';
export type { BathContent, LadderReading, LadderRung } from './bath/saved-bath';
export { contentsAtVolume, ladderStrength, leftAfterUse, replenish } from './bath/saved-bath';
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

export type { DatedMovement, Movement, MovementKind } from './stock/ledger';
export { MOVEMENT_KINDS, countDifference, firstOverdraft, foldOnHand, onHandAt } from './stock/ledger';
export type { FastnessWord, LiquorKind, LiquorSign, MaterialForm, MaterialKind, StockOrigin } from './stock/material-facts';
export { FASTNESS_WORDS, LIQUOR_KINDS, LIQUOR_SIGNS, LIQUOR_WORDS, MATERIAL_FORMS, MATERIAL_KINDS, MATERIAL_KIND_WORDS, STOCK_ORIGINS, judgeSigns } from './stock/material-facts';
export type { StockValue, Valuation, ValuationMethod, ValuedMovement } from './stock/valuation';
export { VALUATION_METHODS, formatMoney, readMoney, valueStock, withoutReversed } from './stock/valuation';
export type { ConversionCheck, ConversionInput, ConversionKind, PacketFacts } from './stock/conversion';
export { CONVERSION_KINDS, CONVERSION_WORDS, blendStrength, checkConversion, freshToDried, packetsFor, stockConcentration, volumeForDose } from './stock/conversion';
export type { CountCase } from './stock/counting';
export { likelyReasons, netOfTare } from './stock/counting';
export type { Reorder, RunOut, Season, UseHistory, UseRate } from './stock/forecast';
export { daysToNextSeason, isInSeason, rateOfUse, reorder, runOut, toGather } from './stock/forecast';
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
export type { BadNeighbours, ShelvedMaterial } from './safety/neighbours';
export { findBadNeighbours } from './safety/neighbours';
export type { CatalogueEntry, FibreGroup } from './catalogue/catalogue-entry';
export { CATALOGUE, NOT_OFFERED, refusedSalt } from './catalogue/catalogue';
export { cautionsForStep } from './safety/cautions';
