export { knotTag, readKnotTag, sayKnotTag } from './knot-tag';
export type { PlannedStrip, RankedStrip, StripFactor, StripLayout, StripLevel, StripTrial } from './strips';
export { applyLevel, layStrips, levelLabel, rankStrips, STRIP_FACTOR_LABELS, STRIP_FACTORS } from './strips';
