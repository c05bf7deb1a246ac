export { knotTag, readKnotTag, sayKnotTag } from './knot-tag';
export type { PlannedStrip, RankedStrip, StripLayout, StripLevel, StripTrial } from './strips';
export { applyLevel, layLiquorStrips, layStrips, levelLabel, rankStrips } from './strips';
export type { StripFactor } from './strip-factor';
export { STRIP_FACTOR_LABELS, STRIP_FACTORS } from './strip-factor';
export type { StripRefusal } from './strip-refusal';
export { sayStripRefusal } from './strip-refusal';
