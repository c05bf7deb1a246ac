export type { Factor, LotConditions, MaterialSource, MaterialUse } from './then-and-now';
export { compareThenAndNow } from './then-and-now';
export type { DepthAt, Uptake, UptakeAdvice } from './uptake';
export { adviseLift, depthAt, depthShare, gradedPulls, matchSteps } from './uptake';
