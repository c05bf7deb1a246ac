import type { KnownStrength, ReorderAsk, ReorderWay } from '@vestigia/core';
import { answerReorder } from '@vestigia/core';
import { Ids } from './ids';
import { openPast } from './open-past';
import { rivals } from './rivals';
import type { Scored } from './score';
import type { Translator } from './translate';
import { translator } from './translate';
import type { Dyehouse, Dyeing, Order, PastDyeing } from './world';
import { deltaE00 } from './worlds/light';

/** The luck of what is dyed unchanged, corrected, and corrected after a strike-off; and of that. */
const ATTEMPTS = { unchanged: 1, corrected: 2, strikeOff: 3, struckOff: 4, rival: 5 } as const;
const STRIKE_OFF_G = 20;

/** A dyehouse’s past as the product knows it. */
export interface Learnt {
  readonly translate: Translator;
  readonly strengths: readonly KnownStrength[];
}

/** Brings a past into the product by its own studio file, and reads the match’s record out of it. */
export async function learnPast(house: Dyehouse, past: readonly PastDyeing[]): Promise<Learnt> {
  const ids = new Ids();
  const record = await openPast(house.setting, past, ids);
  return { translate: translator(house.setting, record, ids), strengths: record.strengths };
}

/** What the letter says of one order: as it is planned, as it advises, and what it would strike off. */
function letterOf(
  ask: ReorderAsk,
): { unchanged: ReorderWay; advised: ReorderWay; strikeOff: ReorderWay; isAsked: boolean } | undefined {
  const said = answerReorder(ask);
  if (said.state === 'tooFew') return undefined;
  const { unchanged, strikeOff } = said;
  const advised = said.ways[0] ?? unchanged;
  return { unchanged, advised, strikeOff: strikeOff?.way ?? advised, isAsked: strikeOff !== null };
}

/** One order, dyed in every way there is. */
export function playOrder(
  house: Dyehouse,
  past: readonly PastDyeing[],
  { translate, strengths }: Learnt,
  order: Order,
): Scored {
  const colourway = house.setting.colourways.find((c) => c.id === order.colourwayId);
  if (!colourway) throw new Error('the world orders a colourway that its setting doesn’t have');
  const plan = translate.order(order);
  const dyeing = translate.dyeing(plan);
  const ask: ReorderAsk = {
    readings: translate.readings,
    strengths,
    plan: dyeing,
    recipe: dyeing,
    then: null,
    standard: colourway.master,
    toleranceDeltaE: colourway.toleranceDeltaE00,
    shelf: translate.shelf(order),
    waters: translate.waters,
  };
  const said = letterOf(ask);
  const corrected = said ? translate.asked(plan, said.advised) : plan;
  // A strike-off is dyed of every order, whether it was asked for or not: that is what is measured.
  const tried = { ...(said ? translate.asked(plan, said.strikeOff) : plan), purpose: 'strikeOff' as const };
  const seen = translate.observed('strike-off', house.dye({ ...tried, fibreG: STRIKE_OFF_G }, ATTEMPTS.strikeOff));
  const surer = seen && letterOf({ ...ask, readings: [...ask.readings, seen] });
  const unchanged = house.dye(plan, ATTEMPTS.unchanged).truth.dry;
  const off = (dyed: Dyeing, attempt: number): number => deltaE00(colourway.master, house.dye(dyed, attempt).truth.dry);
  const plain = rivals(house.setting, past, order, plan);
  return {
    foretold: said ? { off: deltaE00(said.unchanged.lab, unchanged), within80: said.unchanged.within80 } : null,
    ways: {
      unchanged: deltaE00(colourway.master, unchanged),
      corrected: off(corrected, ATTEMPTS.corrected),
      struckOff: off(surer ? translate.asked(plan, surer.advised) : corrected, ATTEMPTS.struckOff),
      lastLot: off(plain.lastLot, ATTEMPTS.rival),
      strengthOnly: off(plain.strengthOnly, ATTEMPTS.rival),
      nearest: off(plain.nearest, ATTEMPTS.rival),
    },
    askedForStrikeOff: said?.isAsked ?? false,
    limit: house.limit?.(order) ?? null,
  };
}
