import type { Person, SignedIn } from '@vestigia/contract';
import { api } from '@vestigia/contract';
import type { Language } from '@vestigia/core';
import { languageNow, mayAs } from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { Request, Router } from 'express';
import type { Context } from '../shared/context';
import { noteDeed } from '../shared/deeds';
import { people, studio } from '../db/schema';
import { languageCookie } from '../http/language';
import type { Roles } from '../http/roles';
import type { Routes } from '../http/routes';
import { parse } from '../http/routes';
import type { Writer } from '../http/write';
import { Refusal, notFound } from '../shared/problem';
import { addPerson, findPerson, hasStudio, readAuthState, setHashes, useCode } from './auth-store';
import type { SessionStore } from './session-store';
import { checkPassphrase, hashChosen, readCode } from '../shared/passphrase';
import type { Try } from './tries';
import { Tries } from './tries';

declare module 'express-session' {
  interface SessionData {
    person?: Person;
    since?: string;
    /** What the browser says it is, and from where it came. */
    browser?: string;
    address?: string;
  }
}

const openAlready = (): string => $localize`This studio is open already. Choose your name and come in.`;
const comeInFirst = (): string => $localize`Come in first: choose your name and give your passphrase.`;

/** The door: first run, coming in and leaving. Apart from the other routes because it alone makes sessions. */
export class Door {
  private readonly tries: Tries;

  constructor(
    private readonly context: Context,
    private readonly writer: Writer,
    private readonly sessions: SessionStore,
    private readonly roles: Roles,
  ) {
    this.tries = new Tries(context.clock, (personId, code) => void this.showCode(personId, code));
  }

  register(router: Router, routes: Routes): void {
    const { db } = this.context.database;
    router.get(api.authState.path, async (req, res) => {
      const { person } = req.session;
      // Whoever came in is answered in their language from here on, on whatever browser that is.
      const language = (person && (await findPerson(db, person.id))?.language) ?? languageNow();
      if (language !== languageNow()) res.cookie(...languageCookie(language));
      res.json({ ...(await readAuthState(db, person && (await this.asSignedIn(person)))), language });
    });
    router.post(api.openStudio.path, async (req, res) => {
      res.json(await this.openStudio(req));
    });
    router.post(api.signIn.path, async (req, res) => {
      res.json(await this.signIn(req));
    });
    router.post(api.setPassphrase.path, async (req, res) => {
      res.json(await this.setByCode(req));
    });
    router.put(api.changePassphrase.path, async (req, res) => {
      await this.changePassphrase(req);
      res.json({ ok: true });
    });
    router.put(api.chooseLanguage.path, async (req, res) => {
      res.cookie(...languageCookie(await this.chooseLanguage(req)));
      res.json({ ok: true });
    });
    router.delete(api.signOut.path, async (req, res) => {
      const { person } = req.session;
      await destroy(req);
      if (person) await this.note(person.id, 'left', person);
      res.json({ ok: true });
    });
    routes.reads(api.sessions, async ({ person, role, sessionId }) =>
      (await this.sessions.list())
        .filter(({ data }) => data.person.id === person.id || mayAs(role, 'owner'))
        .map(({ sid, id, data, expiresAt }) => ({
          id,
          person: { id: data.person.id, name: data.person.name },
          since: data.since ?? '',
          until: new Date(expiresAt).toISOString(),
          browser: data.browser ?? '',
          address: data.address ?? '',
          isThis: sid === sessionId,
        })),
    );
    routes.commands(api.endSession, async ({ id, person, role }) => {
      const found = (await this.sessions.list()).find((s) => s.id === id);
      if (!found || (found.data.person.id !== person.id && !mayAs(role, 'owner'))) throw notFound('session');
      await this.sessions.end(found.sid);
      await this.note(person.id, 'endedSession', found.data.person);
      return { ok: true as const };
    });
  }

  private async openStudio(req: Request): Promise<SignedIn> {
    const { db } = this.context.database;
    const body = parse(api.openStudio.body, req.body);
    if (await hasStudio(db)) throw new Refusal('alreadyDone', openAlready());
    const hash = await hashChosen(body.person.passphrase);
    const person = { id: body.person.id, name: body.person.name };
    await this.writer.write({
      call: 'openStudio',
      key: undefined,
      body: null,
      run: async (tx) => {
        if (await hasStudio(tx)) throw new Refusal('alreadyDone', openAlready());
        await tx.insert(studio).values({ name: body.name, zone: body.zone });
        await addPerson(tx, { ...person, role: 'owner', language: languageNow() }, hash);
      },
    });
    this.context.changes.tell(['studio']);
    return this.enter(req, person);
  }

  private async signIn(req: Request): Promise<SignedIn> {
    const body = parse(api.signIn.body, req.body);
    const tried = tryOf(req, body.personId, body.consoleCode);
    this.tries.assertOpen(tried);
    const found = await findPerson(this.context.database.db, body.personId);
    if (!(await checkPassphrase(body.passphrase, found?.passphraseHash ?? null)) || !found) {
      await this.countWrong(tried, found);
      throw new Refusal('wrongPassphrase', $localize`That passphrase does not belong to that name. Try again.`);
    }
    this.tries.forget(tried);
    return this.enter(req, { id: found.id, name: found.name });
  }

  private async setByCode(req: Request): Promise<SignedIn> {
    const body = parse(api.setPassphrase.body, req.body);
    const tried = tryOf(req, body.personId);
    this.tries.assertUnhurried(tried);
    const found = await findPerson(this.context.database.db, body.personId);
    if (!(await checkPassphrase(readCode(body.code), found?.codeHash ?? null)) || !found) {
      await this.countWrong(tried, found);
      throw new Refusal('wrongPassphrase', $localize`That code does not belong to that name, or was used before.`);
    }
    const hash = await hashChosen(body.passphrase);
    await this.writer.write({
      call: 'setPassphrase',
      key: undefined,
      body: null,
      byId: found.id,
      run: async (tx) => {
        if (!(await useCode(tx, found.id, found.codeHash, hash)))
          throw new Refusal('wrongPassphrase', $localize`That code was used already.`);
      },
    });
    this.tries.forget(tried);
    const signedIn = await this.enter(req, { id: found.id, name: found.name });
    await this.sessions.endAllOf(found.id, req.sessionID);
    return signedIn;
  }

  private async changePassphrase(req: Request): Promise<void> {
    const { person } = req.session;
    if (!person) throw new Refusal('notSignedIn', comeInFirst());
    const body = parse(api.changePassphrase.body, req.body);
    const tried = tryOf(req, person.id);
    this.tries.assertUnhurried(tried);
    const found = await findPerson(this.context.database.db, person.id);
    if (!(await checkPassphrase(body.current, found?.passphraseHash ?? null))) {
      await this.countWrong(tried, found);
      throw new Refusal('wrongPassphrase', $localize`That is not your passphrase as it stands. Try again.`);
    }
    const passphraseHash = await hashChosen(body.passphrase);
    await this.writer.write({
      call: 'changePassphrase',
      key: undefined,
      body: null,
      byId: person.id,
      run: (tx) => setHashes(tx, person.id, { passphraseHash, codeHash: null }),
    });
    await this.sessions.endAllOf(person.id, req.sessionID);
  }

  private async chooseLanguage(req: Request): Promise<Language> {
    const { person } = req.session;
    if (!person) throw new Refusal('notSignedIn', comeInFirst());
    const { language } = parse(api.chooseLanguage.body, req.body);
    await this.writer.write({
      call: 'chooseLanguage',
      key: undefined,
      body: null,
      byId: person.id,
      run: (tx) => tx.update(people).set({ language }).where(eq(people.id, person.id)),
    });
    return language;
  }

  /** A new session id at every entry, so that one planted before can't be used after. */
  private async enter(req: Request, person: Person): Promise<SignedIn> {
    await new Promise<void>((resolve, reject) =>
      req.session.regenerate((error: unknown) => (error ? reject(error as Error) : resolve())),
    );
    Object.assign(req.session, {
      person,
      since: this.context.clock().toISOString(),
      browser: (req.headers['user-agent'] ?? '').slice(0, 200),
      address: req.ip ?? '',
    });
    await new Promise<void>((resolve, reject) =>
      req.session.save((error: unknown) => (error ? reject(error as Error) : resolve())),
    );
    await this.note(person.id, 'cameIn', person);
    return this.asSignedIn(person);
  }

  private async asSignedIn({ id, name }: Person): Promise<SignedIn> {
    return { id, name, role: await this.roles.of(id) };
  }

  private async countWrong(tried: Try, person: Person | undefined): Promise<void> {
    this.tries.count(tried);
    if (person) await this.note(null, 'turnedAway', person, tried.address);
  }

  private async note(
    byId: string | null,
    kind: 'cameIn' | 'left' | 'turnedAway' | 'endedSession',
    { id, name }: Person,
    note = '',
  ): Promise<void> {
    const { database, clock } = this.context;
    await noteDeed(database.db, { now: clock(), byId, kind, thing: 'person', thingId: id, name, note });
    await database.flush();
  }

  private async showCode(personId: string, code: string): Promise<void> {
    const name = (await findPerson(this.context.database.db, personId))?.name ?? 'nobody here';
    console.log(
      `Too many wrong tries for ${name}. Whoever that is comes in with the passphrase and this code: ${code}`,
    );
  }
}

const tryOf = (req: Request, personId: string, consoleCode?: string): Try => ({
  address: req.ip ?? '',
  personId,
  consoleCode,
});

async function destroy(req: Request): Promise<void> {
  await new Promise<void>((resolve, reject) =>
    req.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve())),
  );
}
