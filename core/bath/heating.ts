import { formatTemperature } from '../quantity/temperature';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { heatCapacityJPerK, lossWPerK } from './pot-model';

/** A burner, hob or immersion heater. */
export interface HeatSource {
  readonly id: string;
  readonly name: string;
  readonly powerW: number;
  /** Share of its power that gets into the pot, per cent. */
  readonly efficiencyPercent: number;
}

/** The room a bath is heated in, and what heat costs there. */
export interface Room {
  readonly roomC: number;
  readonly coldWaterC: number;
  readonly hotWaterC: number;
  /** What one person may lift here, kg. */
  readonly liftLimitKg: number;
  /** Minor units of money for a kilowatt hour; `null` where not known. */
  readonly energyMinorPerKwh: number | null;
}

/**
 * How long a bath takes to heat, with energy in kWh and cost in minor units; or the °C that the heat source never
 * gets past.
 */
export type Heating =
  | {
      readonly ok: true;
      readonly minutes: Figure;
      readonly energy: Figure;
      readonly cost: Figure | null;
      /** What keeping it there draws, W for each °C above the room; plans kept before it was worked out don't tell. */
      readonly holding?: { readonly wPerK: number; readonly roomC: number } | undefined;
    }
  | { readonly ok: false; readonly reachesC: number };

/**
 * How long a heat source needs to bring a bath to a temperature, with what it loses on the way (Newton's law of
 * cooling: C·dT/dt = η·P − U·A·(T − room)), the energy drawn and its cost. Where it never gets there, says how far it
 * does.
 * @param bath ml of liquor, g of dry fibre in it, where it begins and is to come to, °C
 */
export function heatBath(
  bath: { liquorMl: number; wofG: number; fromC: number; toC: number },
  source: HeatSource,
  room: Room,
): Heating {
  const usefulW = (source.powerW * source.efficiencyPercent) / 100;
  if (!(usefulW > 0) || !(bath.liquorMl > 0)) throw new RangeError('a heat source and a bath must be above zero');
  const loss = lossWPerK(bath);
  const capacity = heatCapacityJPerK(bath);
  const limitC = room.roomC + usefulW / loss;
  // Within two degrees of where it would settle for ever is not getting there.
  if (bath.toC > limitC - 2) return { ok: false, reachesC: Math.floor(limitC) };
  const seconds =
    bath.toC <= bath.fromC ? 0 : (capacity / loss) * Math.log((limitC - bath.fromC) / (limitC - bath.toC));
  const kwh = (source.powerW * seconds) / 3.6e6;
  const minutes = figure(
    Math.round(seconds / 60),
    'min',
    $localize`heat capacity ÷ loss × ln((settles at − begins) ÷ (settles at − wanted))`,
    [
      { name: $localize`liquor`, value: bath.liquorMl, unit: 'ml' },
      { name: $localize`dry fibre`, value: Math.round(bath.wofG), unit: 'g' },
      { name: $localize`begins at`, value: bath.fromC, unit: '°C' },
      { name: $localize`wanted`, value: bath.toC, unit: '°C' },
      {
        name: $localize`into the pot`,
        value: Math.round(usefulW),
        unit: 'W',
        source: $localize`${source.name}:name:: ${source.powerW} W at ${source.efficiencyPercent} %`,
      },
      {
        name: $localize`would settle at`,
        value: Math.round(limitC),
        unit: '°C',
        source: $localize`lid on, in still air`,
      },
    ],
    [$localize`lid on; an open pot takes longer`],
  );
  const energy = figure(
    Math.round(kwh * 100) / 100,
    'kWh',
    $localize`power × time`,
    [
      { name: source.name, value: source.powerW, unit: 'W' },
      { name: $localize`time`, value: Math.round(seconds / 60), unit: 'min' },
    ],
    [$localize`to reach it; holding comes on top`],
  );
  const cost =
    room.energyMinorPerKwh === null
      ? null
      : figure(Math.round(kwh * room.energyMinorPerKwh), 'minor', $localize`energy × price`, [
          { name: $localize`energy`, value: Math.round(kwh * 100) / 100, unit: 'kWh' },
          {
            name: $localize`price`,
            value: room.energyMinorPerKwh,
            unit: 'minor units per kWh',
            source: $localize`studio`,
          },
        ]);
  const wPerK = Math.round((loss / (source.efficiencyPercent / 100)) * 100) / 100;
  return { ok: true, minutes, energy, cost, holding: { wPerK, roomC: room.roomC } };
}

/** Hot and cold water, in ml, that make a temperature; or why they can't. */
export type Mixing =
  | { readonly ok: true; readonly hotMl: number; readonly coldMl: number; readonly working: Figure }
  | { readonly ok: false; readonly message: string };

/** Hot and cold water that make so much at a temperature, if none of its heat is lost to the pot. Temperatures °C. */
export function mixToTemperature(
  volumeMl: number,
  wantedC: number,
  { hotC, coldC }: { hotC: number; coldC: number },
): Mixing {
  if (!(volumeMl > 0)) throw new RangeError('volumeMl must be above zero');
  if (!(hotC > coldC))
    return { ok: false, message: $localize`The hot water is no warmer than the cold. Check the two temperatures.` };
  if (wantedC < coldC)
    return {
      ok: false,
      message: $localize`${formatTemperature(wantedC)} is colder than the cold water at ${formatTemperature(coldC)}. Let it stand in a cool place, or use ice.`,
    };
  if (wantedC > hotC)
    return {
      ok: false,
      message: $localize`${formatTemperature(wantedC)} is hotter than the hot water at ${formatTemperature(hotC)}. Heat it in the pot.`,
    };
  const hotMl = Math.round((volumeMl * (wantedC - coldC)) / (hotC - coldC) / 50) * 50;
  const working = figure(
    hotMl,
    'ml',
    $localize`volume × (wanted − cold) ÷ (hot − cold)`,
    [
      { name: $localize`volume`, value: volumeMl, unit: 'ml' },
      { name: $localize`wanted`, value: wantedC, unit: '°C' },
      { name: $localize`hot`, value: hotC, unit: '°C', source: $localize`studio` },
      { name: $localize`cold`, value: coldC, unit: '°C', source: $localize`studio` },
    ],
    [$localize`to the jug’s 50 ml; a cold pot takes some of it: test before the fibre goes in`],
  );
  return { ok: true, hotMl, coldMl: volumeMl - hotMl, working };
}

/** Wet fibre squeezed by hand weighs about this many times its dry weight. */
const WET_TIMES_DRY = 2.5;

/** Weight of a full pot, kg: itself, its liquor and the dry fibre that is in it. */
export function fullPotWeight(liquorMl: number, wofG: number, vesselG: number | null): Figure {
  const notes = vesselG === null ? [$localize`the empty pot is not weighed: it comes on top`] : [];
  return figure(
    Math.round((liquorMl + wofG + (vesselG ?? 0)) / 100) / 10,
    'kg',
    $localize`liquor + fibre + the pot itself`,
    [
      { name: $localize`liquor`, value: liquorMl, unit: 'ml', source: $localize`taken as water` },
      { name: $localize`dry fibre`, value: Math.round(wofG), unit: 'g' },
      { name: $localize`empty pot`, value: vesselG ?? 0, unit: 'g', source: $localize`studio` },
    ],
    notes,
  );
}

/** Weight of wet pieces lifted at once, kg. */
export function wetWeight(wofG: number): Figure {
  return figure(
    Math.round((wofG * WET_TIMES_DRY) / 100) / 10,
    'kg',
    $localize`dry weight × 2.5`,
    [{ name: $localize`dry fibre`, value: Math.round(wofG), unit: 'g' }],
    [$localize`squeezed by hand; dripping it weighs more`],
  );
}
