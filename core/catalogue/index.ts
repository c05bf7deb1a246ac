export { CATALOGUE, catalogueEntry, notOffered, recogniseMaterial, refusedSalt } from './catalogue';
export type { CatalogueEntry, DyestuffNeed, FibreGroup } from './catalogue-entry';
export { DYESTUFF_NEED_LABELS, DYESTUFF_NEEDS, factsOf } from './catalogue-entry';
export { hazardsOf } from './material-hazards';
export type { UsualDose } from './usual-doses';
export { usualDose } from './usual-doses';
