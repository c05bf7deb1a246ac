/*
 * A pot as physics has it: heat in from a burner, out through its walls and its open top, water leaving as steam, and
 * what is
 * added mixing in. It drives the simulated instruments, and says what a pot will do with the lid on and the heat off.
 */
/**
 * Specific heat of water, J per g per K, mean of 0-100 °C (CRC Handbook, 97th ed., 6-5). Dilute liquors are taken as
 * water.
 */
const WATER_J_PER_GK = 4.19;
/**
 * Of dry fibre; wool 1.36, cotton 1.21 (Morton & Hearle 2008, table 6.4). One value is near enough beside so much
 * water.
 */
const FIBRE_J_PER_GK = 1.3;
/**
 * Heat lost by a lidded pot to still air, W per m² and K: convection and radiation of a warm wall together, about 10
 * (VDI Heat Atlas, 2nd ed. 2010, part F).
 */
const LOSS_W_PER_M2K = 10;
const BOILS_C = 100;
/** Latent heat of water near a simmer, J/g (CRC Handbook, 97th ed., 6-7). */
const LATENT_J_PER_G = 2330;
/**
 * Water leaving a still surface, g per s, m² and unit of humidity ratio: 25 kg per h and m² in still air (ASHRAE
 * Handbook, HVAC Applications 2019, ch. 6, without wind).
 */
const EVAPORATION_G_PER_S_M2 = 25 / 3.6;
/** Under a lid that sits loosely this share of it still gets away. */
const LID_LEAK = 0.06;
const ROOM_HUMIDITY = 0.5;

/** What is heated in a pot: liquor in ml, dry fibre in g, its own metal. */
export interface PotBody {
  readonly liquorMl: number;
  /** Dry fibre in it, g. */
  readonly wofG: number;
  /** Its metal, as grams of water that would take as much heat. */
  readonly potWaterG?: number;
}

/** A pot at one moment: °C, the power that reaches it in W, and whether its lid is on. */
export interface Pot extends PotBody {
  readonly temperatureC: number;
  /** What its burner brings into it now, W. */
  readonly usefulW: number;
  readonly lid: boolean;
}

/** Diameter of a pot as wide as it is high, m, from what it holds. */
const diameterM = (liquorMl: number): number => ((4 * liquorMl) / 1e6 / Math.PI) ** (1 / 3);

/** Heat a pot takes for a degree, J/K. */
export function heatCapacityJPerK({ liquorMl, wofG, potWaterG = 0 }: PotBody): number {
  return (liquorMl + potWaterG) * WATER_J_PER_GK + wofG * FIBRE_J_PER_GK;
}

/** Heat a lidded pot loses for a degree above the room, W/K: as `heatBath` counts it. */
export function lossWPerK({ liquorMl }: PotBody): number {
  return LOSS_W_PER_M2K * Math.PI * diameterM(liquorMl) ** 2 * 1.5;
}

/**
 * Humidity ratio of saturated air at a temperature, g/g: Magnus formula (Alduchov & Eskridge, J. Appl. Meteorol. 35,
 * 1996) at 1013 hPa.
 */
function saturatedRatio(temperatureC: number): number {
  const pressure = 6.1094 * Math.exp((17.625 * temperatureC) / (temperatureC + 243.04));
  // Towards the boil the ratio runs away; what boils off is told by the heat that goes in instead.
  return (0.622 * pressure) / Math.max(300, 1013.25 - pressure);
}

/** Water that leaves the top of a pot, g per s. */
export function evaporationGPerS(pot: Pick<Pot, 'liquorMl' | 'temperatureC' | 'lid'>, roomC: number): number {
  const topM2 = (Math.PI * diameterM(pot.liquorMl) ** 2) / 4;
  const open =
    EVAPORATION_G_PER_S_M2 *
    topM2 *
    Math.max(0, saturatedRatio(pot.temperatureC) - ROOM_HUMIDITY * saturatedRatio(roomC));
  return pot.lid ? open * LID_LEAK : open;
}

/**
 * Where the temperature of a closed pot is after some time: C·dT/dt = P − U·(T − room), solved exactly.
 * @param seconds at least 0 @returns °C
 */
export function temperatureAfter(
  pot: Pick<Pot, 'temperatureC' | 'usefulW'> & PotBody,
  roomC: number,
  seconds: number,
): number {
  const loss = lossWPerK(pot);
  const settlesC = roomC + pot.usefulW / loss;
  return settlesC + (pot.temperatureC - settlesC) * Math.exp((-loss * seconds) / heatCapacityJPerK(pot));
}

/** Lets a pot stand or heat for a while, in steps short enough for steam to follow its temperature. */
export function letPotStand<P extends Pot>(pot: P, roomC: number, seconds: number): P {
  let { temperatureC, liquorMl } = pot;
  for (let left = seconds; left > 1e-9;) {
    const step = Math.min(left, 10);
    const now = { ...pot, temperatureC, liquorMl };
    const steam = evaporationGPerS(now, roomC);
    const next = temperatureAfter({ ...now, usefulW: pot.usefulW - steam * LATENT_J_PER_G }, roomC, step);
    let lostG = steam * step;
    if (next > BOILS_C) {
      // What would heat it past the boil turns it into steam.
      lostG += ((next - BOILS_C) * heatCapacityJPerK(now)) / LATENT_J_PER_G;
      temperatureC = BOILS_C;
    } else {
      temperatureC = next;
    }
    liquorMl = Math.max(1, liquorMl - lostG);
    left -= step;
  }
  return { ...pot, temperatureC, liquorMl };
}

/** Pours water or a solution in. */
export function pourIn<P extends Pot>(pot: P, addedMl: number, addedC: number): P {
  if (!(addedMl >= 0)) throw new RangeError('addedMl must not be below nothing');
  const before = heatCapacityJPerK(pot);
  const added = addedMl * WATER_J_PER_GK;
  return {
    ...pot,
    liquorMl: pot.liquorMl + addedMl,
    temperatureC: (pot.temperatureC * before + addedC * added) / (before + added),
  };
}

/** Lays fibre in. Wet fibre at room temperature cools the bath by what it takes to warm it. */
export function layIn<P extends Pot>(pot: P, dryG: number, fibreC: number): P {
  const before = heatCapacityJPerK(pot);
  const added = dryG * FIBRE_J_PER_GK;
  return {
    ...pot,
    wofG: pot.wofG + dryG,
    temperatureC: (pot.temperatureC * before + fibreC * added) / (before + added),
  };
}

/** What a lidded pot with its heat off will be at after some minutes, °C. */
export function coastsTo(pot: PotBody & { readonly temperatureC: number }, roomC: number, minutes: number): number {
  return temperatureAfter({ ...pot, usefulW: 0 }, roomC, minutes * 60);
}

/** Dye in a bath and on the fibre in it, as shares of all of it. */
export interface DyeState {
  /** On the fibre, 0 to 1 of the dye there is. */
  readonly onFibre: number;
}

/**
 * Rate at 60 °C, per min, and how steeply it rises: natural dyes on mordanted fibre are about half way in a quarter
 * of an hour at a simmer.
 */
const RATE_60_PER_MIN = 0.03;
const ACTIVATION_J_PER_MOL = 50_000;
const GAS_J_PER_MOLK = 8.314;
/** Share that ends on the fibre where there is no more liquor than fibre takes up, and how a long bath lowers it. */
const AFFINITY = 60;

/** Share of its dye that a bath gives up at last: K ÷ (K + liquor ratio). */
export const exhaustAt = (liquorRatio: number): number => AFFINITY / (AFFINITY + Math.max(1, liquorRatio));

/** Rate of uptake at a temperature, per minute (Arrhenius). */
export function uptakeRatePerMin(temperatureC: number, rate60PerMin = RATE_60_PER_MIN): number {
  return rate60PerMin * Math.exp((-ACTIVATION_J_PER_MOL / GAS_J_PER_MOLK) * (1 / (temperatureC + 273.15) - 1 / 333.15));
}

/** Dye going into the fibre for a while at one temperature: first order towards what the bath gives up at last. */
export function letDyeIn(
  dye: DyeState,
  { temperatureC, liquorRatio, seconds }: { temperatureC: number; liquorRatio: number; seconds: number },
): DyeState {
  const max = exhaustAt(liquorRatio);
  return { onFibre: max + (dye.onFibre - max) * Math.exp((-uptakeRatePerMin(temperatureC) * seconds) / 60) };
}
