import { api } from '@vestigia/contract';
import type { Router } from 'express';
import type { Opening } from '../document/opening';
import type { Routes } from '../http/routes';
import { parse } from '../http/routes';
import type { CopyKeeper } from './studio-copies';

/** Copies of the studio: how they stand, one by hand, and at the door of an empty studio the way back. */
export function copiesRoutes(router: Router, routes: Routes, opening: Opening, keeper: CopyKeeper): void {
  routes.reads(api.copies, () => keeper.tell());
  routes.commands(api.makeCopy, () => keeper.make());
  router.get(api.copiesAtDoor.path, async (_req, res) => {
    await opening.assertEmpty();
    res.json(await keeper.list());
  });
  router.post(api.openCopy.path, async (req, res) => {
    const { name } = parse(api.openCopy.body, req.body);
    await opening.assertEmpty();
    res.json(await opening.openAt(keeper.pathOf(name)));
  });
}
