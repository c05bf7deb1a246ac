import type { Lab, Pot } from '@vestigia/core';
import { layIn, letDyeIn, letPotStand, pourIn } from '@vestigia/core';

export interface PotCard {
  readonly liquorMl: number;
  readonly wofG: number;
  /** What its burner brings into it at full heat, W. */
  readonly usefulW: number;
  readonly fromC: number;
  readonly roomC: number;
  readonly ph: number;
  readonly liquorRatio: number;
  /** From undyed to the colour wanted. */
  readonly undyed: Lab;
  readonly wanted: Lab;
}

/** pH a millilitre of acid (below nothing: of alkali) moves a litre, before it buffers. */
const PH_PER_ML_PER_L = 0.35;
/** Dye taken up counts as the wanted depth when the bath has given this share of it. */
const WANTED_SHARE = 0.62;

/** One pot as it would be: heated, covered, poured into, with fibre taking dye. */
export class SimulatedPot {
  private pot: Pot;
  private heat = 0;
  private fibreIn = false;
  private onFibre = 0;
  private acidMl = 0;

  constructor(private readonly card: PotCard) {
    this.pot = { liquorMl: card.liquorMl, wofG: 0, temperatureC: card.fromC, usefulW: 0, lid: false };
  }

  get state(): { temperatureC: number; liquorMl: number; heat: number; lid: boolean; ph: number; fibreIn: boolean } {
    // Baths buffer: the first drops move little, then it goes quickly, then little again.
    const perL = this.acidMl / (this.card.liquorMl / 1000);
    const ph =
      this.card.ph - 3 * Math.tanh((perL * PH_PER_ML_PER_L) / 1.5) ** 3 - 0.4 * Math.tanh(perL * PH_PER_ML_PER_L);
    return {
      temperatureC: this.pot.temperatureC,
      liquorMl: this.pot.liquorMl,
      heat: this.heat,
      lid: this.pot.lid,
      ph: Math.min(12, Math.max(2.5, ph)),
      fibreIn: this.fibreIn,
    };
  }

  setHeat(share: number): void {
    this.heat = share;
  }

  setLid(lid: boolean): void {
    this.pot = { ...this.pot, lid };
  }

  pour(ml: number, temperatureC: number): void {
    this.pot = pourIn(this.pot, ml, temperatureC);
  }

  addAcid(ml: number): void {
    this.acidMl += ml;
  }

  enterFibre(): void {
    if (!this.fibreIn) this.pot = layIn(this.pot, this.card.wofG, this.card.roomC);
    this.fibreIn = true;
  }

  advance(seconds: number): void {
    this.pot = letPotStand({ ...this.pot, usefulW: this.card.usefulW * this.heat }, this.card.roomC, seconds);
    if (this.fibreIn)
      this.onFibre = letDyeIn(
        { onFibre: this.onFibre },
        { temperatureC: this.pot.temperatureC, liquorRatio: this.card.liquorRatio, seconds },
      ).onFibre;
  }

  /** The piece as it lies under the reader. */
  colour(): Lab {
    const share = Math.min(1.6, this.onFibre / WANTED_SHARE);
    const mix = (from: number, to: number, low: number): number =>
      Math.min(100, Math.max(low, from + (to - from) * share));
    const { undyed, wanted } = this.card;
    return { L: mix(undyed.L, wanted.L, 0), a: mix(undyed.a, wanted.a, -100), b: mix(undyed.b, wanted.b, -100) };
  }
}
