export type { Api, Call } from './api';
export { api, leastRole } from './api';
export type {
  Colourway,
  ColourwayDetail,
  ColourwayEdit,
  DyeInLiquor,
  NamedColourway,
  NewColourway,
  NewMaster,
  ReadNewMaster,
} from './colourways';
export type { MatchRecord } from './match';
export type { StudioDocument, StudioFile } from './document';
export { fileRunEntry, studioDocument } from './document';
export { upgradeRecipeFile, upgradeStudioFile } from './upgrade-files';
export type {
  DryForecastView,
  FastnessOf,
  FastnessTest,
  JarGave,
  KnownColour,
  NearColour,
  NewFastnessReading,
  NewFastnessTest,
  LadderSheet,
  NewSwatch,
  PaletteSheet,
  PatchCard,
  ReaderView,
  ReadPieces,
  ReadNewFastnessTest,
  ReadNewSwatch,
  RepeatabilityView,
  SetTags,
  Swatch,
  SwatchEdit,
} from './swatches';
export type { LabUnder, PersonRef } from './common';
export type { CopyOfStudio, StudioCopies } from './copies';
export type {
  AuthState,
  NewPerson,
  OpenStudio,
  OpenedDocument,
  OpeningDocument,
  Person,
  Session,
  SignedIn,
  SignIn,
} from './auth';
export type { Deed, DeedChanges, DeedKind, DeedPage, DeedThing } from './deeds';
export type { LotDetail, LotsBeside, LotState, LotSummary, Station } from './lots';
export type { EyeReadingView, NewEyeReading, NewReading, NewVerdict, ReadingView, VerdictTakeBack } from './readings';
export type { NewRunEntry, ReadRunEntry, RunEntryView } from './run-entry';
export type { NewNote, Note, NoteSubject, ReadNewNote } from './notes';
export type { FirstLot, ReadFirstLot } from './first-lot';
export type { Agreement, ReadAgreement, LotExtras, Proposal, ProposalAsk, ReadProposalAsk } from './proposal';
export type { Problem, ProblemCode } from './problem';
export { PROBLEM_CODES, problem } from './problem';
export { lotExtras } from './proposal';
export type {
  KeptVersion,
  NewProof,
  NewRecipe,
  NewRecipeVersion,
  NewRecipeStatus,
  RecipeSummary,
  RecipePrivacy,
  RecipeOutline,
  RecipeVersionDetail,
} from './recipes';
export type { RecipeFile, RecipeFileCheck, RecipeFileImport } from './recipe-file';
export type { DoseBody, RecipeBody } from './recipe-body';
export { recipeFile, recipeFileIn, recipeFileSchema } from './recipe-file';
export { readRecipeBody, recipeBody } from './recipe-body';
export type {
  NewStripLook,
  NewStripReading,
  NewStripTrial,
  StripPromotion,
  StripTrialDetail,
  StripTrialSummary,
} from './strips';
export type {
  Forecast,
  ForecastRow,
  BalanceAsk,
  BalanceReading,
  LotCost,
  MaterialPage,
  NewStocktake,
  ShelfOn,
  ValuationReport,
  Stocktake,
  StocktakeBooking,
  StocktakeEntry,
} from './forecast';
export type {
  Attachment,
  BaseFacts,
  ListedMaterial,
  Material,
  MaterialEdit,
  MaterialFacts,
  NewMaterial,
  Spoon,
  SpoonWeighing,
} from './materials';
export { NO_FACTS, materialRecord, newMaterial } from './materials';
export type {
  Conversion,
  Count,
  Delivery,
  Reversal,
  ShelfRow,
  StockFacts,
  StockLedgerLine,
  StockLot,
  StockLotEdit,
  StockLotsMove,
  Taking,
} from './stores';
export type { KeptFibre, KeptOfLot, KeptSpent, ReadKeptFibre } from './kept-fibre';
export type { GatheredRow, NewPicking, Picking, PickingFacts } from './gathering';
export type { Liquor, LiquorEntry, LiquorEntryKind, LiquorTakeBack, NewLiquor, ReturnedLiquor } from './liquor';
export { NO_STOCK_FACTS } from './stores';
export type { ImportJob, MovementRecord, StockLotRecord, StoresDocument, TransferKind } from './transfer';
export { movementRecord, stockLotRecord, storesDocument, storesSchema } from './transfer';
export type { Studio, StudioHeatSource, StudioVessel, WaterSource } from './studio';
export type { KeepAtHand, PageAtHand, SearchHit, Today } from './today';
export type {
  Bench,
  Container,
  Instrument,
  InstrumentOrder,
  Rehearsal,
  Tag,
  TagOf,
  RunEntryDraft,
  RunEntryResult,
} from './bench';
export { MAX_DRAFTS } from './bench';
export type { Topic } from './topics';
export { TOPICS } from './topics';
export type { PhotoAnswer, SpectraAnswer } from './measure-files';
export { measureSchemas, photoPatches, spectraConditions, spectraFile } from './measure-files';
export { planAnswer, planCommandAnswer, planProblem, planSchemas } from './plan-files';
export type {
  Customer,
  CustomerDetail,
  GoodsOfLot,
  GoodsRow,
  NewCustomer,
  NewGoodsMove,
  NewOrder,
  NewOrderLine,
  OrderDetail,
  OrderEdit,
  OrderLine,
  OrderState,
  OrderSummary,
  ReadNewGoodsMove,
  ReadNewOrder,
  ReadOrderEdit,
} from './orders';
export type { HousePlanView, HouseTimesEdit, HouseTimesView, NewHousePlan, PlanFactsView } from './plan';
