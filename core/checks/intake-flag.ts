/** What can be seen of pieces when they come in. */
export const INTAKE_FLAGS = [
  'stain',
  'deposit',
  'syntheticShare',
  'blend',
  'dyed',
  'mordanted',
  'scoured',
  'machineWash',
  'unevenWeights',
  'notWeighed',
] as const;

/** One of `INTAKE_FLAGS`. */
export type IntakeFlag = (typeof INTAKE_FLAGS)[number];

/** How each is said on screen. */
export const INTAKE_FLAG_LABELS: Readonly<Record<IntakeFlag, string>> = {
  stain: 'stains or stain-remover spots',
  deposit: 'under-arm deposits',
  syntheticShare: 'a share of synthetic',
  blend: 'protein and cellulose in one piece',
  dyed: 'dyed before',
  mordanted: 'mordanted already',
  scoured: 'scoured already',
  machineWash: 'machine-washable finish',
  unevenWeights: 'pieces of different weight',
  notWeighed: 'weight only guessed',
};
