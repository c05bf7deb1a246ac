export type { Api, Call } from './api';
export { api } from './api';
export type { Colourway, ColourwayDetail, ColourwayEdit, NewColourway } from './colourways';
export type { StudioDocument } from './document';
export { studioDocument } from './document';
export type { Door, NewPerson, OpenStudio, Person, SignIn } from './door';
export type {
  Agreement, LabUnder, LotDetail, LotState, LotSummary, NewReading, NewRunEntry, NewVerdict, Proposal, ProposalAsk, ReadingView, RunEntryView, Station,
} from './lots';
export type { Problem, ProblemCode } from './problem';
export { PROBLEM_CODES, problem } from './problem';
export type { NewRecipe, NewRecipeVersion, NewStanding, RecipeBody, RecipeSummary, RecipeVersionDetail } from './recipes';
export { STANDINGS } from './recipes';
export type { BaseFacts, Count, Delivery, Material, NewMaterial, Reversal, ShelfRow, StockLedgerLine, StockLot, StockLotEdit } from './stores';
export { MATERIAL_KINDS } from './stores';
export type { Studio, StudioVessel, WaterSource } from './studio';
export type { SearchHit, Today } from './today';
