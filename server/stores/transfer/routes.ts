import { assertAllShown } from '../../studio/veil';
import { api, storesSchema } from '@vestigia/contract';
import type { Routes } from '../../http/routes';
import type { Writer } from '../../http/write';
import { noteDeed } from '../../shared/deeds';
import type { Context } from '../../shared/context';
import { exportFile } from './export-stores';
import { ImportJobs } from './import-jobs';

/** Tables and the stores file, in and out. */
export function transferRoutes(routes: Routes, context: Context, writer: Writer): void {
  const imports = new ImportJobs(context, writer);
  routes.reads(api.exportStores, async ({ db, query, person, now }) => {
    await assertAllShown(db, person.id, $localize`a file of all movements`);
    await noteDeed(db, { now, byId: person.id, kind: 'tookFile', thing: 'file', name: query.kind });
    return exportFile(db, query.kind, query.separator ?? ',');
  });
  routes.reads(api.storesSchema, () => Promise.resolve(storesSchema()));
  routes.commands(api.beginImport, ({ query, file, person }) => Promise.resolve(imports.begin(query, file, person)));
  routes.reads(api.importJob, ({ id }) => Promise.resolve(imports.look(id)));
  routes.commands(api.runImport, ({ id }) => Promise.resolve(imports.run(id)));
  routes.commands(api.cancelImport, ({ id }) => Promise.resolve(imports.cancel(id)));
}
