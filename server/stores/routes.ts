import { setTimeout } from 'node:timers/promises';
import { api } from '@vestigia/contract';
import type { By } from '../shared/recorded-by';
import type { Routes } from '../http/routes';
import { readForecast, readMaterialPage } from './forecast';
import { readBalance } from './balance';
import { editStockLot, moveStockLots, receive } from './book-in';
import { convert } from './conversions';
import { recordLiquor } from './liquor-entries';
import { addPicking, readGathered } from './gathering';
import { saveLiquor } from './liquors';
import {
  addMaterial,
  attach,
  editMaterial,
  listWithDensity,
  putMaterialAway,
  readAttachmentFile,
  weighSpoon,
} from './materials-store';
import { countStockLot, takeOut } from './movements';
import { reverseMovement, takeBackLiquorEntry } from './reversals';
import { ShelfMirror, readShelfOn } from './shelf';
import { shoppingList } from './shopping-list';
import { veilFor } from '../studio/veil';
import { veiledLines, veiledStockLot } from './veiled-jar';
import { readLedger, readStockLot } from './stock-lot-store';
import { bookStocktake, enterStocktake, listStocktakes, readStocktake, startStocktake } from './stocktakes';
import { WorthKeeper, readValuation } from './worth';
import { LedgerMirror } from './ledger-mirror';
import type { Context } from '../shared/context';

const by = ({ now, person }: { now: Date; person: { id: string } }): By => ({ now, byId: person.id });

/** Once the server stands and whoever waited for it was answered. */
const AFTER_START_MS = 1500;

/** Reads the ledger behind whoever works, so that nobody waits for it later. */
function readAhead({ database, answering, atClose, log }: Context, ledger: LedgerMirror, worths: WorthKeeper): void {
  const over = new AbortController();
  const reading = setTimeout(AFTER_START_MS, undefined, { signal: over.signal, ref: false })
    .then(async () => {
      const between = async (): Promise<void> => {
        over.signal.throwIfAborted();
        await answering.first();
      };
      await between();
      await ledger.readAhead(database.db, between);
      await worths.readAhead(database.db, () => answering.lull(over.signal));
    })
    .catch((error: unknown) => {
      if (!over.signal.aborted) log.error({ err: error }, 'reading the ledger');
    });
  atClose.push(async () => {
    over.abort();
    await reading;
  });
}

/** @returns what stock is worth, for whoever asks what was made of it */
export function storesRoutes(routes: Routes, context: Context): WorthKeeper {
  const shelf = new ShelfMirror();
  const ledger = new LedgerMirror();
  const worths = new WorthKeeper(ledger);
  readAhead(context, ledger, worths);
  routes.readsPrepared(api.shelf, ({ db }) => shelf.read(db));
  routes.reads(api.shelfOn, ({ db, query, now }) => readShelfOn(db, query.on, now));
  routes.reads(api.forecast, ({ db, now }) => readForecast(db, ledger, now));
  routes.reads(api.shoppingList, ({ db, now }) => shoppingList(db, ledger, now));
  routes.reads(api.valuation, ({ db, query, now }) => readValuation(db, worths, query.on, now));
  routes.reads(api.gathered, async ({ db, person }) => {
    const veil = await veilFor(db, person.id);
    return (await readGathered(db)).map((g) => ({ ...g, lots: g.lots.filter((l) => !veil?.lotIds.has(l.id)) }));
  });

  routes.reads(api.materials, ({ db }) => listWithDensity(db));
  routes.reads(api.material, ({ db, id, now }) => readMaterialPage(db, { ledger, worths }, id, now));
  routes.writes(api.addMaterial, ['stores'], ({ db, body }) => addMaterial(db, body));
  routes.writes(api.editMaterial, ['stores'], ({ db, id, body }) => editMaterial(db, id, body));
  routes.writes(api.putMaterialAway, ['stores'], ({ db, id, body }) => putMaterialAway(db, id, body.putAway));
  routes.writes(api.weighSpoon, ['stores'], ({ db, id, body, ...who }) => weighSpoon(db, id, body, by(who)));
  routes.writes(api.attachSheet, ['stores'], ({ db, id, query, file, files, ...who }) =>
    attach(db, { materialId: id }, { ...query, file }, { ...by(who), files }),
  );
  routes.writes(api.attachPhoto, ['stores'], ({ db, id, query, file, files, ...who }) =>
    attach(db, { stockLotId: id }, { ...query, file }, { ...by(who), files }),
  );
  routes.reads(api.attachment, ({ db, files, id }) => readAttachmentFile(db, files, id));
  routes.reads(api.readBalance, ({ db, body }) => readBalance(db, body));

  routes.reads(api.stockLot, async ({ db, id, person }) =>
    veiledStockLot(await readStockLot(db, id), await veilFor(db, person.id)),
  );
  routes.reads(api.ledger, async ({ db, id, person }) =>
    veiledLines(await readLedger(db, id), await veilFor(db, person.id)),
  );
  routes.writes(api.receive, ['stores'], ({ db, body, ...who }) => receive(db, body, by(who)));
  routes.writes(api.editStockLot, ['stores'], ({ db, id, body }) => editStockLot(db, id, body));
  routes.writes(api.moveStockLots, ['stores'], ({ db, body }) => moveStockLots(db, body));
  routes.writes(api.countStockLot, ['stores'], ({ db, id, body, ...who }) => countStockLot(db, id, body, by(who)));
  routes.writes(api.takeOut, ['stores'], ({ db, id, body, ...who }) => takeOut(db, id, body, by(who)));
  routes.writes(api.reverseMovement, ['stores'], ({ db, id, body, ...who }) => reverseMovement(db, id, body, by(who)));
  routes.writes(api.convert, ['stores'], ({ db, body, ...who }) => convert(db, body, by(who)));
  routes.writes(api.saveLiquor, ['stores'], ({ db, body, ...who }) => saveLiquor(db, body, by(who)));
  routes.writes(api.liquorEntry, ['stores'], ({ db, id, body, ...who }) => recordLiquor(db, id, body, by(who)));
  routes.writes(api.addPicking, ['stores'], ({ db, id, body, ...who }) => addPicking(db, id, body, by(who)));
  routes.writes(api.takeBackLiquorEntry, ['stores'], ({ db, id, body, ...who }) =>
    takeBackLiquorEntry(db, id, body, by(who)),
  );

  routes.reads(api.stocktakes, ({ db }) => listStocktakes(db));
  routes.reads(api.stocktake, ({ db, id }) => readStocktake(db, id));
  routes.writes(api.startStocktake, ['stores'], ({ db, body, ...who }) => startStocktake(db, body, by(who)));
  routes.writes(api.stocktakeEntry, ['stores'], ({ db, id, body, ...who }) => enterStocktake(db, id, body, by(who)));
  routes.writes(api.bookStocktake, ['stores'], ({ db, id, body, ...who }) => bookStocktake(db, id, body, by(who)));
  return worths;
}
