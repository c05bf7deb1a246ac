/** What a place is for and how one begins there: shown under Help, and told stop by stop by the tour. */
export interface PlaceHelp {
  readonly path: string;
  readonly name: string;
  readonly is: string;
  /** What to look at there, on the tour. */
  readonly look: string;
}

/** In the order of the work. */
export const PLACE_HELP: readonly PlaceHelp[] = [
  {
    path: '/today',
    name: 'Today',
    is: 'What wants somebody now, and what comes after it. The one thing to do next stands at the top; below it all that soaks, dries and waits for an eye.',
    look: 'Each lot is drawn as a thread in the colour it has at each step: solid where it is done, open where it is planned, knotted where something went otherwise. The strip along the foot of every page shows what is in the pots and when hands are wanted.',
  },
  {
    path: '/stores',
    name: 'Stores',
    is: 'Every jar, bag and bale: what is on hand, what is promised to lots that are planned, and what is free. What comes in is booked in; what is ground, dried or blended becomes a new jar.',
    look: 'Press a tag, ALU-1 for one. Every gram that ever moved stands there with who moved it, and a slip is reversed and never rubbed out.',
  },
  {
    path: '/recipes',
    name: 'Recipes',
    is: 'What goes in, as per cent of the dry fibre, and what is done, step by step. A version is never changed: the next one is written, and the one that made a lot can always be read.',
    look: 'Open one. It is a trial until lots or strips have shown that it holds; then somebody calls it proven.',
  },
  {
    path: '/colourways',
    name: 'Colourways',
    is: 'A result worth repeating, by name: which recipe, on which base, how it must look (its master) and how far it may stray.',
    look: 'Open Marram, or another. How well it repeats is drawn from lot to lot, and Dye a lot begins the next.',
  },
  {
    path: '/lots/new',
    name: 'A new lot',
    is: 'So many pieces of a colourway. What to weigh, which pot and which jars are worked out, and what differs from the lot before is said before anything starts.',
    look: 'Choose a colourway and write 3 hanks of 100 g. Press any figure with a dotted line: the margin shows how it came about. Nothing is kept until you agree.',
  },
  {
    path: '/bench',
    name: 'Bench',
    is: 'Where a lot is done: one large thing to press at a time. The weight to reach, the heat and the time left can be read two metres off.',
    look: 'Space or a foot pedal says done. What went otherwise is written with one press, and keeps its knot in the thread. Without a server the bench goes on and sends later.',
  },
  {
    path: '/judge',
    name: 'Judge',
    is: 'A lot that is dry, beside its master on grey. It is read by an instrument, from a photograph or by eye; then it is passed, held or refused.',
    look: 'A wet reading passes nothing. Foretold shows how far off the predictions have been, and Reach what of the shelf makes a shade that somebody brings.',
  },
  {
    path: '/plan',
    name: 'Plan',
    is: 'What open lots still ask for: hands apart from waiting, and which pot is free when.',
    look: 'Most of a lot is waiting. What can run overnight says so.',
  },
  {
    path: '/studio',
    name: 'Studio',
    is: 'The house itself: pots, burners, waters, people and what they may do, copies, and how figures are read here.',
    look: 'House practice asks how you do things, since studios differ, and every recipe goes by the answers. That was the round: Search finds everything by its name, number or tag.',
  },
];

/** The help of the place a path lies in. */
export const helpOf = (path: string): PlaceHelp | undefined =>
  [...PLACE_HELP]
    .sort((a, b) => b.path.length - a.path.length)
    .find((p) => path === p.path || path.startsWith(`${p.path}/`)) ??
  (path.startsWith('/lots') ? PLACE_HELP.find((p) => p.path === '/lots/new') : undefined);
