import { VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { id, nameOf, noteOf, numberIn, version } from './common';
import { person, signInNote, timeZone } from './door';
import { volumeSystem } from './materials';

const vesselFields = {
  name: nameOf('The vessel’s name'),
  metal: z.enum(VESSEL_METALS, { error: `Choose the vessel’s metal: ${VESSEL_METALS.join(', ')}.` }),
  workingMl: numberIn('The working volume', 100, 500_000, 'ml'),
  note: noteOf('The note'),
};
export const newVessel = z.object({ id, ...vesselFields });
export const vesselEdit = z.object({ version, ...vesselFields });
export const vessel = z.object({ id, version, ...vesselFields }).meta({ id: 'Vessel' });
export type StudioVessel = z.infer<typeof vessel>;

const waterFields = {
  name: nameOf('The water’s name'),
  ph: numberIn('pH', 0, 14).nullable(),
  hardnessDh: numberIn('Hardness', 0, 100, '°dH').nullable(),
  note: noteOf('The note'),
};
export const newWater = z.object({ id, ...waterFields });
export const waterEdit = z.object({ version, ...waterFields });
export const water = z.object({ id, version, ...waterFields }).meta({ id: 'WaterSource' });
export type WaterSource = z.infer<typeof water>;

const settingFields = {
  name: nameOf('The studio’s name'),
  zone: timeZone,
  signInNote,
  balanceName: nameOf('The balance’s name'),
  balanceResolutionG: numberIn('The balance’s step', 0.001, 100, 'g'),
  balanceCapacityG: numberIn('What the balance carries', 1, 500_000, 'g'),
  /** Which spoon, cup and gallon a bare word means here; `null`: always ask. */
  volumeSystem: volumeSystem.nullable().default(null),
  currency: z.string().regex(/^[A-Z]{3}$/, { error: 'Write the currency as three capital letters, for example EUR.' }).default('EUR'),
};
export const settingsEdit = z.object({ version, ...settingFields });
export const studio = z.object({ version, ...settingFields, people: z.array(person), vessels: z.array(vessel), waters: z.array(water) }).meta({ id: 'Studio' });
export type Studio = z.infer<typeof studio>;
