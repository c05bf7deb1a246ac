export { CATALOGUE, catalogueEntry, NOT_OFFERED, recogniseMaterial, refusedSalt } from './catalogue';
export type { CatalogueEntry, FibreGroup } from './catalogue-entry';
