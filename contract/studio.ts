import { SHOWN_AT_FIRST, DEFAULT_PROOFS_NEEDED, JUDGE_RULES, VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { shownIn, id, nameOf, noteOf, numberIn, version } from './common';
import { signedIn, signInNote, timeZone } from './auth';
import { volumeSystem } from './materials';
import { practice } from './recipe-body';

const vesselFields = {
  name: nameOf(() => $localize`The vessel’s name`),
  metal: z.enum(VESSEL_METALS, { error: () => $localize`Choose the vessel’s metal: ${VESSEL_METALS.join(', ')}.` }),
  workingMl: numberIn(() => $localize`The working volume`, 100, 500_000, 'ml'),
  note: noteOf(() => $localize`The note`),
  heldIron: z.boolean().default(false),
  /** Empty, as weighed; `null` where nobody did. */
  emptyG: numberIn(() => $localize`The empty weight`, 0, 500_000, 'g')
    .nullable()
    .default(null),
  maxC: numberIn(() => $localize`The hottest it takes`, 0, 300, '°C')
    .nullable()
    .default(null),
  heatSourceId: id.nullable().default(null),
};
const heatSourceFields = {
  name: nameOf(() => $localize`The heat source’s name`),
  powerW: numberIn(() => $localize`The power`, 10, 100_000, 'W'),
  /** Share of its power that gets into a pot. */
  efficiencyPercent: numberIn(() => $localize`The efficiency`, 1, 100, '%'),
  note: noteOf(() => $localize`The note`),
};
export const newHeatSource = z.object({ id, ...heatSourceFields });
export const heatSourceEdit = z.object({ version, ...heatSourceFields });
export const heatSource = z.object({ id, version, ...heatSourceFields }).meta({ id: 'HeatSource' });
export type StudioHeatSource = z.infer<typeof heatSource>;
export const newVessel = z.object({ id, ...vesselFields });
export const vesselEdit = z.object({ version, ...vesselFields });
export const vessel = z.object({ id, version, ...vesselFields }).meta({ id: 'Vessel' });
export type StudioVessel = z.infer<typeof vessel>;

const waterFields = {
  name: nameOf(() => $localize`The water’s name`),
  ph: numberIn(() => 'pH', 0, 14).nullable(),
  hardnessDh: numberIn(() => $localize`Hardness`, 0, 100, '°dH').nullable(),
  ironMgPerL: numberIn(() => $localize`Iron`, 0, 100, 'mg/l')
    .nullable()
    .default(null),
  note: noteOf(() => $localize`The note`),
};
export const newWater = z.object({ id, ...waterFields });
export const waterEdit = z.object({ version, ...waterFields });
export const water = z.object({ id, version, ...waterFields }).meta({ id: 'WaterSource' });
export type WaterSource = z.infer<typeof water>;

const settingFields = {
  name: nameOf(() => $localize`The studio’s name`),
  zone: timeZone,
  signInNote,
  balanceName: nameOf(() => $localize`The balance’s name`),
  balanceResolutionG: numberIn(() => $localize`The balance’s step`, 0.001, 100, 'g'),
  balanceCapacityG: numberIn(() => $localize`What the balance carries`, 1, 500_000, 'g'),
  fineBalance: z
    .object({
      name: nameOf(() => $localize`The fine balance’s name`),
      resolutionG: numberIn(() => $localize`The fine balance’s step`, 0.0001, 10, 'g'),
      capacityG: numberIn(() => $localize`What the fine balance carries`, 0.1, 10_000, 'g'),
    })
    .nullable()
    .default(null),
  /** Which spoon, cup and gallon a bare word means here; `null`: always ask. */
  volumeSystem: volumeSystem.nullable().default(null),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, { error: () => $localize`Write the currency as three capital letters, for example EUR.` })
    .default('EUR'),
  /** House practice: the studio's answers to the questions dyers differ on. */
  practice,
  /** Lots or proofs judged within tolerance before a version is proven. */
  provenNeeds: z
    .int()
    .min(1)
    .max(50, { error: () => $localize`Between 1 and 50 proofs make a version proven.` })
    .default(DEFAULT_PROOFS_NEEDED),
  /** What a lot may be passed by. */
  judgeRule: z.enum(JUDGE_RULES).default('eye'),
  roomC: numberIn(() => $localize`The room`, -5, 45, '°C').default(18),
  coldWaterC: numberIn(() => $localize`The cold water`, 0, 35, '°C').default(12),
  hotWaterC: numberIn(() => $localize`The hot water`, 20, 100, '°C').default(55),
  liftLimitKg: numberIn(() => $localize`What one person lifts`, 1, 60, 'kg').default(15),
  /** Minor units of money for a kilowatt hour; `null` where not known. */
  energyMinorPerKwh: numberIn(() => $localize`The price of energy`, 0, 10_000)
    .nullable()
    .default(null),
  /** Minor units of money for a cubic metre of water; `null` where not known. */
  waterMinorPerM3: numberIn(() => $localize`The price of water`, 0, 1_000_000)
    .nullable()
    .default(null),
  /** Minor units of money for an hour of work; `null` where hours aren't counted in. */
  hourMinor: numberIn(() => $localize`What an hour costs`, 0, 1_000_000)
    .nullable()
    .default(null),
  shownIn: shownIn.default(SHOWN_AT_FIRST),
};
export const settingsEdit = z.object({ version, ...settingFields });
export const studio = z
  .object({
    version,
    ...settingFields,
    people: z.array(signedIn),
    vessels: z.array(vessel),
    waters: z.array(water),
    heatSources: z.array(heatSource),
  })
  .meta({ id: 'Studio' });
export type Studio = z.infer<typeof studio>;
