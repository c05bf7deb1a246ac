import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { api } from '@vestigia/contract';
import { languageNow } from '@vestigia/core';
import compression from 'compression';
import type { Express, RequestHandler } from 'express';
import express from 'express';
import session from 'express-session';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import { benchRoutes } from './bench/routes';
import { colourwaysRoutes } from './colourways/routes';
import type { Context } from './shared/context';
import { copiesRoutes } from './copies/routes';
import type { Checker } from './copies/studio-copies';
import { CopyKeeper } from './copies/studio-copies';
import { Opening } from './document/opening';
import { documentRoutes } from './document/routes';
import { cookieKey } from './auth/auth-store';
import { Door } from './auth/routes';
import { SESSION_DAYS, SessionStore } from './auth/session-store';
import { eventsHandler } from './http/events';
import { answerInTheirLanguage } from './http/language';
import { noSuchCall, onlyOwnNames, onlyOwnPages, problems } from './http/guards';
import { openApiDocument } from './http/open-api';
import { Roles } from './http/roles';
import { Routes } from './http/routes';
import { Writer } from './http/write';
import { Refusal } from './shared/problem';
import { refoldStale } from './lots/lot-progress';
import { judgeRoutes } from './judge/routes';
import { matchRoutes } from './match/routes';
import { lotsRoutes } from './lots/routes';
import { notesRoutes } from './notes/routes';
import { recipesRoutes } from './recipes/routes';
import { completeHazards } from './stores/materials-store';
import { storesRoutes } from './stores/routes';
import { transferRoutes } from './stores/transfer/routes';
import { studioRoutes } from './studio/routes';
import { ordersRoutes } from './orders/routes';
import { planRoutes } from './plan/routes';
import { todayRoutes } from './today/routes';
import { writeFiguresAsTheStudioReads } from './studio/shown-in';

export interface AppOptions {
  /** Where the built interface lies; without it only the API is served. */
  readonly webFolder?: string;
  /** The names it answers to besides this computer’s own. */
  readonly answersTo: readonly string[];
  /** How it is spoken to: in the clear on this computer, by its own certificate, or by one that browsers trust. */
  readonly transport?: 'plain' | 'own' | 'trusted';
  /** A proxy before it tells from whom a request comes. */
  readonly behindProxy?: boolean;
  /** Where copies of the studio go, and how they are looked over. */
  readonly copies: { readonly folder: string; readonly check: Checker };
  /** Check every reply against the contract; for tests. */
  readonly checkReplies?: boolean;
}

const ORDINARY_BODY = '1mb';
const SMALL_REPLY = '200kb';
const TABLE_BODY = '40mb';
const ATTACHMENT_BODY = '12mb';

/** Builds the application, apart from listening, so that tests can ask it directly. */
export async function createApp(
  context: Context,
  { webFolder, answersTo, copies, transport = 'plain', behindProxy = false, checkReplies = false }: AppOptions,
): Promise<Express> {
  const { database, log } = context;
  const writer = new Writer(context);
  await writer.start();
  await refoldStale(database.db);
  await completeHazards(database.db);
  await writeFiguresAsTheStudioReads(context);

  const app = express();
  app.disable('x-powered-by');
  app.use(logRequests(log));
  if (behindProxy) app.set('trust proxy', 1);
  app.use(context.answering.count);
  app.use(onlyOwnNames(answersTo));
  app.use(securityHeaders(transport === 'trusted'));
  compressReplies(app);
  describe(app, context);
  app.use(answerInTheirLanguage);
  readBodies(app);
  const sessions = new SessionStore(context);
  app.use(
    '/api',
    session({
      name: 'vestigia',
      secret: await cookieKey(database),
      store: sessions,
      resave: false,
      saveUninitialized: false,
      cookie: {
        httpOnly: true,
        sameSite: 'strict',
        secure: transport !== 'plain',
        maxAge: SESSION_DAYS * 86_400_000,
        path: '/',
      },
    }),
  );

  const router = express.Router();
  const roles = new Roles(context);
  const routes = new Routes(router, context, writer, roles, checkReplies);
  new Door(context, writer, sessions, roles).register(router, routes);
  studioRoutes(routes);
  notesRoutes(routes);
  const worths = storesRoutes(routes, context);
  transferRoutes(routes, context, writer);
  recipesRoutes(routes);
  colourwaysRoutes(routes);
  lotsRoutes(routes, worths);
  benchRoutes(routes, context, writer, router);
  judgeRoutes(routes);
  matchRoutes(routes);
  ordersRoutes(routes);
  planRoutes(routes);
  todayRoutes(routes, context);
  const opening = new Opening(context, writer);
  documentRoutes(router, routes, context, opening);
  copiesRoutes(router, routes, opening, new CopyKeeper(context, writer, copies.folder, copies.check));
  router.get('/api/events', eventsHandler(context));
  router.use('/api', noSuchCall());
  app.use(router);

  if (webFolder !== undefined) serveInterface(app, webFolder);
  app.use(problems(context));
  return app;
}

const logRequests = (log: Context['log']): RequestHandler =>
  pinoHttp({
    logger: log,
    autoLogging: { ignore: (req) => !(req.url ?? '').startsWith('/api/') },
    serializers: {
      req: (req: { method: string; url: string }) => ({ method: req.method, path: req.url.split('?')[0] }),
      res: (res: { statusCode: number }) => ({ status: res.statusCode }),
    },
    customLogLevel: (_req, res) => (res.statusCode >= 500 ? 'error' : 'debug'),
  });

/** @param isTrusted browsers may hold to HTTPS: with a certificate of its own nobody could ask anew */
const securityHeaders = (isTrusted: boolean): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        scriptSrcAttr: ["'none'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
    },
    strictTransportSecurity: isTrusted && { maxAge: 180 * 86_400, includeSubDomains: false },
  });

/** Large replies are packed; lines that stay open are not. */
function compressReplies(app: Express): void {
  // On a studio's own network a small reply is there sooner than it is packed.
  app.use(
    '/api',
    compression({
      threshold: SMALL_REPLY,
      level: 1,
      filter: (req, res) => !/\/(?:events|live)$/.test(req.path) && compression.filter(req, res),
    }),
  );
  app.use(compression({ filter: (req, res) => !req.path.startsWith('/api') && compression.filter(req, res) }));
}

/** What may be asked before coming in: whether it lives, and what it answers. Nothing of the API is kept by a browser. */
function describe(app: Express, { database }: Context): void {
  app.use('/api', (_req, res, next) => {
    res.setHeader('cache-control', 'no-store');
    next();
  });
  app.get(api.health.path, async (_req, res) => {
    const bar = await database.barred();
    if (bar?.code === 'databaseAway') throw new Refusal(bar.code, bar.detail);
    res.json({ status: 'ok' });
  });
  const description = openApiDocument('0.1.0');
  app.get('/api/openapi.json', (_req, res) => {
    res.json(description);
  });
}

/** How much each call may bring, and as what. */
function readBodies(app: Express): void {
  app.use('/api', onlyOwnPages());
  app.use(api.beginImport.path, express.raw({ limit: TABLE_BODY, type: [...api.beginImport.upload] }));
  app.use('/api', express.raw({ limit: ATTACHMENT_BODY, type: [...api.attachPhoto.upload] }));
  // A studio file isn’t read before it is known that the studio is empty, and then as it comes.
  const ordinary = express.json({ limit: ORDINARY_BODY });
  app.use('/api', (req, res, next) => {
    if (req.method === 'POST' && `/api${req.path}` === api.openDocument.path) next();
    else ordinary(req, res, next);
  });
}

/** The built interface: hashed files for a year, the page itself always fresh; any other address is the app's own. */
function serveInterface(app: Express, webFolder: string): void {
  const page = join(webFolder, 'index.html');
  if (!existsSync(page)) throw new Error(`The interface is not built: ${page} is missing. Run npm run build.`);
  app.use(
    express.static(webFolder, {
      index: false,
      setHeaders: (res, path) => {
        if (/-[A-Z0-9]{8}\.\w+$/i.test(path)) res.setHeader('cache-control', 'public, max-age=31536000, immutable');
      },
    }),
  );
  app.get('/{*any}', (_req, res) => {
    res.setHeader('cache-control', 'no-cache');
    res.setHeader('vary', 'cookie, accept-language');
    res.sendFile(languageNow() === 'en' ? page : join(webFolder, languageNow(), 'index.html'));
  });
}
