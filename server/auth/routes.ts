import type { Person } from '@vestigia/contract';
import { api } from '@vestigia/contract';
import type { Request, Router } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Context } from '../shared/context';
import { studio } from '../db/schema';
import { parse } from '../http/routes';
import type { Writer } from '../http/write';
import { Refusal } from '../shared/problem';
import { addPerson, findPerson, hasStudio, readAuthState, setHashes, useCode } from './auth-store';
import type { SessionStore } from './session-store';
import { checkPassphrase, hashPassphrase, readCode } from '../shared/passphrase';

declare module 'express-session' {
  interface SessionData {
    person?: Person;
  }
}

const WRONG_TRIES_A_MINUTE = 5;
const OPEN_ALREADY = 'This studio is open already. Choose your name and come in.';

/** The door: first run, coming in and leaving. Apart from the other routes because it alone makes sessions. */
export function authRoutes(router: Router, context: Context, writer: Writer, sessions: SessionStore): void {
  const { db } = context.database;

  router.get(api.authState.path, async (req, res) => {
    res.json(await readAuthState(db, req.session.person));
  });

  router.post(api.openStudio.path, async (req, res) => {
    const body = parse(api.openStudio.body, req.body);
    if (await hasStudio(db)) throw new Refusal('alreadyDone', OPEN_ALREADY);
    const hash = await hashPassphrase(body.person.passphrase);
    const person = { id: body.person.id, name: body.person.name };
    await writer.write({
      call: 'openStudio',
      key: undefined,
      body: null,
      run: async (tx) => {
        if (await hasStudio(tx)) throw new Refusal('alreadyDone', OPEN_ALREADY);
        await tx.insert(studio).values({ name: body.name, zone: body.zone });
        await addPerson(tx, person, hash);
      },
    });
    await enter(req, person);
    res.json(person);
  });

  const slowDown = rateLimit({
    windowMs: 60_000,
    limit: WRONG_TRIES_A_MINUTE,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    keyGenerator: (req: Request) =>
      // An id is the same however its letters are written.
      `${ipKeyGenerator(req.ip ?? '')} ${String((req.body as { personId?: unknown } | undefined)?.personId).toLowerCase()}`.slice(
        0,
        120,
      ),
    handler: () => {
      throw new Refusal('slowDown', 'Too many wrong tries. Wait a minute, then try again.');
    },
  });
  router.post(api.signIn.path, slowDown, async (req, res) => {
    const body = parse(api.signIn.body, req.body);
    const found = await findPerson(db, body.personId);
    if (!(await checkPassphrase(body.passphrase, found?.passphraseHash ?? null)) || !found) {
      throw new Refusal('wrongPassphrase', 'That passphrase does not belong to that name. Try again.');
    }
    const person = { id: found.id, name: found.name };
    await enter(req, person);
    res.json(person);
  });

  router.post(api.setPassphrase.path, slowDown, async (req, res) => {
    const body = parse(api.setPassphrase.body, req.body);
    const found = await findPerson(db, body.personId);
    if (!(await checkPassphrase(readCode(body.code), found?.codeHash ?? null)) || !found)
      throw new Refusal('wrongPassphrase', 'That code does not belong to that name, or was used before.');
    const hash = await hashPassphrase(body.passphrase);
    await writer.write({
      call: 'setPassphrase',
      key: undefined,
      body: null,
      run: async (tx) => {
        if (!(await useCode(tx, found.id, found.codeHash, hash)))
          throw new Refusal('wrongPassphrase', 'That code was used already.');
      },
    });
    const person = { id: found.id, name: found.name };
    await enter(req, person);
    await sessions.endAllOf(person.id, req.sessionID);
    res.json(person);
  });

  router.put(api.changePassphrase.path, slowDown, async (req, res) => {
    const { person } = req.session;
    if (!person) throw new Refusal('notSignedIn', 'Come in first: choose your name and give your passphrase.');
    const body = parse(api.changePassphrase.body, req.body);
    const found = await findPerson(db, person.id);
    if (!(await checkPassphrase(body.current, found?.passphraseHash ?? null)))
      throw new Refusal('wrongPassphrase', 'That is not your passphrase as it stands. Try again.');
    const passphraseHash = await hashPassphrase(body.passphrase);
    await writer.write({
      call: 'changePassphrase',
      key: undefined,
      body: null,
      run: (tx) => setHashes(tx, person.id, { passphraseHash, codeHash: null }),
    });
    await sessions.endAllOf(person.id, req.sessionID);
    res.json({ ok: true });
  });

  router.delete(api.signOut.path, async (req, res) => {
    await new Promise<void>((resolve, reject) =>
      req.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve())),
    );
    res.json({ ok: true });
  });
}

/** A new session id at every entry, so that one planted before can't be used after. */
async function enter(req: Request, person: Person): Promise<void> {
  await new Promise<void>((resolve, reject) =>
    req.session.regenerate((error: unknown) => (error ? reject(error as Error) : resolve())),
  );
  req.session.person = person;
  await new Promise<void>((resolve, reject) =>
    req.session.save((error: unknown) => (error ? reject(error as Error) : resolve())),
  );
}
