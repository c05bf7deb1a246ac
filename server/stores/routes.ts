import { api, storesSchema } from '@vestigia/contract';
import type { By } from '../by';
import type { Context } from '../context';
import type { Routes } from '../http/routes';
import type { Writer } from '../http/write';
import { readAhead, readMaterialPage } from './ahead';
import { readBalance } from './balance';
import { editStockLot, receive } from './book-in';
import { convert } from './conversions';
import { recordLiquor, saveLiquor } from './liquors';
import { addMaterial, attach, editMaterial, listWithDensity, readAttachmentFile, weighSpoon } from './materials-store';
import { countStockLot, reverseMovement, takeOut } from './movements';
import { ShelfMirror, readShelfOn } from './shelf';
import { shoppingList } from './shopping-list';
import { readLedger, readStockLot } from './stock-lot-store';
import { exportFile } from './transfer/export-stores';
import { ImportJobs } from './transfer/import-jobs';
import { bookWalk, enterWalk, listWalks, readWalk, startWalk } from './walks';
import { readLotCost, readValuation } from './worth';

const by = ({ now, person }: { now: Date; person: { id: string } }): By => ({ now, byId: person.id });

export function storesRoutes(routes: Routes, context: Context, writer: Writer): void {
  const shelf = new ShelfMirror();
  const imports = new ImportJobs(context, writer);
  routes.readsPrepared(api.shelf, ({ db }) => shelf.read(db));
  routes.reads(api.shelfOn, ({ db, query, now }) => readShelfOn(db, query.on, now));
  routes.reads(api.ahead, ({ db, now }) => readAhead(db, now));
  routes.reads(api.shoppingList, ({ db, now }) => shoppingList(db, now));
  routes.reads(api.valuation, ({ db, query, now }) => readValuation(db, query.on, now));
  routes.reads(api.lotCost, ({ db, id }) => readLotCost(db, id));
  routes.reads(api.exportStores, ({ db, query }) => exportFile(db, query.kind, query.separator ?? ','));
  routes.reads(api.storesSchema, () => Promise.resolve(storesSchema()));
  routes.reads(api.beginImport, ({ query, file, person }) => Promise.resolve(imports.begin(query.kind, file, person)));
  routes.reads(api.importJob, ({ id }) => Promise.resolve(imports.look(id)));
  routes.reads(api.runImport, ({ id }) => Promise.resolve(imports.run(id)));
  routes.reads(api.cancelImport, ({ id }) => Promise.resolve(imports.cancel(id)));

  routes.reads(api.materials, ({ db }) => listWithDensity(db));
  routes.reads(api.material, ({ db, id, now }) => readMaterialPage(db, id, now));
  routes.writes(api.addMaterial, ['stores'], ({ db, body }) => addMaterial(db, body));
  routes.writes(api.editMaterial, ['stores'], ({ db, id, body }) => editMaterial(db, id, body));
  routes.writes(api.weighSpoon, ['stores'], ({ db, id, body, ...who }) => weighSpoon(db, id, body, by(who)));
  routes.writes(api.attachSheet, ['stores'], ({ db, id, query, file, ...who }) =>
    attach(db, { materialId: id }, { ...query, file }, by(who)),
  );
  routes.writes(api.attachPhoto, ['stores'], ({ db, id, query, file, ...who }) =>
    attach(db, { stockLotId: id }, { ...query, file }, by(who)),
  );
  routes.reads(api.attachment, ({ db, id }) => readAttachmentFile(db, id));
  routes.reads(api.readBalance, ({ db, body }) => readBalance(db, body));

  routes.reads(api.stockLot, ({ db, id }) => readStockLot(db, id));
  routes.reads(api.ledger, ({ db, id }) => readLedger(db, id));
  routes.writes(api.receive, ['stores'], ({ db, body, ...who }) => receive(db, body, by(who)));
  routes.writes(api.editStockLot, ['stores'], ({ db, id, body }) => editStockLot(db, id, body));
  routes.writes(api.countStockLot, ['stores'], ({ db, id, body, ...who }) => countStockLot(db, id, body, by(who)));
  routes.writes(api.takeOut, ['stores'], ({ db, id, body, ...who }) => takeOut(db, id, body, by(who)));
  routes.writes(api.reverseMovement, ['stores'], ({ db, id, body, ...who }) => reverseMovement(db, id, body, by(who)));
  routes.writes(api.convert, ['stores'], ({ db, body, ...who }) => convert(db, body, by(who)));
  routes.writes(api.saveLiquor, ['stores'], ({ db, body, ...who }) => saveLiquor(db, body, by(who)));
  routes.writes(api.liquorEntry, ['stores'], ({ db, id, body, ...who }) => recordLiquor(db, id, body, by(who)));

  routes.reads(api.walks, ({ db }) => listWalks(db));
  routes.reads(api.walk, ({ db, id }) => readWalk(db, id));
  routes.writes(api.startWalk, ['stores'], ({ db, body, ...who }) => startWalk(db, body, by(who)));
  routes.writes(api.walkEntry, ['stores'], ({ db, id, body, ...who }) => enterWalk(db, id, body, by(who)));
  routes.writes(api.bookWalk, ['stores'], ({ db, id, body, ...who }) => bookWalk(db, id, body, by(who)));
}
