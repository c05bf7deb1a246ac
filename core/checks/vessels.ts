import { said } from '../words/said';
import { formatTemperature } from '../quantity/temperature';
import type { Vessel, VesselMetal } from '../bath/vessel';
import { maxC } from '../bath/vessel';
import { keyOf } from '../recipe/chain';
import type { BathNote } from '../scaling/bath-note';
import { sayBathNote } from '../scaling/bath-note';
import type { PlannedBath, PlannedStep } from '../scaling/lot-plan';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { bathSteps, caution, checkFamily, line, stop } from './finding';

/** Of water in an open pot, near sea level. */
const BOILING_C = 100;

interface InVessel {
  readonly vesselName: string;
  readonly title: string;
  readonly cites: string;
}
type VesselFinding =
  | (InVessel & { readonly code: 'potMetal'; readonly metal: VesselMetal })
  | { readonly code: 'ironPot'; readonly vesselName: string }
  | (InVessel & { readonly code: 'causticAluminium'; readonly materialName: string })
  | (InVessel & { readonly code: 'aboveBoiling'; readonly toC: number })
  | (InVessel & { readonly code: 'vesselHeat'; readonly maxC: number; readonly toC: number })
  | (InVessel & { readonly code: 'tooLittleHeat'; readonly toC: number; readonly note: BathNote });

function findVessels(input: CheckInput): VesselFinding[] {
  const irons = input.materials.filter((m) => m.hazards.includes('ironSalt')).map((m) => m.id);
  const lotUsesIron = input.plan.steps.some((s) => s.weighings.some((w) => irons.includes(w.materialId)));
  return bathSteps(input.plan).flatMap((step) =>
    step.baths.flatMap((bath) => findInBath(input, step, bath, lotUsesIron)),
  );
}

function findInBath(
  { recipe, vessels, materials }: CheckInput,
  step: PlannedStep,
  bath: PlannedBath,
  lotUsesIron: boolean,
): VesselFinding[] {
  const vessel = vessels.find((v) => v.id === bath.vesselId);
  const shared = { vesselName: bath.vesselName, title: step.title };
  const ofRecipe = { ...shared, cites: line(recipe, step) };
  const ofVessel = { ...shared, cites: $localize`the card of ${bath.vesselName}` };
  const found: VesselFinding[] = [];
  const metals = recipe.steps.find((s, i) => keyOf(s, i) === step.key)?.metals ?? [];
  if (!(metals.length > 0 ? metals : recipe.allowedMetals).includes(bath.metal))
    found.push({ code: 'potMetal', ...ofRecipe, metal: bath.metal });
  if (vessel?.heldIron === true && !lotUsesIron) found.push({ code: 'ironPot', vesselName: bath.vesselName });
  const caustic = step.weighings.find((w) => materials.find((m) => m.id === w.materialId)?.hazards.includes('caustic'));
  if (bath.metal === 'aluminium' && caustic)
    found.push({ code: 'causticAluminium', ...ofRecipe, materialName: caustic.materialName });
  return [...found, ...findHeat(step, bath, vessel, ofVessel)];
}

function findHeat(
  { temperatureC }: PlannedStep,
  { heating, liquor }: PlannedBath,
  vessel: Vessel | undefined,
  ofVessel: InVessel,
): VesselFinding[] {
  const found: VesselFinding[] = [];
  const max = vessel ? maxC(vessel) : null;
  if (temperatureC === undefined) return found;
  if (temperatureC > BOILING_C) found.push({ code: 'aboveBoiling', ...ofVessel, toC: temperatureC });
  if (max !== null && temperatureC > max) found.push({ code: 'vesselHeat', ...ofVessel, maxC: max, toC: temperatureC });
  if (heating && !heating.ok && temperatureC > heating.reachesC)
    found.push({
      code: 'tooLittleHeat',
      ...ofVessel,
      cites: $localize`the heat source of ${ofVessel.vesselName}`,
      toC: temperatureC,
      note: {
        code: 'tooLittleHeat',
        heatSourceName: vessel?.heatSource?.name ?? $localize`The heat source`,
        liquorMl: liquor.value,
        reachesC: heating.reachesC,
      },
    });
  return found;
}

function sayVessel(f: VesselFinding): CheckText {
  switch (f.code) {
    case 'potMetal':
      return stop(
        $localize`${f.vesselName} is of ${said(f.metal)}, which “${f.title}” doesn’t allow.`,
        $localize`The metal of the pot joins in the colour.`,
        f.cites,
      );
    case 'ironPot':
      return caution(
        $localize`${f.vesselName} once held iron.`,
        $localize`What is left of it saddens whatever is dyed in it, however it was scrubbed.`,
        $localize`the card of ${f.vesselName}`,
      );
    case 'causticAluminium':
      return stop(
        $localize`${f.materialName} goes into ${f.vesselName}, which is aluminium.`,
        $localize`Caustic eats aluminium and gives off gas.`,
        f.cites,
      );
    case 'aboveBoiling':
      return stop(
        $localize`“${f.title}” goes to ${formatTemperature(f.toC)}; an open pot boils at ${formatTemperature(BOILING_C)}.`,
        $localize`It can’t be held hotter without pressure, which no dye pot bears. Write the temperature again.`,
        f.cites,
      );
    case 'vesselHeat':
      return stop(
        $localize`${f.vesselName} takes ${formatTemperature(f.maxC)}; “${f.title}” goes to ${formatTemperature(f.toC)}.`,
        $localize`Hot liquor through a sagging or cracked vessel scalds.`,
        f.cites,
      );
    case 'tooLittleHeat':
      return stop(
        $localize`${f.vesselName} never reaches ${formatTemperature(f.toC)} for “${f.title}”.`,
        sayBathNote(f.note),
        f.cites,
      );
  }
}

/** Whether each vessel bears what the step does in it: metal, iron, caustic, heat. */
export const vesselChecks = checkFamily(findVessels, sayVessel);
