import type { StudioFile } from '@vestigia/contract';
import { Random } from './random';
import { addBenchHistory } from './bench-history';
import { addRecipesHistory, addStripsHistory } from './recipes-history';
import { SPECIALS, tellSpecials } from './special-lots';
import { addJudgeHistory } from './judge-history';
import { addOrdersHistory } from './orders-history';
import { addPickings } from './pickings';
import { addStoresHistory } from './stores-history';
import type { Simulation, Doc, Delivery } from './dyehouse';
import { Dyehouse, DAY_MS, byText, byTime } from './dyehouse';
import { furnish } from './furnish';
import { planDeliveries, deliver } from './deliveries';
import { dyeLot } from './dye-lot';
import { loseSome } from './losses';

/**
 * A small simulated dyehouse: deliveries come, lots are planned with the product's own arithmetic, dyed with the slips
 * people make, read wet and dry, judged. Shade follows the dyestuff's strength, the water and the pot by a simple
 * saturating law, so that two harvests, two waters and one spoiled pot leave marks that can be found again.
 */
export function simulateDyehouse(sim: Simulation): StudioFile {
  return tellStory(new Dyehouse(sim, furnish));
}

function tellStory(house: Dyehouse): Doc {
  const deliveries = planDeliveries(house);
  const last = house.sim.lastStartsDaysBefore;
  const steadyDays = house.sim.days - 5 - (last[0] ?? 0);
  const steady = Array.from(
    { length: Math.floor(steadyDays / house.sim.daysBetweenLots) },
    (_, n) => house.startMs + (5 + n * house.sim.daysBetweenLots) * DAY_MS,
  );
  const starts = [...steady, ...last.map((days) => house.endMs - days * DAY_MS)];
  const untold = [...SPECIALS];
  addRecipesHistory(house.doc, {
    random: new Random(house.sim.seed + 2),
    endMs: house.endMs,
    materialIds: house.materialIds,
    materialId: (name) => house.materialId(name),
  });
  starts.forEach((startMs, n) => {
    tellSpecials(house, untold, startMs);
    while ((deliveries[0]?.atMs ?? Infinity) <= startMs) deliver(house, deliveries.shift() as Delivery);
    dyeLot(house, n, startMs, n === steady.length);
  });
  for (const delivery of deliveries) deliver(house, delivery);
  tellSpecials(house, untold, house.endMs);
  loseSome(house);
  addStoresHistory(house.doc, {
    random: house.random,
    endMs: house.endMs,
    materialId: (name) => house.materialId(name),
    byId: () => house.personId(),
  });
  addStripsHistory(house.doc, {
    random: new Random(house.sim.seed + 4),
    endMs: house.endMs,
    materialIds: house.materialIds,
    materialId: (name) => house.materialId(name),
  });
  addBenchHistory(house.doc, { random: new Random(house.sim.seed + 3), byId: () => house.personId() });
  addPickings(house.doc, { random: new Random(house.sim.seed + 5) });
  addJudgeHistory(house.doc, {
    random: new Random(house.sim.seed + 6),
    byId: () => house.personId(),
    endMs: house.endMs,
  });
  addOrdersHistory(house.doc, {
    random: new Random(house.sim.seed + 7),
    endMs: house.endMs,
    byId: house.doc.people[0]?.id ?? '',
  });
  house.doc.movements.sort(byTime);
  house.doc.reservations.sort(byTime);
  house.doc.runEntries.sort((a, b) => byText(a.recordedAt, b.recordedAt));
  return house.doc;
}
