export type { Ciede2000 } from './ciede2000';
export { ciede2000 } from './ciede2000';
export type { ColourConditions, Illuminant, Lab, Observer } from './lab';
export { chroma, hueDegrees, ILLUMINANTS, meanLab, OBSERVERS, sameConditions } from './lab';
export { sayLab } from './say-lab';
export type { ScreenColour } from './screen-colour';
export { screenColour } from './screen-colour';
export type { DescribedDifference } from './describe';
export { describeColour, describeDifference, DIFFERENCE_WORDS } from './describe';
export type { SplitDifference } from './differences';
export { cie76, cmc } from './differences';
export type { GreyChange, GreyGrade, GreyStaining } from './grey-scale';
export { gradeOfChange, gradeOfStaining, GREY_GRADES, sayGreyGrade } from './grey-scale';
export {
  depthOfSpectrum,
  ksOfReflectance,
  ksOfSpectrum,
  ksOverBase,
  reflectanceOfKs,
  strengthBeside,
} from './kubelka-munk';
export { metamerism } from './metamerism';
export type { LabIndex } from './nearest-lab';
export { indexLabs } from './nearest-lab';
export type { ReadSpectrum, Spectrum, SpectrumRefusal } from './spectrum';
export { BANDS_NM, labOfSpectrum, readSpectrum, saySpectrumRefusal, xyzOfSpectrum } from './spectrum';
export type { Whiteness } from './whiteness';
export { cieWhiteness } from './whiteness';
export type { Triple } from './xyz';
export {
  adaptXyz,
  convertLabToLinearSrgb,
  convertLabToXyz,
  convertLinearSrgbToXyz,
  convertSrgbToLab,
  convertXyzToLab,
  convertXyzToLinearSrgb,
  decodeSrgb,
  encodeSrgb,
  SCREEN,
  whitePoint,
} from './xyz';
export type { FileSwatch } from './colour-file';
export { readColourFile, sayColourFileRefusal } from './colour-file';
export type { WrittenSwatch } from './write-colour-file';
export { writeCgats, writeColourTable } from './write-colour-file';
export type { DeltaEFormula } from './delta-e';
export { DELTA_E_FORMULAS, DELTA_E_LABELS, deltaEBy } from './delta-e';
