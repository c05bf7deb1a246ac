import type { Lab } from '../colour/lab';
import { ksOfReflectance, reflectanceOfKs } from '../colour/kubelka-munk';
import type { WorthMinutes } from './bath-heat';
import { worthMinutes } from './bath-heat';
import type { ChannelSpace } from './channels';
import type { Dyeing, DyeingStage, MatchDose } from './dyeing';
import type { ParameterBook } from './parameters';
import type { PriorGroup } from './priors';

/** The median dose of each material, %: what “as much as usual” is. A property of the record, not learnt. */
export type UsualDoses = ReadonlyMap<string, number>;

/** What the model says of a dyeing, and how that turns with each number that is learnt. */
export interface Forward {
  readonly channels: Float64Array;
  /** What is on the fibre in each band, K/S, the undyed base with it. */
  readonly ks: Float64Array;
  /** By place in the book: a slope for each channel. */
  readonly slopes: ReadonlyMap<number, Float64Array>;
  /** How the channels turn with the depth of all dye together, as a whole and along each shape: what luck does. */
  readonly luck: readonly Float64Array[];
}

/** What the model works with. */
export interface Known {
  readonly space: ChannelSpace;
  readonly book: ParameterBook;
  readonly usual: UsualDoses;
  /** Values of the book’s numbers; what lies beyond has its prior’s mean. */
  readonly values: Float64Array;
}

/** Contributions to the logarithm of what a dye does, each with how it turns with a number. */
class Sum {
  value = 0;
  readonly scalars: [number, number][] = [];
  /** A number, its share, and the shape it works along. */
  readonly shaped: [number, number, number][] = [];
  /** Slopes along a shape that add nothing themselves: of what a share of hue depends on. */
  readonly tilted: [number, number, number][] = [];

  constructor(private readonly known: Known) {}

  read(key: string, group: PriorGroup, mean = 0, sd?: number): { place: number; value: number } {
    const { book, values } = this.known;
    const place = book.place(key, group, mean, sd);
    return { place, value: place < values.length ? (values[place] ?? 0) : book.at(place).mean };
  }

  /** Adds `share` times a number. */
  add(key: string, group: PriorGroup, share: number, mean = 0, sd?: number): void {
    if (share === 0) return;
    const { place, value } = this.read(key, group, mean, sd);
    this.value += share * value;
    this.scalars.push([place, share]);
  }

  /** Adds `share` times a turn of hue; where the share itself turns with numbers, by these slopes. */
  turn(key: string, group: PriorGroup, share: number, by: readonly (readonly [number, number])[] = []): void {
    if (share === 0) return;
    for (let s = 0; s < this.known.space.shapes.length; s += 1) {
      const { place, value } = this.read(`${key}~${s}`, group);
      this.shaped.push([place, share, s]);
      if (value !== 0) for (const [other, slope] of by) this.tilted.push([other, slope * value, s]);
    }
  }

  /** Adds what depends on a number in its own way: its value, and its slope. */
  put(value: number, place: number, slope: number): void {
    this.value += value;
    this.scalars.push([place, slope]);
  }

  take(other: Sum, share: number): void {
    this.value += share * other.value;
    for (const [place, by] of other.scalars) this.scalars.push([place, share * by]);
    for (const [place, by, shape] of other.shaped) this.shaped.push([place, share * by, shape]);
    for (const [place, by, shape] of other.tilted) this.tilted.push([place, share * by, shape]);
  }
}

interface Portion {
  readonly materialId: string;
  readonly role: MatchDose['role'];
  readonly stage: DyeingStage;
  /** Logarithm of what went in at the reference’s strength, as a share of the usual dose. */
  readonly amount: Sum;
  /** How the jars turn its hue. */
  readonly hue: Sum;
}

const LEAST_SHARE = 1e-4;

/** What went in of each material, its jars by their strengths. */
function portionsOf(known: Known, dyeing: Dyeing): Portion[] {
  const groups = new Map<string, MatchDose[]>();
  for (const dose of dyeing.doses) {
    const key = `${dose.stage}/${dose.materialId}`;
    groups.set(key, [...(groups.get(key) ?? []), dose]);
  }
  return [...groups.values()].flatMap((doses) => {
    const [first] = doses;
    if (!first) return [];
    const { materialId, role, stage } = first;
    const usual = known.usual.get(materialId) ?? Math.max(first.percentOwf, 0.01);
    const strengths = doses.map((d) => {
      const strength = new Sum(known);
      strength.add(`jar/${d.stockLotId}`, 'jar', 1);
      strength.add(`age/${materialId}`, 'age', d.ageYears, -0.05);
      return strength;
    });
    const shares = doses.map((d, i) => Math.max(0, d.percentOwf / usual) * Math.exp(strengths[i]?.value ?? 0));
    const whole = Math.max(
      LEAST_SHARE,
      shares.reduce((sum, s) => sum + s, 0),
    );
    const weighed = Math.max(
      1e-9,
      doses.reduce((sum, d) => sum + d.percentOwf, 0),
    );
    const [amount, hue] = [new Sum(known), new Sum(known)];
    doses.forEach((d, i) => {
      const strength = strengths[i];
      if (strength)
        for (const [place, by] of strength.scalars) amount.scalars.push([place, ((shares[i] ?? 0) / whole) * by]);
      // A blend’s hue goes by what was weighed of each jar, however strong it is.
      hue.turn(`jar/${d.stockLotId}`, 'jarHue', d.percentOwf / weighed);
      hue.turn(`age/${materialId}`, 'ageHue', (d.percentOwf / weighed) * d.ageYears);
    });
    amount.value = Math.log(whole);
    return [{ materialId, role, stage, amount, hue }];
  });
}

/** Adds the logarithm of how far a bath came by its time and heat: ln(1 − exp(−k τ)). */
function addExtent(
  sum: Sum,
  known: Known,
  key: string,
  usualRate: number,
  course: Dyeing['courses'][number] | undefined,
): void {
  const common = sum.read('rate', 'rate', Math.log(usualRate));
  const own = sum.read(`rate/${key}`, 'rate', 0, 0.4);
  const heat = sum.read('heat', 'heat', 4.5);
  const { minutes, perHeat }: WorthMinutes = worthMinutes(course, heat.value);
  if (!course || minutes <= 0) return;
  const kt = Math.max(1e-6, Math.exp(common.value + own.value) * minutes);
  const rest = Math.exp(-kt);
  const slope = (kt * rest) / (1 - rest);
  sum.put(Math.log(1 - rest), common.place, slope);
  sum.put(0, own.place, slope);
  sum.put(0, heat.place, (slope * perHeat) / minutes);
}

const courseOf = (dyeing: Dyeing, stage: DyeingStage): Dyeing['courses'][number] | undefined =>
  dyeing.courses.find((c) => c.stage === stage);

/** What a dyeing is called that belongs to no colourway: by what is in it. */
const likeOf = (dyeing: Dyeing): string =>
  [
    dyeing.baseId,
    ...[...new Set(dyeing.doses.map((d) => `${d.stage}:${d.materialId}`))].sort(),
    dyeing.dip > 1 ? 'later dip' : '',
  ].join('|');

/** How much more an iron pot may do to a dye than one of another metal: to how deep it dyes, to the hue. */
const IRON_POT = [4, 2] as const;
/** Water, pot, fibre and a small pot: what they do to a dye. */
function addSurroundings(sum: Sum, dyeing: Dyeing, dye: string): void {
  const { water } = dyeing;
  const ions: readonly [string, number][] = [
    ['hardness', (water.hardnessDh - 10) / 10],
    ['ph', water.ph - 7],
    ['iron', water.ironMgPerL * 10 > 3 ? 3 + Math.log(water.ironMgPerL * 10 - 2) : water.ironMgPerL * 10],
  ];
  for (const [ion, by] of ions) {
    sum.add(`water/${ion}`, 'water', by);
    sum.add(`water/${ion}/${dye}`, 'water', by);
    sum.turn(`water/${ion}`, 'waterHue', by);
    sum.turn(`water/${ion}/${dye}`, 'waterHue', by);
  }
  if (dyeing.metal !== 'steel' && dyeing.metal !== 'stainless') {
    const [depth, hue] = dyeing.metal === 'iron' ? IRON_POT : [1, 1];
    sum.add(`metal/${dyeing.metal}`, 'metal', depth);
    sum.turn(`metal/${dyeing.metal}`, 'metalHue', hue);
  }
  sum.add(`base/${dyeing.baseLotId}`, 'base', 1);
  sum.turn(`base/${dyeing.baseLotId}`, 'baseHue', 1);
  if (dyeing.purpose !== 'lot') sum.add(`small pot/${dyeing.purpose}`, 'smallPot', 1);
}

/**
 * What the model says of a dyeing. `day` names what is tried and dyed on one day and shares its luck. Without slopes it is
 * several times as quick.
 */
export function forward(known: Known, dyeing: Dyeing, day: string | null = null, withSlopes = true): Forward {
  const { space } = known;
  const portions = portionsOf(known, dyeing);
  const like = dyeing.colourwayId ?? likeOf(dyeing);
  const dyes = portions.filter((p) => p.role === 'dyestuff');
  const mordants = portions.filter((p) => p.role === 'mordant');
  const alsoIn = portions.filter((p) => p.role === 'modifier' || p.role === 'assistant');
  const over = mordants
    .map((m) => m.materialId)
    .sort()
    .join('+');

  // What mordants, modifiers, water, pot and the day do to whatever dye there is.
  const shared = new Sum(known);
  for (const m of mordants) {
    const reached = new Sum(known);
    reached.take(m.amount, 1);
    addExtent(reached, known, m.materialId, 0.04, courseOf(dyeing, 'mordant'));
    const carries = shared.read(`mordant/${m.materialId}`, 'mordant', 0.25);
    shared.take(reached, carries.value);
    shared.scalars.push([carries.place, reached.value]);
    shared.turn(`mordant/${m.materialId}`, 'mordantHue', reached.value, reached.scalars);
  }
  const effects = alsoIn.map((o) => {
    const reached = new Sum(known);
    reached.take(o.amount, 1);
    if (o.stage === 'modifier') addExtent(reached, known, o.materialId, 0.04, courseOf(dyeing, o.stage));
    // ln(1 + amount): little does little, and much does not do much more.
    const amount = Math.exp(Math.min(4, reached.value));
    return { ...o, reached, size: Math.log1p(amount), slope: amount / (1 + amount) };
  });
  if (day !== null) {
    shared.add(`day/${day}`, 'day', 1);
    shared.turn(`day/${day}`, 'dayHue', 1);
  }

  const bare = space.reflectances(dyeing.undyed).map((r) => ksOfReflectance(Math.min(0.999, r)));
  const { bands } = space;
  const ks = Float64Array.from(bare);
  const slopes = new Map<number, Float64Array>();
  const deep = new Float64Array(bands);
  const grow = (place: number): Float64Array => {
    const known = slopes.get(place);
    if (known) return known;
    const fresh = new Float64Array(bands);
    slopes.set(place, fresh);
    return fresh;
  };
  /** Adds exp(sum) in each channel to what is on the fibre, with its slopes. */
  const lay = (sum: Sum, own: readonly { place: number; value: number }[], isDye: boolean): void => {
    const along = new Float64Array(bands);
    for (const [place, by, shape] of sum.shaped) {
      const value = (place < known.values.length ? (known.values[place] ?? 0) : known.book.at(place).mean) * by;
      const form = space.shapes[shape];
      if (value !== 0 && form) for (let c = 0; c < bands; c += 1) along[c] = (along[c] ?? 0) + value * (form[c] ?? 0);
    }
    const gives = new Float64Array(bands);
    for (let c = 0; c < bands; c += 1) {
      const log = sum.value + (along[c] ?? 0) + (own[c]?.value ?? 0);
      gives[c] = Math.exp(Math.min(8, log));
      ks[c] = (ks[c] ?? 0) + (gives[c] ?? 0);
      if (isDye) deep[c] = (deep[c] ?? 0) + (gives[c] ?? 0);
      const band = own[c];
      if (band && withSlopes) {
        const slope = grow(band.place);
        slope[c] = (slope[c] ?? 0) + (gives[c] ?? 0);
      }
    }
    if (!withSlopes) return;
    for (const [place, by] of sum.scalars) {
      const slope = grow(place);
      for (let c = 0; c < bands; c += 1) slope[c] = (slope[c] ?? 0) + by * (gives[c] ?? 0);
    }
    for (const [place, by, shape] of [...sum.shaped, ...sum.tilted]) {
      const slope = grow(place);
      const form = space.shapes[shape];
      if (form) for (let c = 0; c < bands; c += 1) slope[c] = (slope[c] ?? 0) + by * (form[c] ?? 0) * (gives[c] ?? 0);
    }
  };

  for (const dye of dyes) {
    const id = dye.materialId;
    const sum = new Sum(known);
    // Build-up: tⁿ / (1 + tⁿ / h), t as a share of the usual dose.
    const steep = sum.read(`steep/${id}`, 'steepness');
    const level = sum.read(`level/${id}`, 'levelsOff', Math.log(3));
    const power = Math.exp(steep.value);
    const risen = power * dye.amount.value;
    const filled = Math.exp(Math.min(20, risen - level.value));
    const free = 1 / (1 + filled);
    sum.value += risen + Math.log(free);
    sum.scalars.push([steep.place, risen * free], [level.place, filled * free]);
    for (const [place, by] of dye.amount.scalars) sum.scalars.push([place, by * power * free]);
    sum.take(dye.hue, 1);
    const others = dyes.filter((o) => o !== dye);
    const crowd = others.reduce((all, o) => all + Math.exp(o.amount.value), 0);
    if (crowd > 0) {
      sum.add('company', 'company', 1);
      sum.add(`company/${id}`, 'companyOwn', 1);
      sum.turn(`company/${id}`, 'companyHue', 1);
      const pressed = sum.read(`crowd/${id}`, 'crowding', 0.1);
      sum.put(-pressed.value * Math.log1p(crowd), pressed.place, -Math.log1p(crowd));
      for (const o of others) {
        const by = (-pressed.value * Math.exp(o.amount.value)) / (1 + crowd);
        for (const [place, share] of o.amount.scalars) sum.scalars.push([place, by * share]);
      }
    }
    addExtent(sum, known, id, 0.04, courseOf(dyeing, dye.stage));
    sum.add(`leaves/${id}`, 'leaves', dyeing.dip - 1, Math.log(0.4));
    sum.add('liquor', 'liquor', -Math.log(dyeing.liquorRatio / 20), 0.15);
    sum.add(`liquor/${id}`, 'liquor', -Math.log(dyeing.liquorRatio / 20));
    sum.add(`depth/${id}`, 'depth', 1, Math.log(1));
    // What a fibre or a mordant does to all dyestuffs, and to this one besides: what was learnt of one goes for others.
    for (const where of [`on/${dyeing.fibre}`, `over/${over}`]) {
      sum.add(where, 'common', 1);
      sum.turn(where, 'commonHue', 1);
      sum.add(`${where}/${id}`, 'affinity', 1);
      sum.turn(`${where}/${id}`, 'affinityHue', 1);
    }
    sum.add(`mix/${like}`, 'common', 1);
    sum.add(`mix/${like}/${id}`, 'mix', 1);
    sum.turn(`mix/${like}/${id}`, 'mixHue', 1);
    sum.take(shared, 1);
    addSurroundings(sum, dyeing, id);
    for (const e of effects) {
      const strong = sum.read(`does/${e.materialId}`, 'modifier', 0.2);
      const own = sum.read(`does/${e.materialId}/${id}`, 'modifier', 0, 0.25);
      const by = strong.value + own.value;
      sum.value += by * e.size;
      sum.scalars.push([strong.place, e.size], [own.place, e.size]);
      for (const [place, slope] of e.reached.scalars) sum.scalars.push([place, slope * by * e.slope]);
      const size = e.reached.scalars.map(([place, slope]) => [place, slope * e.slope] as const);
      sum.turn(`does/${e.materialId}`, 'modifierHue', e.size, size);
      sum.turn(`does/${e.materialId}/${id}`, 'modifierOwn', e.size, size);
    }
    lay(
      sum,
      Array.from(ks, (_, c) => sum.read(`band/${id}/${c}`, 'band')),
      true,
    );
  }
  // Iron greys bare fibre too.
  for (const e of effects.filter((o) => o.role === 'modifier')) {
    const sum = new Sum(known);
    sum.take(e.reached, 1);
    sum.add(`bare/${e.materialId}`, 'bare', 1, Math.log(0.05));
    sum.turn(`bare/${e.materialId}`, 'modifierHue', 1);
    lay(sum, [], false);
  }
  // And so does a pot of it, whatever is dyed in it.
  if (dyeing.metal === 'iron') {
    const sum = new Sum(known);
    sum.add('bare/iron pot', 'bare', 1, Math.log(0.05));
    sum.turn('bare/iron pot', 'modifierHue', 1);
    lay(sum, [], false);
  }

  const reflectances = ks.map(reflectanceOfKs);
  const { values, slopes: bySight } = space.see(reflectances);
  // dR/dK = 1 − (K + 1) / √(K² + 2K)
  const turns = ks.map((k) => (k === 0 ? 0 : 1 - (k + 1) / Math.sqrt(k * k + 2 * k)));
  // Where a value is of one band alone, the others aren’t gone through.
  const seenIn = Array.from({ length: space.count }, (_, i) =>
    Array.from({ length: bands }, (_b, c) => c).filter((c) => (bySight[i * bands + c] ?? 0) !== 0),
  );
  const toValues = (byKs: Float64Array): Float64Array => {
    const out = new Float64Array(space.count);
    for (let i = 0; i < out.length; i += 1) {
      let sum = 0;
      for (const c of seenIn[i] as number[])
        sum += (bySight[i * bands + c] as number) * (turns[c] as number) * (byKs[c] as number);
      out[i] = sum;
    }
    return out;
  };
  const seen = new Map<number, Float64Array>();
  for (const [place, slope] of slopes) seen.set(place, toValues(slope));
  const luck = [deep, ...space.shapes.map((form) => deep.map((d, c) => d * (form[c] ?? 0)))].map(toValues);
  // What the model gets wrong of a whole colourway lies on the values themselves.
  const own = new Sum(known);
  space.offsets.forEach((form, s) => {
    const { place, value } = own.read(`family/${like}~${s}`, 'family');
    seen.set(place, form);
    for (let i = 0; i < space.count; i += 1) values[i] = (values[i] ?? 0) + value * (form[i] ?? 0);
  });
  return { channels: values, ks, slopes: seen, luck };
}

/** The shade alone. */
export const shadeFor = (known: Known, dyeing: Dyeing, day: string | null = null): Lab =>
  known.space.lab(forward(known, dyeing, day, false).channels);
