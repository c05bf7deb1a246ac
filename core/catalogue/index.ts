export { CATALOGUE, NOT_OFFERED, refusedSalt } from './catalogue';
export type { CatalogueEntry, FibreGroup } from './catalogue-entry';
