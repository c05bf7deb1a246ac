import { wordedList } from '../words/worded';
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
export const PRACTICE: readonly PracticeQuestion[] = wordedList(() => [
  question(
    'mordantOnTannin',
    $localize`Mordant on dyestuffs that bring their own tannin`,
    true,
    choice(
      'none',
      $localize`none needed`,
      $localize`Saves a day, a pot and the salt; some shades come out paler and wash less fast.`,
    ),
    choice(
      'always',
      $localize`always mordant`,
      $localize`Deeper and surer; costs a bath, and the mordant shifts the hue.`,
    ),
  ),
  question(
    'aluminium',
    $localize`Aluminium`,
    true,
    choice('alum10', $localize`potassium alum, 10 %`, $localize`Thriftiest; deep shades may not fill.`),
    choice('alum12', $localize`potassium alum, 12 %`, $localize`A middle way for wool and silk.`),
    choice('alum15', $localize`potassium alum, 15 %`, $localize`Deep shades fill; a little salt is left in the bath.`),
    choice(
      'alum20',
      $localize`potassium alum, 20 %`,
      $localize`Never short; wool may feel harsh, and more goes down the drain.`,
    ),
    choice(
      'acetate',
      $localize`aluminium acetate or lactate on cellulose`,
      $localize`Best on cellulose; dearer, and it wants a chalk bath after.`,
    ),
    choice(
      'soy',
      $localize`soy milk as binder, no metal salt`,
      $localize`No metal at all; several thin coats and days of drying, and colours wash less fast.`,
    ),
  ),
  question(
    'mordantHeat',
    $localize`Heat of the mordant bath`,
    true,
    choice(
      'hot',
      $localize`simmer an hour, cool overnight`,
      $localize`Done by the next morning; takes a pot and a burner.`,
    ),
    choice(
      'cold',
      $localize`cold, one to seven days`,
      $localize`No fuel, gentle on fibre; the pot or bucket is taken for days.`,
    ),
  ),
  question(
    'tartar',
    $localize`Cream of tartar`,
    true,
    choice('with', $localize`with the mordant`, $localize`Softer wool and clearer colour; costs the tartar.`),
    choice('rinse', $localize`as a rinse afterwards`, $localize`Keeps the bath neutral; one more rinse.`),
    choice('none', $localize`none`, $localize`Cheapest; wool may feel sticky, hues a little duller.`),
  ),
  question(
    'mordantWhen',
    $localize`When the mordant goes on`,
    true,
    choice(
      'before',
      $localize`before the dye`,
      $localize`Evenest, and fibre can be mordanted ahead; a bath of its own.`,
    ),
    choice(
      'with',
      $localize`with the dye, in one bath`,
      $localize`One bath and one heat; paler, and the bath can’t be used again.`,
    ),
    choice(
      'after',
      $localize`after the dye`,
      $localize`Shifts the shade at the end, piece by piece; less even, and it may bleed before.`,
    ),
  ),
  question(
    'tanninOrder',
    $localize`Tannin and alum on cellulose`,
    true,
    choice('tannin', $localize`tannin first`, $localize`Alum holds on the tannin; the ground is a little yellowed.`),
    choice('alum', $localize`alum first`, $localize`Clearer ground; holds less, so paler.`),
  ),
  question(
    'fixing',
    $localize`Fixing the mordant on cellulose`,
    true,
    choice('chalk', $localize`chalk bath`, $localize`Quick and cheap; hardens the hand a little.`),
    choice('bran', $localize`bran bath`, $localize`Soft hand and clear whites; bran is steeped first and spoils.`),
    choice('none', $localize`none`, $localize`A bath less; loose salt bleeds into the dye bath.`),
  ),
  question(
    'mordantBath',
    $localize`Mordant bath`,
    false,
    choice('fresh', $localize`fresh each time`, $localize`Known strength; more salt goes down the drain.`),
    choice(
      'kept',
      $localize`kept and replenished`,
      $localize`Saves salt and water; what is left in it is an estimate.`,
    ),
  ),
  question(
    'extractions',
    $localize`Several extractions`,
    false,
    choice('pooled', $localize`all in one bath`, $localize`One even shade, and all the dye; a bigger pot.`),
    choice('apart', $localize`a bath of each`, $localize`A family of shades; the later ones paler and often browner.`),
  ),
  question(
    'vatKind',
    $localize`Kind of vat`,
    false,
    choice('ferment', VAT_LABELS.ferment, $localize`Gentle and lasting; days to come to life, and warmth to keep.`),
    choice('fruit', VAT_LABELS.fruit, $localize`No harsh reducer; strongly alkaline, so hard on wool.`),
    choice(
      'iron',
      VAT_LABELS.iron,
      $localize`Cold and lasting, for cellulose; a thick sediment, and too alkaline for wool.`,
    ),
    choice('reducer', VAT_LABELS.reducer, $localize`Ready in an hour; gas and caustic, and spent soon.`),
  ),
  question(
    'rinseMordant',
    $localize`Rinse after mordanting`,
    true,
    choice('yes', $localize`yes`, $localize`No loose salt in the dye bath; a little mordant is rinsed off.`),
    choice(
      'no',
      $localize`no, straight into the bath`,
      $localize`Saves water and time; loose salt may take dye out of the bath.`,
    ),
  ),
  question(
    'doseBy',
    $localize`Dose of dyestuff`,
    false,
    choice('fibre', $localize`by weight of fibre`, $localize`Repeats at any size; everything must be weighed.`),
    choice(
      'pot',
      $localize`by pot size or count`,
      $localize`Quick; repeats only with the same pot and the same pieces.`,
    ),
    choice('have', $localize`as much as there is`, $localize`Nothing is left over; nothing can be promised again.`),
  ),
  question(
    'form',
    $localize`Fresh, frozen or dried`,
    false,
    choice(
      'fresh',
      $localize`fresh`,
      $localize`Clearest colour; only in its season, and its water must be reckoned with.`,
    ),
    choice('frozen', $localize`frozen`, $localize`Keeps colour; takes a freezer.`),
    choice('dried', $localize`dried`, $localize`Keeps for years and weighs true; some hues dull in drying.`),
  ),
  question(
    'straining',
    $localize`Straining`,
    true,
    choice('twice', $localize`always, twice`, $localize`No specks; takes time and some liquor stays in the cloth.`),
    choice('never', $localize`never`, $localize`Textured, speckled cloth; specks where they are not wanted.`),
    choice('bag', $localize`dyestuff in a bag`, $localize`Lifted out in one go; extracts a little less.`),
  ),
  question(
    'fibreInExtraction',
    $localize`Fibre in the pot while extracting`,
    false,
    choice(
      'cellulose',
      $localize`cellulose yes, protein only once cool`,
      $localize`Saves a heat on cellulose; protein is spared.`,
    ),
    choice('never', $localize`never`, $localize`Safest and evenest; a second heat.`),
  ),
  question(
    'finish',
    $localize`End of the dye bath`,
    true,
    choice('overnight', $localize`cool overnight in the bath`, $localize`Deepest and evenest; a pot for a night.`),
    choice(
      'lift',
      $localize`lift at the shade wanted`,
      $localize`The shade is chosen by eye; paler, and the pot is free sooner.`,
    ),
  ),
  question(
    'rinse',
    $localize`Rinsing`,
    true,
    choice('once', $localize`at once`, $localize`Done in a day; more loose dye goes with the water.`),
    choice(
      'cure',
      $localize`dry, cure one to two weeks, then wash`,
      $localize`Faster to wash; the pieces hang for weeks.`,
    ),
  ),
  question(
    'sun',
    $localize`Drying in the sun`,
    false,
    choice('never', $localize`never`, $localize`Nothing bleaches; slower in damp weather.`),
    choice(
      'either',
      $localize`makes no difference`,
      $localize`Dries fast; yellows and some purples may fade on the line.`,
    ),
  ),
  question(
    'endPoint',
    $localize`End point`,
    true,
    choice('clock', $localize`by the clock`, $localize`Repeats; the pot may stop short of the shade.`),
    choice('eye', $localize`by the eye`, $localize`Meets the shade; wants somebody there, and good light.`),
  ),
  question(
    'vessel',
    $localize`Vessels`,
    false,
    choice('inert', $localize`stainless or enamel only`, $localize`Nothing from the pot; fewer pots to choose from.`),
    choice(
      'aluminium',
      $localize`aluminium accepted`,
      $localize`Lighter pots; brightens some shades and pits with alkali.`,
    ),
    choice('iron', $localize`iron only on purpose`, $localize`A pot that saddens by itself; never for anything else.`),
  ),
  question(
    'measuring',
    $localize`Measuring`,
    false,
    choice('balance', $localize`balance`, $localize`True every time; slower with wet hands.`),
    choice('spoon', $localize`a calibrated spoon`, $localize`Quick; wrong by several per cent at each spoon.`),
  ),
  question(
    'modifiers',
    $localize`Modifiers`,
    false,
    choice('crystals', $localize`weighed crystals`, $localize`Repeats; dust to guard against.`),
    choice(
      'liquor',
      $localize`home-made liquor`,
      $localize`Costs nothing; its strength is unknown until read against a ladder.`,
    ),
  ),
]);

/** Looks a choice up; `undefined` where the question or the answer is not known. */
export function practiceChoice(key: string, answer: string | undefined): PracticeChoice | undefined {
  return PRACTICE.find((q) => q.key === key)?.choices.find((c) => c.key === answer);
}

/** Where a recipe says otherwise than the house, a line for each. */
export function practiceDifferences(house: Practice, recipe: Practice): string[] {
  return PRACTICE.flatMap((q) => {
    const [here, there] = [practiceChoice(q.key, house[q.key]), practiceChoice(q.key, recipe[q.key])];
    return there && there.key !== here?.key
      ? [`${q.question}: ${there.label}${here ? $localize`, where the house says ${here.label}` : ''}.`]
      : [];
  });
}
