import type { Dyeing, Stage } from '../world';
import { BANDS, reflectanceOf } from './light';
import type { Hidden, Jar, Pigment, Stuff } from './pigment-stock';
import { YEAR } from './pigment-stock';

const absorption = ({ centreNm, widthNm, tail }: Pigment, shift: number): number[] =>
  BANDS.map(
    (nm) =>
      Math.exp(-0.5 * ((nm - centreNm - shift) / widthNm) ** 2) +
      0.6 * Math.exp(-0.5 * ((nm - centreNm - shift + 80) / (widthNm * 1.3)) ** 2) +
      tail * Math.exp(-(nm - 400) / 120),
  );

/** The true spectrum that comes out: nobody but the world knows it. */
export function dyeTrue(hidden: Hidden, d: Dyeing, luck: { uptake: number; hue: number }): number[] {
  const base = hidden.bases.get(d.baseId);
  const lot = base?.lots.find((l) => l.id === d.baseLotId);
  const water = hidden.waters.find((w) => w.id === d.waterId);
  if (!base || !lot || !water) throw new Error('this dyehouse has no such base or water');
  const minutesAt = (stage: Stage, rate: number, heat: number): number => {
    const points = d.courses.find((c) => c.stage === stage)?.points ?? [];
    let sum = 0;
    for (let i = 1; i < points.length; i += 1) {
      const [from, to] = [points[i - 1], points[i]];
      if (!from || !to) continue;
      for (let k = 0; k < 10; k += 1) {
        const kelvin = 273.15 + from.celsius + ((to.celsius - from.celsius) * (k + 0.5)) / 10;
        sum += ((to.minute - from.minute) / 10) * rate * Math.exp((-heat / 8.314e-3) * (1 / kelvin - 1 / 353.15));
      }
    }
    return 1 - Math.exp(-sum);
  };
  const mordantDose = d.doses
    .filter((x) => x.stage === 'mordant')
    .reduce((sum, x) => sum + x.percentOwf * (hidden.jars.get(x.stockLotId)?.strength ?? 1), 0);
  const sites =
    base.take *
    lot.sites *
    (0.25 + (0.9 * mordantDose) / (mordantDose + 7)) *
    (0.4 + 0.6 * minutesAt('mordant', 0.03, 40));
  const chalk = d.doses.filter((x) => x.materialId === 'chalk').reduce((sum, x) => sum + x.percentOwf, 0);
  const hardness = (water.hardnessDh + chalk * 4) / 10;
  const laid = d.doses
    .filter((x) => x.stage === 'dye' && x.materialId.startsWith('dye-') && x.percentOwf > 0)
    .map((x) => {
      const stuff = hidden.stuffs.find((s) => s.id === x.materialId) as Stuff;
      const jar = hidden.jars.get(x.stockLotId) as Jar;
      const years = Math.max(0, Date.parse(d.on) - Date.parse(jar.receivedOn)) / YEAR;
      const bright = jar.strength * Math.exp(-stuff.fades * years);
      const dull = stuff.dullShare * jar.strength * jar.dull * (1 + 0.25 * years * stuff.fades * 4);
      const bath = (x.percentOwf / stuff.usual) * (30 / d.liquorRatio) ** 0.25;
      const left = (0.45 + 0.1 * stuff.binding) ** (d.dip - 1) * (d.dip > 1 ? 0.85 : 1);
      const went = minutesAt('dye', stuff.rate, stuff.heat);
      const ions = Math.exp(stuff.hardness * (hardness - 1) + stuff.ph * (water.ph - 7));
      return { stuff, bright: bath * bright * left * ions * went, dull: bath * dull * left * went, water };
    });
  const wants = laid.reduce((sum, l) => sum + l.stuff.binding * (l.bright + 0.5 * l.dull), 0);
  const room = (sites * luck.uptake * 1.6) / (1.1 + wants);
  const ironStage = d.doses
    .filter((x) => x.materialId === 'iron')
    .reduce((sum, x) => sum + x.percentOwf * (hidden.jars.get(x.stockLotId)?.strength ?? 1), 0);
  const iron =
    (ironStage / (ironStage + 1.5)) * (ironStage > 0 ? 0.5 + 0.5 * minutesAt('modifier', 0.3, 30) : 0) +
    water.ironMgPerL * 0.12;
  const metal = hidden.metals.get(d.vesselId);
  const ks = lot.ks.map((k) => k);
  for (const l of laid) {
    const saddened = Math.min(0.85, iron * l.stuff.iron);
    const shift = l.stuff.phShiftNm * (l.water.ph - 7) + 14 * saddened + (metal === 'aluminium' ? -2 : 0);
    const [bright, dull] = [absorption(l.stuff.bright, shift), absorption(l.stuff.dull, 0)];
    for (let c = 0; c < BANDS.length; c += 1) {
      const own = l.stuff.power * room * (metal === 'aluminium' ? 1.04 : 1);
      const clear = own * l.bright * (1 - 0.55 * saddened) * (bright[c] ?? 0);
      const brown = own * (l.dull * luck.hue + 0.45 * saddened * l.bright) * (dull[c] ?? 0) * 0.8;
      const black = own * saddened * l.bright * 0.16;
      ks[c] = (ks[c] ?? 0) + clear + brown + black;
    }
  }
  return ks.map((k) => reflectanceOf(k + iron * 0.04));
}
