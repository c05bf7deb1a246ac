export type { LotCheck } from './finding';
export type { IntakeFlag } from './intake-flag';
export type { CheckedStockLot, CheckedMaterial, CheckInput } from './check-input';
export { checkLot } from './check-lot';
export { INTAKE_FLAG_LABELS, INTAKE_FLAGS } from './intake-flag';
