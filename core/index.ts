export type { Figure, FigureInput, Working } from './quantity/figure';
export { figure } from './quantity/figure';
export {
  convertGramsToMilligrams,
  convertMicrolitresToMillilitres,
  convertMilligramsToGrams,
  convertMillilitresToMicrolitres,
} from './quantity/smallest-units';
export { Chance } from './quantity/chance';
export { readWrittenNumber } from './quantity/written-number';
export type { WeightReading } from './quantity/weight';
export { formatVolume, formatWeight, readWeight } from './quantity/weight';
export type { AmountOptions, AmountReading, StockMeasure } from './quantity/amount';
export { STOCK_MEASURES, formatAmount, readAmount } from './quantity/amount';
export type { KitchenUnit, VolumeReading, VolumeSystem } from './quantity/volume';
export {
  KITCHEN_UNITS,
  VOLUME_SYSTEMS,
  VOLUME_SYSTEM_WORDS,
  kitchenUnitMl,
  readVolume,
  sayKitchenUnit,
} from './quantity/volume';
export type { TaughtSpoon } from './quantity/spoon';
export { learnSpoon, planInSpoons } from './quantity/spoon';
export type { LotSize, LotSizeReading } from './quantity/lot-size';
export { HEAVIEST_PIECE_G, readLotSize } from './quantity/lot-size';
export type { Balance } from './quantity/balance';
export {
  DEFAULT_WEIGH_WITHIN_PERCENT,
  roundToResolution,
  weighableDose,
  weighingPortions,
  weighingToleranceG,
} from './quantity/balance';

export type { FibreFamily, FibreKind } from './bath/fibre';
export { FIBRE_KINDS, fibreDisplacementMl, fibreFamily } from './bath/fibre';
export { liquorVolume } from './bath/liquor';
export type { BathContent, LadderReading, LadderRung } from './bath/saved-bath';
export { contentsAtVolume, ladderStrength, leftAfterUse, replenish } from './bath/saved-bath';
export type { Vessel, VesselMetal } from './bath/vessel';
export { VESSEL_METALS, mostC } from './bath/vessel';
export type { Heating, HeatSource, Mixing, Room } from './bath/heating';
export { fullPotWeight, heatBath, mixToTemperature, wetWeight } from './bath/heating';
export type { DyeState, Pot, PotBody } from './bath/pot-model';
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
} from './bath/pot-model';
export type {
  CoursePoint,
  CourseWatch,
  PotAlarm,
  PotAlarmCode,
  TemperatureAt,
  WatchInput,
  WatchedStep,
} from './bath/watch-course';
export {
  HOLD_BAND_C,
  heldMinutes,
  holdOf,
  plannedAt,
  plannedCourse,
  riseCPerMin,
  watchCourse,
} from './bath/watch-course';
export type { PhAdvice, PhTry } from './bath/ph-dosing';
export { nextPhDose } from './bath/ph-dosing';
export type { BathBalance, BathMove, BathMoveKind } from './bath/bath-ledger';
export { BATH_MOVES, BATH_MOVE_WORDS, carriedOffMl, foldBath, leftInBath } from './bath/bath-ledger';
export type { PhDose, PhReagent } from './bath/ph';
export { PH_REAGENTS, PH_REAGENT_WORDS, doseToPh } from './bath/ph';
export type { HardnessUnit, WaterAnswer, WaterAsk, WaterFacts } from './bath/water';
export {
  ANY_WATER,
  HARDNESS_UNITS,
  HARDNESS_UNIT_WORDS,
  answerWater,
  chalkToHarden,
  convertHardness,
} from './bath/water';

export type {
  Dose,
  DoseWay,
  FinishedBy,
  HeatLeg,
  HeatLegKind,
  RecipePart,
  RecipeStep,
  RecipeVersion,
  StepKind,
  StrainWay,
} from './recipe/recipe';
export {
  DOSE_WAYS,
  FINISHED_BY,
  HEAT_LEGS,
  HEAT_LEG_WORDS,
  STEP_KINDS,
  STEP_KIND_WORDS,
  STEP_PURPOSES,
  STRAIN_WAYS,
  STRAIN_WORDS,
  hottestC,
  recipeStep,
  stepMinutes,
  takesPieces,
} from './recipe/recipe';
export type { Chain, ChainFault } from './recipe/chain';
export { findChainFault, followsWords, keyOf, orderChain } from './recipe/chain';
export type {
  KeptPlan,
  LotPlan,
  PlannedBatch,
  PlannedBath,
  PlannedGroup,
  PlannedMaterial,
  PlannedPick,
  PlannedStep,
  PlannedWeighing,
  PlanRefusal,
  PlanResult,
  WayOut,
} from './recipe/lot-plan';
export { completePlan, smallestIn } from './recipe/lot-plan';
export type { PlanBase, PlanInput, PlanMaterial } from './recipe/plan-input';
export { planLot } from './recipe/plan-lot';
export { sharePieces } from './recipe/plan-groups';
export type { DosedBath, DosedMaterial, MeasuredDose, StockSolution } from './recipe/measure-dose';
export { measureDose, proposeStockSolution } from './recipe/measure-dose';
export type { GroupShare, GroupSplit, PieceGroup } from './recipe/split-groups';
export { splitGroups, splitMeasure } from './recipe/split-groups';
export type { Practice, PracticeChoice, PracticeMaterials, PracticeQuestion } from './recipe/practice';
export {
  PRACTICE,
  changesChain,
  practiceChoice,
  practiceDifferences,
  practiceMaterials,
  replanFor,
} from './recipe/practice';
export type { LaidZone, PlacedFault, PlacedLayout, PlacedPlan, PlacedZone, ZoneWay } from './recipe/placed';
export { ZONE_WAYS, ZONE_WORDS, findPlacedFault, layOutPlaced } from './recipe/placed';
export type { CheckInput, CheckedJar, CheckedMaterial, IntakeFlag, LotCheck } from './recipe/checks';
export { INTAKE_FLAGS, INTAKE_FLAG_WORDS, checkLot } from './recipe/checks';
export type { Evidence, Standing } from './recipe/proof';
export { DEFAULT_PROOFS_NEEDED, STANDINGS, mayStand } from './recipe/proof';
export { knotTag, readKnotTag, sayKnotTag } from './recipe/knot-tag';
export type { LaidStrip, RankedStrip, StripFactor, StripLayout, StripLevel, StripTrial } from './recipe/strips';
export { STRIP_FACTORS, STRIP_FACTOR_WORDS, applyLevel, layStrips, levelWords, rankStrips } from './recipe/strips';
export type { VersionDifference } from './recipe/compare-versions';
export { compareVersions, sayCourse, sayDose } from './recipe/compare-versions';
export { sharePicks } from './recipe/share-picks';
export type { BatchShare, SplitResult, VesselRoom } from './recipe/split-batches';
export { splitBatches } from './recipe/split-batches';
export type { Deviation, DeviationContext, StepRecord } from './recipe/deviations';
export { findDeviations, sayMinutes } from './recipe/deviations';
export { findRunDeviations } from './recipe/run-deviations';
export type { ReadBy, Rescaling, RunDetail, RunEntry, RunEntryKind, StepState } from './recipe/run-record';
export {
  READ_BY,
  RUN_ENTRY_KINDS,
  SAMPLE_OF,
  foldRun,
  isOver,
  minutesInWork,
  nextStepIndex,
  standingEntries,
  stepState,
} from './recipe/run-record';
export type { BroughtEntry, RunFacts, RunRefusal, RunRuling } from './recipe/run-rules';
export { AHEAD_MS, earlyStartWords, openBefore, phLock, plannedWeighing, ruleOnEntry } from './recipe/run-rules';
export type { OffTarget, RescaleOffer } from './recipe/rescale';
export { offTarget, rescaleFactor, targetNow } from './recipe/rescale';

export type { DatedMovement, Movement, MovementKind } from './stock/ledger';
export { MOVEMENT_KINDS, countDifference, firstOverdraft, foldOnHand, onHandAt } from './stock/ledger';
export type {
  FastnessWord,
  LiquorKind,
  LiquorSign,
  MaterialForm,
  MaterialKind,
  StockOrigin,
} from './stock/material-facts';
export {
  FASTNESS_WORDS,
  LIQUOR_KINDS,
  LIQUOR_SIGNS,
  LIQUOR_WORDS,
  MATERIAL_FORMS,
  MATERIAL_KINDS,
  MATERIAL_KIND_WORDS,
  STOCK_ORIGINS,
  judgeSigns,
} from './stock/material-facts';
export type { StockValue, Valuation, ValuationMethod, ValuedMovement } from './stock/valuation';
export { VALUATION_METHODS, formatMoney, readMoney, valueStock, withoutReversed } from './stock/valuation';
export type { ConversionCheck, ConversionInput, ConversionKind, PacketFacts } from './stock/conversion';
export {
  CONVERSION_KINDS,
  CONVERSION_WORDS,
  blendStrength,
  checkConversion,
  freshToDried,
  packetsFor,
  stockConcentration,
  volumeForDose,
} from './stock/conversion';
export type { CountCase } from './stock/counting';
export { likelyReasons, netOfTare } from './stock/counting';
export type { Reorder, RunOut, Season, UseHistory, UseRate } from './stock/forecast';
export { daysToNextSeason, isInSeason, rateOfUse, reorder, runOut, toGather } from './stock/forecast';
export type { Equivalence, GradedStock } from './stock/equivalence';
export { equivalenceOf } from './stock/equivalence';
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
export type {
  BatchReading,
  LotColour,
  MasterStandard,
  ReadingState,
  Verdict,
  VerdictCase,
  VerdictRefusal,
} from './colour/verdict';
export { READING_STATES, VERDICTS, checkVerdict, lotColour, settledReadings } from './colour/verdict';

export type { Factor, LotConditions, MaterialSource, MaterialUse } from './match/then-and-now';
export { compareThenAndNow } from './match/then-and-now';
export type { DepthAt, Uptake, UptakeAdvice } from './match/uptake';
export { adviseLift, depthAt, depthShare, gradedPulls, matchSteps } from './match/uptake';

export type { PotLine, PotSegment, RunningStep } from './schedule/pot-line';
export { layPotLine } from './schedule/pot-line';
export type { BenchAct, BenchRun, ForgottenPot } from './schedule/bench-acts';
export { benchActs, forgottenPots } from './schedule/bench-acts';
export type { RemainingTime } from './schedule/remaining-time';
export { remainingTime } from './schedule/remaining-time';

export type { TracedMovement } from './trace/trace';
export { lotsFromStockLot, stockLotsInLot } from './trace/trace';
export type { TagKind, TagReading } from './trace/tag-code';
export { TAG_KINDS, TAG_KIND_WORDS, readTagCode, writeTagCode } from './trace/tag-code';

export type {
  BalanceState,
  InstrumentCommand,
  InstrumentKind,
  InstrumentMessage,
  TroubleCode,
} from './instrument/protocol';
export {
  BALANCE_STATES,
  INSTRUMENT_COMMANDS,
  INSTRUMENT_KINDS,
  INSTRUMENT_WORDS,
  InstrumentLines,
  readInstrumentLine,
  withSum,
} from './instrument/protocol';
export type { Pan, PanReading, PanState } from './instrument/settle';
export { LOST_AFTER_MS, PanWatch } from './instrument/settle';
export { ReadingLog } from './instrument/reading-log';

export type { Hazard } from './safety/hazards';
export { HAZARDS, HAZARD_WORDS } from './safety/hazards';
export type { BadNeighbours, ShelvedMaterial } from './safety/neighbours';
export { findBadNeighbours } from './safety/neighbours';
export type { CatalogueEntry, FibreGroup } from './catalogue/catalogue-entry';
export { CATALOGUE, NOT_OFFERED, refusedSalt } from './catalogue/catalogue';
export { cautionsForStep, standsEveryTime } from './safety/cautions';
