import type { PriorGroup } from './priors';
import { PRIORS } from './priors';

/** One number that is learnt, with what was held of it beforehand. */
export interface Parameter {
  readonly key: string;
  readonly group: PriorGroup;
  readonly mean: number;
  readonly sd: number;
}

/** How wide each kind of prior is taken, as a factor on `PRIORS`; what the record itself suggests. */
export type PriorScales = Partial<Readonly<Record<PriorGroup, number>>>;

/**
 * Every number the model has been asked for, in the order it was asked. What nothing was dyed with yet has its prior: a
 * new jar, another water.
 */
export class ParameterBook {
  private readonly places = new Map<string, number>();
  private readonly all: Parameter[] = [];

  constructor(private readonly scales: PriorScales = {}) {}

  get size(): number {
    return this.all.length;
  }

  /** Where a number stands; it is taken up if it is new. */
  place(key: string, group: PriorGroup, mean = 0, sd?: number): number {
    const known = this.places.get(key);
    if (known !== undefined) return known;
    const place = this.all.length;
    this.places.set(key, place);
    this.all.push({ key, group, mean, sd: sd ?? PRIORS[group] * (this.scales[group] ?? 1) });
    return place;
  }

  at(place: number): Parameter {
    const parameter = this.all[place];
    if (!parameter) throw new RangeError('no such parameter');
    return parameter;
  }

  find(key: string): number | undefined {
    return this.places.get(key);
  }
}
