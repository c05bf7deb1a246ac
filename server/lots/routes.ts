import { api } from '@vestigia/contract';
import { findColourway } from '../colourways/colourways-store';
import type { Routes } from '../http/routes';
import { agree } from './agree';
import { writeAsDone } from './as-done';
import { attachToEye, giveVerdict, recordEye, recordReading } from './judge';
import { keepFibre } from './keep-fibre';
import { keepSpent } from './keep-spent';
import { readKept } from './kept-of-lot';
import { readLot, readLotSummaries } from './lots-store';
import { readMasters, setMaster } from './masters';
import { propose } from './propose';
import { recordEntry } from './record-entry';
import { returnLiquor } from './return-liquor';

export function lotsRoutes(routes: Routes): void {
  routes.reads(api.colourway, async ({ db, id }) => ({
    colourway: await findColourway(db, id),
    lots: await readLotSummaries(db, { colourwayId: id }),
    masters: await readMasters(db, id),
  }));
  routes.reads(api.lots, ({ db }) => readLotSummaries(db));
  routes.reads(api.propose, async ({ db, body, now }) => (await propose(db, body, now)).proposal);
  routes.reads(api.lot, ({ db, id }) => readLot(db, id));
  routes.writes(api.agree, ['lots', 'stores', 'colourways'], ({ db, body, now, person }) =>
    agree(db, body, { now, byId: person.id }),
  );
  routes.writes(api.recordEntry, ['lots', 'stores'], ({ db, id, body, now, person }) =>
    recordEntry(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.recordReading, ['lots'], ({ db, id, body, now, person }) =>
    recordReading(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.recordEye, ['lots'], ({ db, id, body, now, person }) =>
    recordEye(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.attachEyePhoto, ['lots'], ({ db, id, query, file, now, person }) =>
    attachToEye(db, id, query.eye, { id: query.id, name: query.name, file }, { now, byId: person.id }),
  );
  routes.writes(api.keepFibre, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    keepFibre(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.keepSpent, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    keepSpent(db, id, body, { now, byId: person.id }),
  );
  routes.reads(api.keptOfLot, ({ db, id }) => readKept(db, id));
  routes.writes(api.setMaster, ['colourways', 'lots'], ({ db, id, body, now, person }) =>
    setMaster(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.writeAsDone, ['recipes'], ({ db, id, body, now, person }) =>
    writeAsDone(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.returnLiquor, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    returnLiquor(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.giveVerdict, ['lots', 'stores', 'colourways'], ({ db, id, body, now, person }) =>
    giveVerdict(db, id, body, { now, byId: person.id }),
  );
}
