export type { AmountOptions, AmountReading, StockMeasure } from './amount';
export { formatAmount, readAmount, STOCK_MEASURES } from './amount';
export type { Balance, OneBalance } from './balance';
export {
  balanceFor,
  DEFAULT_WEIGH_WITHIN_PERCENT,
  roundToResolution,
  weighableDose,
  weighingPortions,
  weighingToleranceG,
} from './balance';
export { Chance } from './chance';
export { sayMinutes } from './duration';
export { explainLength, readMinutes } from './length-text';
export type { Figure, FigureInput, Working } from './figure';
export { figure } from './figure';
export type { LotSize, LotSizeReading } from './lot-size';
export { HEAVIEST_PIECE_G, readLotSize } from './lot-size';
export { median } from './median';
export {
  convertGramsToMilligrams,
  convertMicrolitresToMillilitres,
  convertMilligramsToGrams,
  convertMillilitresToMicrolitres,
} from './smallest-units';
export type { TaughtSpoon } from './spoon';
export { learnSpoon, planInSpoons } from './spoon';
export type { KitchenUnit, VolumeReading, VolumeSystem } from './volume';
export {
  formatVolume,
  KITCHEN_UNITS,
  kitchenUnitMl,
  readVolume,
  sayKitchenUnit,
  VOLUME_SYSTEM_LABELS,
  VOLUME_SYSTEMS,
} from './volume';
export type { WeightReading } from './weight';
export { formatWeight, readWeight, trimZeros } from './weight';
export type { FigureElsewhere } from './other-unit';
export { figuresElsewhere } from './other-unit';
export { explainNumber, readNumberText } from './number-text';
export { degreeMark, degreesShown, formatDegreesApart, formatTemperature, readTemperatureC } from './temperature';
export { sayPh, sayPhBetween } from './say-ph';
export type { ShownIn } from './shown-in';
export {
  DAY_FORMS,
  decimals,
  WEEK_BEGINS,
  DECIMAL_MARKS,
  figuresShownIn,
  LIQUID_SYSTEMS,
  SHOWN_AT_FIRST,
  showFiguresIn,
  TEMPERATURE_SCALES,
  WEIGHT_SYSTEMS,
} from './shown-in';
export { countLabel, joinList, pluralOf } from './word-list';
