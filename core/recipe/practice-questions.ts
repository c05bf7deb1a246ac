import { VAT_LABELS } from '../bath/vat';

/** One school's answer to a question of practice. */
export interface PracticeChoice {
  readonly key: string;
  readonly label: string;
  /** What it costs and what it gains, in one line. */
  readonly costsAndGains: string;
}

/** A question good dyers answer differently. */
export interface PracticeQuestion {
  readonly key: string;
  readonly question: string;
  readonly choices: readonly PracticeChoice[];
  /** Changing it lays the chain of a recipe anew. */
  readonly replans: boolean;
}

/** The studio's or a recipe's answers, by question; a question without one is open. */
export type Practice = Readonly<Record<string, string>>;

/** A choice of practice, written short. */
export const choice = (key: string, label: string, costsAndGains: string): PracticeChoice => ({
  key,
  label,
  costsAndGains,
});

/** A question of practice, written short. */
export const question = (
  key: string,
  label: string,
  replans: boolean,
  ...choices: PracticeChoice[]
): PracticeQuestion => ({
  key,
  question: label,
  replans,
  choices,
});

/** The questions good dyers answer differently. No answer is the right one; each says what it costs. */
export const PRACTICE: readonly PracticeQuestion[] = [
  question(
    'mordantOnTannin',
    'Mordant on dyestuffs that bring their own tannin',
    true,
    choice('none', 'none needed', 'Saves a day, a pot and the salt; some shades come out paler and wash less fast.'),
    choice('always', 'always mordant', 'Deeper and surer; costs a bath, and the mordant shifts the hue.'),
  ),
  question(
    'aluminium',
    'Aluminium',
    true,
    choice('alum10', 'potassium alum, 10 %', 'Thriftiest; deep shades may not fill.'),
    choice('alum12', 'potassium alum, 12 %', 'A middle way for wool and silk.'),
    choice('alum15', 'potassium alum, 15 %', 'Deep shades fill; a little salt is left in the bath.'),
    choice('alum20', 'potassium alum, 20 %', 'Never short; wool may feel harsh, and more goes down the drain.'),
    choice(
      'acetate',
      'aluminium acetate or lactate on cellulose',
      'Best on cellulose; dearer, and it wants a chalk bath after.',
    ),
    choice(
      'soy',
      'soy milk as binder, no metal salt',
      'No metal at all; several thin coats and days of drying, and colours wash less fast.',
    ),
  ),
  question(
    'mordantHeat',
    'Heat of the mordant bath',
    true,
    choice('hot', 'simmer an hour, cool overnight', 'Done by the next morning; takes a pot and a burner.'),
    choice('cold', 'cold, one to seven days', 'No fuel, gentle on fibre; the pot or bucket is taken for days.'),
  ),
  question(
    'tartar',
    'Cream of tartar',
    true,
    choice('with', 'with the mordant', 'Softer wool and clearer colour; costs the tartar.'),
    choice('rinse', 'as a rinse afterwards', 'Keeps the bath neutral; one more rinse.'),
    choice('none', 'none', 'Cheapest; wool may feel sticky, hues a little duller.'),
  ),
  question(
    'mordantWhen',
    'When the mordant goes on',
    true,
    choice('before', 'before the dye', 'Evenest, and fibre can be mordanted ahead; a bath of its own.'),
    choice('with', 'with the dye, in one bath', 'One bath and one heat; paler, and the bath can’t be used again.'),
    choice(
      'after',
      'after the dye',
      'Shifts the shade at the end, piece by piece; less even, and it may bleed before.',
    ),
  ),
  question(
    'tanninOrder',
    'Tannin and alum on cellulose',
    true,
    choice('tannin', 'tannin first', 'Alum holds on the tannin; the ground is a little yellowed.'),
    choice('alum', 'alum first', 'Clearer ground; holds less, so paler.'),
  ),
  question(
    'fixing',
    'Fixing the mordant on cellulose',
    true,
    choice('chalk', 'chalk bath', 'Quick and cheap; hardens the hand a little.'),
    choice('bran', 'bran bath', 'Soft hand and clear whites; bran is steeped first and spoils.'),
    choice('none', 'none', 'A bath less; loose salt bleeds into the dye bath.'),
  ),
  question(
    'mordantBath',
    'Mordant bath',
    false,
    choice('fresh', 'fresh each time', 'Known strength; more salt goes down the drain.'),
    choice('kept', 'kept and replenished', 'Saves salt and water; what is left in it is an estimate.'),
  ),
  question(
    'extractions',
    'Several extractions',
    false,
    choice('pooled', 'all in one bath', 'One even shade, and all the dye; a bigger pot.'),
    choice('apart', 'a bath of each', 'A family of shades; the later ones paler and often browner.'),
  ),
  question(
    'vatKind',
    'Kind of vat',
    false,
    choice('ferment', VAT_LABELS.ferment, 'Gentle and lasting; days to come to life, and warmth to keep.'),
    choice('fruit', VAT_LABELS.fruit, 'No harsh reducer; strongly alkaline, so hard on wool.'),
    choice('iron', VAT_LABELS.iron, 'Cold and lasting, for cellulose; a thick sediment, and too alkaline for wool.'),
    choice('reducer', VAT_LABELS.reducer, 'Ready in an hour; gas and caustic, and spent soon.'),
  ),
  question(
    'rinseMordant',
    'Rinse after mordanting',
    true,
    choice('yes', 'yes', 'No loose salt in the dye bath; a little mordant is rinsed off.'),
    choice('no', 'no, straight into the bath', 'Saves water and time; loose salt may take dye out of the bath.'),
  ),
  question(
    'doseBy',
    'Dose of dyestuff',
    false,
    choice('fibre', 'by weight of fibre', 'Repeats at any size; everything must be weighed.'),
    choice('pot', 'by pot size or count', 'Quick; repeats only with the same pot and the same pieces.'),
    choice('have', 'as much as there is', 'Nothing is left over; nothing can be promised again.'),
  ),
  question(
    'form',
    'Fresh, frozen or dried',
    false,
    choice('fresh', 'fresh', 'Clearest colour; only in its season, and its water must be reckoned with.'),
    choice('frozen', 'frozen', 'Keeps colour; takes a freezer.'),
    choice('dried', 'dried', 'Keeps for years and weighs true; some hues dull in drying.'),
  ),
  question(
    'straining',
    'Straining',
    true,
    choice('twice', 'always, twice', 'No specks; takes time and some liquor stays in the cloth.'),
    choice('never', 'never', 'Textured, speckled cloth; specks where they are not wanted.'),
    choice('bag', 'dyestuff in a bag', 'Lifted out in one go; extracts a little less.'),
  ),
  question(
    'fibreInExtraction',
    'Fibre in the pot while extracting',
    false,
    choice('cellulose', 'cellulose yes, protein only once cool', 'Saves a heat on cellulose; protein is spared.'),
    choice('never', 'never', 'Safest and evenest; a second heat.'),
  ),
  question(
    'finish',
    'End of the dye bath',
    true,
    choice('overnight', 'cool overnight in the bath', 'Deepest and evenest; a pot for a night.'),
    choice('lift', 'lift at the shade wanted', 'The shade is chosen by eye; paler, and the pot is free sooner.'),
  ),
  question(
    'rinse',
    'Rinsing',
    true,
    choice('once', 'at once', 'Done in a day; more loose dye goes with the water.'),
    choice('cure', 'dry, cure one to two weeks, then wash', 'Faster to wash; the pieces hang for weeks.'),
  ),
  question(
    'sun',
    'Drying in the sun',
    false,
    choice('never', 'never', 'Nothing bleaches; slower in damp weather.'),
    choice('either', 'makes no difference', 'Dries fast; yellows and some purples may fade on the line.'),
  ),
  question(
    'endPoint',
    'End point',
    true,
    choice('clock', 'by the clock', 'Repeats; the pot may stop short of the shade.'),
    choice('eye', 'by the eye', 'Meets the shade; wants somebody there, and good light.'),
  ),
  question(
    'vessel',
    'Vessels',
    false,
    choice('inert', 'stainless or enamel only', 'Nothing from the pot; fewer pots to choose from.'),
    choice('aluminium', 'aluminium accepted', 'Lighter pots; brightens some shades and pits with alkali.'),
    choice('iron', 'iron only on purpose', 'A pot that saddens by itself; never for anything else.'),
  ),
  question(
    'measuring',
    'Measuring',
    false,
    choice('balance', 'balance', 'True every time; slower with wet hands.'),
    choice('spoon', 'a calibrated spoon', 'Quick; wrong by several per cent at each spoon.'),
  ),
  question(
    'modifiers',
    'Modifiers',
    false,
    choice('crystals', 'weighed crystals', 'Repeats; dust to guard against.'),
    choice('liquor', 'home-made liquor', 'Costs nothing; its strength is unknown until read against a ladder.'),
  ),
];

/** Looks a choice up; `undefined` where the question or the answer is not known. */
export function practiceChoice(key: string, answer: string | undefined): PracticeChoice | undefined {
  return PRACTICE.find((q) => q.key === key)?.choices.find((c) => c.key === answer);
}

/** Where a recipe says otherwise than the house, a line for each. */
export function practiceDifferences(house: Practice, recipe: Practice): string[] {
  return PRACTICE.flatMap((q) => {
    const [here, there] = [practiceChoice(q.key, house[q.key]), practiceChoice(q.key, recipe[q.key])];
    return there && there.key !== here?.key
      ? [`${q.question}: ${there.label}${here ? `, where the house says ${here.label}` : ''}.`]
      : [];
  });
}
