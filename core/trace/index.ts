export type { TagKind, TagReading } from './tag-code';
export { readTagCode, TAG_KIND_LABELS, TAG_KINDS, writeTagCode } from './tag-code';
export type { TracedMovement } from './trace';
export { lotsFromStockLot, stockLotsInLot } from './trace';
export type { PlacedPiece } from './piece-tag';
export { placeOfPiece, sayPieceTag } from './piece-tag';
export type { CodeName } from './code-names';
export { codeNames, jarCodes, namesOf, withCodeNames } from './code-names';
