import { wordedList } from '../words/worded';
import type { Hazard } from './hazards';

/** What a material does in a bath: what its label warns of, and whether it brings tannin. */
export type Trait = Hazard | 'tannin';

/** What happens when two things meet. */
export type ReactionCode =
  | 'chlorineFromAcid'
  | 'gasFromAmmonia'
  | 'bleachAndReducer'
  | 'oxidiserAndReducer'
  | 'acidAndReducer'
  | 'foam'
  | 'spitting'
  | 'fierceFire'
  | 'ink';

/** How grave two things are that meet: a lot can't start, or only with a reason. */
export type Gravity = 'stop' | 'caution';

/** Two things that must not meet, where, and why. */
export interface Reaction {
  readonly code: ReactionCode;
  readonly traits: readonly [Trait, Trait];
  /** Side by side on a shelf, where a leak brings them together. */
  readonly onShelf: boolean;
  /** In one liquor; `null` where that is meant, or does nothing. */
  readonly inBath: Gravity | null;
  /** One of them still in the pieces when they go into the other, with no rinse between. */
  readonly carriedOver: Gravity | null;
  readonly why: string;
}

/** Gravest first. */
export const REACTIONS: readonly Reaction[] = wordedList(() => [
  {
    code: 'chlorineFromAcid',
    traits: ['acid', 'chlorineBleach'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: 'stop',
    why: $localize`acid on chlorine bleach sets free poisonous chlorine gas`,
  },
  {
    code: 'gasFromAmmonia',
    traits: ['ammonia', 'chlorineBleach'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: 'stop',
    why: $localize`ammonia on chlorine bleach sets free poisonous gas`,
  },
  {
    code: 'bleachAndReducer',
    traits: ['reducer', 'chlorineBleach'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: 'caution',
    why: $localize`a reducer on chlorine bleach heats up at once and sets free irritating gas`,
  },
  {
    code: 'oxidiserAndReducer',
    traits: ['reducer', 'oxidiser'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: 'caution',
    why: $localize`a reducer on an oxidiser heats up at once and may catch fire`,
  },
  {
    code: 'acidAndReducer',
    traits: ['reducer', 'acid'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: 'caution',
    why: $localize`acid on a reducer sets free poisonous, choking gas`,
  },
  {
    code: 'fierceFire',
    traits: ['flammable', 'oxidiser'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: null,
    why: $localize`an oxidiser makes what burns burn fiercely`,
  },
  {
    code: 'foam',
    traits: ['acid', 'carbonate'],
    onShelf: true,
    inBath: 'stop',
    carriedOver: null,
    why: $localize`acid on carbonate foams over`,
  },
  {
    code: 'spitting',
    traits: ['acid', 'caustic'],
    onShelf: true,
    inBath: null,
    carriedOver: null,
    why: $localize`acid and caustic heat up and spit when they meet`,
  },
  {
    code: 'ink',
    traits: ['ironSalt', 'tannin'],
    onShelf: false,
    inBath: 'caution',
    carriedOver: null,
    why: $localize`iron and tannin make black ink at once, in the bath as well as in the fibre`,
  },
]);

/** The gravest reaction of two things whose traits are these, among those that count. */
export function findReaction(
  first: readonly Trait[],
  second: readonly Trait[],
  counts: (reaction: Reaction) => boolean,
): Reaction | undefined {
  return REACTIONS.find(
    (reaction) =>
      counts(reaction) &&
      ((first.includes(reaction.traits[0]) && second.includes(reaction.traits[1])) ||
        (first.includes(reaction.traits[1]) && second.includes(reaction.traits[0]))),
  );
}
