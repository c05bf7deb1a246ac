import { api, upgradeStudioFile } from '@vestigia/contract';
import type { Router } from 'express';
import { hasStudio } from '../auth/auth-store';
import type { Routes } from '../http/routes';
import { parse } from '../http/routes';
import type { Writer } from '../http/write';
import type { Context } from '../shared/context';
import { Refusal } from '../shared/problem';
import { assertAllShown } from '../studio/veil';
import { exportDocument } from './export-document';
import { importDocument } from './import-document';

/** The studio as one file, in and out. Opening one needs no person yet: there is none in an empty studio. */
export function documentRoutes(router: Router, routes: Routes, context: Context, writer: Writer): void {
  router.post(api.openDocument.path, async (req, res) => {
    const document = parse(api.openDocument.body, upgradeStudioFile(req.body));
    if (await hasStudio(context.database.db))
      throw new Refusal(
        'alreadyDone',
        'This studio is open already, and a studio file opens only in an empty one. Start with another DATA_DIR.',
      );
    await importDocument(context, writer, document);
    res.json({ ok: true });
  });

  routes.reads(api.exportDocument, async ({ db, now, person }) => {
    await assertAllShown(db, person.id, 'the studio’s file');
    return exportDocument(db, now);
  });
}
