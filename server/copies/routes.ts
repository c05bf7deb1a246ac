import { api } from '@vestigia/contract';
import type { Request, Router } from 'express';
import type { Opening } from '../document/opening';
import type { Routes } from '../http/routes';
import { parse } from '../http/routes';
import { Refusal } from '../shared/problem';
import type { CopyKeeper } from './studio-copies';

const LOOPBACK = ['127.0.0.1', '::1', '::ffff:127.0.0.1'];
/**
 * Nobody is known yet at the door of an empty studio, and who brings a copy back reads all of it: so only whoever sits at
 * this computer may, not whoever is on the network, nor what a proxy passes on.
 */
const isAtThisComputer = ({ socket, headers }: Request): boolean =>
  LOOPBACK.includes(socket.remoteAddress ?? '') && !('x-forwarded-for' in headers) && !('forwarded' in headers);

/** Copies of the studio: how they stand, one by hand, and at the door of an empty studio the way back. */
export function copiesRoutes(router: Router, routes: Routes, opening: Opening, keeper: CopyKeeper): void {
  routes.reads(api.copies, () => keeper.tell());
  routes.commands(api.makeCopy, () => keeper.make());
  router.get(api.copiesAtDoor.path, async (req, res) => {
    await opening.assertEmpty();
    res.json(isAtThisComputer(req) ? await keeper.list() : []);
  });
  router.post(api.openCopy.path, async (req, res) => {
    const { name } = parse(api.openCopy.body, req.body);
    await opening.assertEmpty();
    if (!isAtThisComputer(req))
      throw new Refusal(
        'refused',
        $localize`A copy is brought back at the computer it lies on: open this page there, or use npm run restore.`,
      );
    res.json(await opening.openAt(keeper.pathOf(name)));
  });
}
