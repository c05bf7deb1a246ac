export type { Evenness } from './evenness';
export { evennessOf } from './evenness';
export type { FittedLight } from './fit-light';
export type { KnownArea, MeasuredArea, PhotoMeasure, WantedArea } from './measure-photo';
export { MOST_MEGAPIXELS, measurePhoto } from './measure-photo';
export type { PhotoRefusal } from './photo-refusal';
export { sayPhotoRefusal } from './photo-refusal';
export type { Picture, Rect } from './picture';
export { underConditions } from './under-conditions';
export type { FoundCard } from './find-card';
export { findCard } from './find-card';
export type { CardPatch } from './patch-card';
export {
  CARD,
  CARD_GREYS,
  CARD_PATCHES,
  FINDER,
  MEASURED_CARD_DELTA_E00,
  UNMEASURED_CARD_DELTA_E00,
} from './patch-card';
