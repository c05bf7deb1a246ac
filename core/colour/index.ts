export type { Ciede2000 } from './ciede2000';
export { ciede2000 } from './ciede2000';
export type { ColourConditions, Illuminant, Lab, Observer } from './lab';
export { chroma, hueDegrees, ILLUMINANTS, meanLab, OBSERVERS, sameConditions } from './lab';
export type { ScreenColour } from './screen-colour';
export { screenColour } from './screen-colour';
export type { DescribedDifference } from './describe';
export { describeColour, describeDifference } from './describe';
