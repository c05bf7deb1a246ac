import { worded } from '../words/worded';
import { keyOf } from '../recipe/chain';
import { takesPieces } from '../recipe/step-kind';
import type { Gravity, Reaction, ReactionCode, Trait } from '../safety/reactions';
import { findReaction } from '../safety/reactions';
import { liquorSteps } from '../scaling/liquor-steps';
import type { PlannedStep } from '../scaling/lot-plan';
import type { CheckedMaterial, CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, line, stop } from './finding';

interface MixtureFinding {
  readonly code: 'mixture';
  readonly reaction: ReactionCode;
  readonly where: 'bath' | 'carriedOver';
  readonly gravity: Gravity;
  readonly first: string;
  readonly second: string;
  readonly title: string;
  readonly why: string;
  readonly cites: string;
}

/** After these the pieces bring nothing along. */
const CLEARS: readonly PlannedStep['kind'][] = ['rinse', 'wash', 'scour'];

/** What a material does in a bath. */
const traitsOf = (m: CheckedMaterial): Trait[] => [
  ...m.hazards,
  ...(m.kind === 'tannin' || m.bringsTannin ? ['tannin' as const] : []),
];

function findMixtures(input: CheckInput): MixtureFinding[] {
  const { plan } = input;
  return plan.steps.flatMap((step) => {
    const own = dosedAt(input, step);
    if (own.length === 0) return [];
    const inLiquor = [...own, ...sharedBefore(input, step).flatMap((s) => dosedAt(input, s))];
    const carried = carriedInto(input, step).flatMap((s) => dosedAt(input, s));
    return [
      ...meetings(own, inLiquor, (r) => r.inBath, step, 'bath', input),
      ...meetings(own, carried, (r) => r.carriedOver, step, 'carriedOver', input),
    ];
  });
}

/** The materials weighed into a step, and what the kept liquors that go into it hold. */
function dosedAt({ materials, stockLots }: CheckInput, step: PlannedStep): CheckedMaterial[] {
  const ids = step.weighings.flatMap((w) => [
    w.materialId,
    ...w.picks.flatMap((p) => stockLots.find((s) => s.id === p.stockLotId)?.contents ?? []),
  ]);
  return [...new Set(ids)].flatMap((id) => materials.find((m) => m.id === id) ?? []);
}

const recipeStepOf = ({ recipe }: CheckInput, step: PlannedStep) =>
  recipe.steps.find((s, i) => step.key !== '' && keyOf(s, i) === step.key);

/** Steps before this one whose liquor it shares: by the bath they name, or because the liquor goes on into it. */
function sharedBefore(input: CheckInput, step: PlannedStep): PlannedStep[] {
  const bath = recipeStepOf(input, step)?.bath ?? '';
  const named = input.plan.steps.filter(
    (s) => bath !== '' && s.index < step.index && recipeStepOf(input, s)?.bath === bath,
  );
  return [...new Set([...named, ...liquorSteps(input.plan, step).filter((s) => s.index !== step.index)])];
}

/** Steps whose liquor is still in the pieces when they come to this one: nothing between them rinses. */
function carriedInto({ plan }: CheckInput, step: PlannedStep): PlannedStep[] {
  if (!takesPieces(step)) return [];
  const seen = new Set<number>();
  const back = (s: PlannedStep): PlannedStep[] =>
    s.after.flatMap((i) => {
      const earlier = plan.steps[i];
      if (!earlier || seen.has(i)) return [];
      seen.add(i);
      // A scour or wash that brings the stuff itself is looked at; what lies before it is out of the pieces.
      const beyond = CLEARS.includes(earlier.kind) ? [] : back(earlier);
      return takesPieces(earlier) && earlier.kind !== 'rinse' ? [earlier, ...beyond] : beyond;
    });
  return back(step);
}

function meetings(
  own: readonly CheckedMaterial[],
  others: readonly CheckedMaterial[],
  gravityOf: (reaction: Reaction) => Gravity | null,
  step: PlannedStep,
  where: MixtureFinding['where'],
  input: CheckInput,
): MixtureFinding[] {
  return own.flatMap((first) =>
    others.flatMap((second) => {
      const same = first.id === second.id;
      const isPair = own.includes(second) ? own.indexOf(first) < own.indexOf(second) : true;
      const reaction =
        same || !isPair ? undefined : findReaction(traitsOf(first), traitsOf(second), (r) => gravityOf(r) !== null);
      const gravity = reaction && graveHere(reaction, gravityOf(reaction), step);
      return reaction && gravity
        ? [
            {
              code: 'mixture' as const,
              reaction: reaction.code,
              where,
              gravity,
              first: first.name,
              second: second.name,
              title: step.title,
              why: reaction.why,
              cites: line(input.recipe, step),
            },
          ]
        : [];
    }),
  );
}

/** Acid drop by drop into an alkaline bath is how it is neutralised, and ink in a modifying bath is what is meant. */
function graveHere(reaction: Reaction, gravity: Gravity | null, step: PlannedStep): Gravity | null {
  if (reaction.code === 'foam' && step.kind === 'adjustPh') return 'caution';
  if (reaction.code === 'ink' && step.kind === 'modify') return null;
  return gravity;
}

function sayMixture(f: MixtureFinding): CheckText {
  const message =
    f.where === 'bath'
      ? $localize`“${f.title}” brings ${f.first} and ${f.second} together in one liquor.`
      : $localize`“${f.title}” puts ${f.first} on pieces that still hold ${f.second}.`;
  const why = `${f.why[0]?.toUpperCase() ?? ''}${f.why.slice(1)}. ${REMEDY[f.where]}`;
  return f.gravity === 'stop' ? stop(message, why, f.cites) : caution(message, why, f.cites);
}

const REMEDY = worded(
  () =>
    ({
      bath: $localize`Give each a bath of its own, with a rinse between; the supplier’s safety data sheets say more.`,
      carriedOver: $localize`Rinse between the two until the water runs clear; the supplier’s safety data sheets say more.`,
    }) as const,
);

/** Whether anything in a bath, or still in the pieces, meets what it must not meet. */
export const mixtureChecks = checkFamily(findMixtures, sayMixture);
