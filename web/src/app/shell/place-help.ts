import { PLACES } from './places';

type PlacePath = (typeof PLACES)[number]['path'];

/** What a place is for and how one begins there: shown under Help, and told stop by stop by the tour. */
export interface PlaceHelp {
  readonly path: string;
  readonly name: string;
  readonly is: string;
  /** What to look at there. */
  readonly look: string;
}

const HELP: Readonly<Record<PlacePath, Pick<PlaceHelp, 'is' | 'look'>>> = {
  '/today': {
    is: $localize`What wants somebody now, and what comes after it. The one thing to do next stands at the top; below it all that soaks, dries and waits for an eye.`,
    look: $localize`Each lot is drawn as a thread in the colour it has at each step: solid where it is done, open where it is planned, knotted where something went otherwise. The strip along the foot of every page shows what is in the pots and when hands are wanted.`,
  },
  '/stores': {
    is: $localize`Every jar, bag and bale: what is on hand, what is promised to lots that are planned, and what is free. What comes in is booked in; what is ground, dried or blended becomes a new jar.`,
    look: $localize`Press a jar’s tag. Every gram that ever moved stands there with who moved it, and a slip is reversed and never rubbed out.`,
  },
  '/recipes': {
    is: $localize`What goes in, as per cent of the dry fibre, and what is done, step by step. A version is never changed: the next one is written, and the one that made a lot can always be read.`,
    look: $localize`Open one. It is a trial until lots or strips have shown that it holds; then somebody calls it proven.`,
  },
  '/colourways': {
    is: $localize`A result worth repeating, by name: which recipe, on which base, how it must look (its master) and how far it may stray.`,
    look: $localize`Open one. How well it repeats is drawn from lot to lot, and Dye a lot begins the next.`,
  },
  '/orders': {
    is: $localize`Who wants what, how much and by when, and which lot or colour it must match. A lot that is dyed for an order knows its day; finished pieces are set aside, handed over, or left on the shelf for the next who asks.`,
    look: $localize`Take an order, and ask how soon it could be ready: a lot for it is tried beside all that is planned. Once the lot is passed, count its pieces in on its page.`,
  },
  '/lots': {
    is: $localize`So many pieces of a colourway, dyed as one. What to weigh, which pot and which jars are worked out, and what differs from the lot before is said before anything starts.`,
    look: $localize`Start a lot: choose a colourway and write 3 hanks of 100 g. Press any figure with a dotted line, and the margin shows how it came about. Nothing is kept until you agree.`,
  },
  '/bench': {
    is: $localize`Where a lot is done: one large thing to press at a time. The weight to reach, the heat and the time left can be read two metres off.`,
    look: $localize`Space or a foot pedal says done. What went otherwise is written down there, and keeps its knot in the thread. Without a server the bench goes on and sends later.`,
  },
  '/judge': {
    is: $localize`A lot that is dry, beside its master on grey. It is read by an instrument, from a photograph or by eye; then it is passed, held or refused.`,
    look: $localize`A wet reading passes nothing. Foretold shows how far off the predictions have been, and Reach what of the shelf makes a shade that somebody brings.`,
  },
  '/plan': {
    is: $localize`Every open lot over pots, burners and the hours people are there, and the day it is done. A plan is looked at first and gone by once somebody accepts it.`,
    look: $localize`Move a step by dragging it or by Alt with the arrows, and see what moves with it. What ran on is planned round, and stands there to be accepted. Promise a lot for a day, and it goes first.`,
  },
  '/studio': {
    is: $localize`The house itself: pots, burners, waters, people and what they may do, copies, and how figures are read here.`,
    look: $localize`House practice asks how you do things, since studios differ, and every recipe goes by the answers. Search finds everything by its name, number or tag.`,
  },
};

/** In the order of the work. */
export const PLACE_HELP: readonly PlaceHelp[] = PLACES.map((place) => ({ ...place, ...HELP[place.path] }));

/** The help of the place a path lies in. */
export const helpOf = (path: string): PlaceHelp | undefined =>
  PLACE_HELP.find((p) => path === p.path || path.startsWith(`${p.path}/`));
