import { worded } from '../words/worded';

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
export const INTAKE_FLAG_LABELS: Readonly<Record<IntakeFlag, string>> = worded(() => ({
  stain: $localize`stains or stain-remover spots`,
  deposit: $localize`under-arm deposits`,
  syntheticShare: $localize`a share of synthetic`,
  blend: $localize`protein and cellulose in one piece`,
  dyed: $localize`dyed before`,
  mordanted: $localize`mordanted already`,
  scoured: $localize`scoured already`,
  machineWash: $localize`machine-washable finish`,
  unevenWeights: $localize`pieces of different weight`,
  notWeighed: $localize`weight only guessed`,
}));
