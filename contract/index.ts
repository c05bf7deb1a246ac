export type { Api, Call } from './api';
export { api } from './api';
export type { Colourway, ColourwayDetail, ColourwayEdit, NewColourway } from './colourways';
export type { StudioDocument, StudioFile } from './document';
export { studioDocument, upgradeStudioFile } from './document';
export type { Door, NewPerson, OpenStudio, Person, SignIn } from './door';
export type {
  Agreement,
  LabUnder,
  LotDetail,
  LotExtras,
  LotState,
  LotSummary,
  NewReading,
  NewRunEntry,
  NewVerdict,
  Proposal,
  ProposalAsk,
  ReadProposalAsk,
  ReadRunEntry,
  ReadingView,
  RunEntryView,
  Station,
} from './lots';
export type { Problem, ProblemCode } from './problem';
export { PROBLEM_CODES, problem } from './problem';
export { lotExtras } from './lots';
export type {
  DoseBody,
  NewProof,
  NewRecipe,
  NewRecipeVersion,
  NewStanding,
  RecipeBody,
  RecipeFile,
  RecipeFileCheck,
  RecipeFileImport,
  RecipeSummary,
  RecipeVersionDetail,
} from './recipes';
export { readRecipeBody, recipeBody, recipeFile, recipeFileSchema } from './recipes';
export type { NewStripReading, NewStripTrial, StripPromotion, StripTrialDetail, StripTrialSummary } from './strips';
export type {
  Ahead,
  AheadRow,
  BalanceAsk,
  BalanceReading,
  LotCost,
  MaterialPage,
  ShelfOn,
  ValuationReport,
  Walk,
  WalkBooking,
  WalkEntry,
} from './ahead';
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
  Liquor,
  LiquorEntry,
  NewLiquor,
  Reversal,
  ShelfRow,
  StockFacts,
  StockLedgerLine,
  StockLot,
  StockLotEdit,
  Taking,
} from './stores';
export { NO_STOCK_FACTS } from './stores';
export type { ImportJob, MovementRecord, StockLotRecord, StoresDocument, TransferKind } from './transfer';
export { movementRecord, stockLotRecord, storesDocument, storesSchema } from './transfer';
export type { Studio, StudioHeatSource, StudioVessel, WaterSource } from './studio';
export type { SearchHit, Today } from './today';
export type { Bench, Container, Instrument, InstrumentOrder, Rehearsal, Tag, TagOf, Touch, TouchResult } from './bench';
export { MOST_TOUCHES } from './bench';
