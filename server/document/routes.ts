import { api } from '@vestigia/contract';
import type { Router } from 'express';
import type { Routes } from '../http/routes';
import type { Context } from '../shared/context';
import { noteDeed } from '../shared/deeds';
import { assertAllShown } from '../studio/veil';
import type { Opening } from './opening';
import { writeStudioFile } from './write-studio-file';

/** The studio as one file, in and out. Opening one needs no person yet: there is none in an empty studio. */
export function documentRoutes(router: Router, routes: Routes, context: Context, opening: Opening): void {
  router.post(api.openDocument.path, async (req, res) => {
    const bytes = Number(req.headers['content-length']);
    res.json(
      await opening.begin(req, Number.isFinite(bytes) ? bytes : null, $localize`the door, from ${req.ip ?? 'nowhere'}`),
    );
  });
  router.get(api.openingDocument.path, (_req, res) => {
    res.json(opening.progress);
  });
  router.delete(api.stopOpening.path, (_req, res) => {
    opening.stop();
    res.json({ ok: true });
  });

  routes.reads(api.studioFile, async ({ db, now, person }) => {
    await assertAllShown(db, person.id, $localize`the studio’s file`);
    await noteDeed(db, { now, byId: person.id, kind: 'tookFile', thing: 'file', name: $localize`the whole studio` });
    await context.database.flush();
    const { content } = await writeStudioFile(context, now);
    return { name: `studio-${now.toISOString().slice(0, 10)}.zip`, type: 'application/zip', content };
  });
}
