import type { Call, Person, Topic } from '@vestigia/contract';
import { leastRole } from '@vestigia/contract';
import type { Role } from '@vestigia/core';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request, RequestHandler, Response, Router } from 'express';
import { z } from 'zod';
import type { Answering } from '../shared/answering';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import type { KeptFiles } from '../db/kept-files';
import { Refusal, notFound } from '../shared/problem';
import type { Prepared } from './prepared';
import type { Roles } from './roles';
import { unkeepableIn } from './unkeepable';
import type { Writer } from './write';

type Body<C extends Call> = C extends { body: z.ZodType } ? z.infer<C['body']> : undefined;
type Query<C extends Call> = C extends { query: z.ZodType } ? z.infer<C['query']> : undefined;
type Reply<C extends Call> = z.input<C['reply']>;

export interface Asked<C extends Call> {
  readonly db: Db;
  /** Photographs and sheets. */
  readonly files: KeptFiles;
  readonly now: Date;
  readonly person: Person;
  /** What the person may do here. */
  readonly role: Role;
  /** By which the person is in. */
  readonly sessionId: string;
  /** The `{id}` of the path; empty where it has none. */
  readonly id: string;
  readonly body: Body<C>;
  readonly query: Query<C>;
  /** The whole body of a call that takes a file; empty for all others. */
  readonly file: Uint8Array;
}

/** What a call that answers with a file gives back. */
export interface FileReply {
  readonly name: string;
  readonly type: string;
  /** Whole, or piece by piece as it is read. */
  readonly content: string | Uint8Array | AsyncIterable<string | Uint8Array>;
}

type Answer<C extends Call> = C extends { download: string } ? FileReply : Reply<C>;
export type Handler<C extends Call> = (asked: Asked<C>) => Promise<Answer<C>>;

/** Registers calls of the contract on a router. Features are written against this and never see Express. */
export class Routes {
  constructor(
    private readonly router: Router,
    private readonly context: Context,
    private readonly writer: Writer,
    private readonly roles: Roles,
    private readonly checkReplies: boolean,
  ) {}

  /** A call that changes nothing, whatever its method: asking again answers again. */
  reads<C extends Call>(call: C, handler: Handler<C>): void {
    this.answers(call, handler);
  }

  /**
   * A call that acts on something that lives in this process alone, a job, a rehearsal, an instrument, and writes
   * nothing into the studio's record by itself. Not repeated by the caller's id: whoever sends it twice means it
   * twice.
   */
  commands<C extends Call>(call: C, handler: Handler<C>): void {
    this.answers(call, handler);
  }

  /** A call whose reply is kept ready between changes. */
  readsPrepared<C extends Call>(call: C, handler: (asked: Asked<C>) => Promise<Prepared<Reply<C>>>): void {
    this.register(call, async (req, res) => {
      const asked = await this.ask(call, req);
      const prepared = await handler({ ...asked, db: this.context.database.db, now: this.context.clock() });
      this.checked(call, prepared.value);
      prepared.send(req, res);
    });
  }

  /**
   * A call that changes something: in one transaction, once, on the disk before it is answered, then told to other
   * browsers.
   */
  writes<C extends Call>(call: C, topics: readonly Topic[], handler: Handler<C>): void {
    this.register(call, async (req, res) => {
      const asked = await this.ask(call, req);
      const key = (asked.body as { id?: string } | undefined)?.id ?? (asked.query as { id?: string } | undefined)?.id;
      const body = call.upload
        ? [asked.id, asked.query, createHash('sha256').update(asked.file).digest('hex')]
        : [asked.id, asked.body];
      const reply = await this.writer.write({
        call: `${call.method} ${call.path}`,
        key,
        body,
        byId: asked.person.id,
        run: (db, now) => handler({ ...asked, db, now }),
      });
      this.context.changes.tell(topics);
      res.json(this.checked(call, reply));
    });
  }

  private answers<C extends Call>(call: C, handler: Handler<C>): void {
    this.register(call, async (req, res) => {
      const asked = await this.ask(call, req);
      const answer = await handler({ ...asked, db: this.context.database.db, now: this.context.clock() });
      if (call.download) await sendFile(res, answer as FileReply, this.context.answering);
      else res.json(this.checked(call, answer));
    });
  }

  private register(call: Call, handler: RequestHandler): void {
    this.router[call.method](call.path.replace('{id}', ':id'), handler);
  }

  private async ask<C extends Call>(call: C, req: Request): Promise<Omit<Asked<C>, 'db' | 'now'>> {
    const person = req.session.person;
    if (!call.open && !person)
      throw new Refusal('notSignedIn', $localize`Come in first: choose your name and give your passphrase.`);
    if (person && !call.open) await this.roles.assert(person.id, leastRole(call));
    const id = req.params['id'];
    if (id !== undefined && !z.uuid().safeParse(id).success) throw notFound('thing');
    return {
      files: this.context.database.files,
      person: person ?? { id: '', name: '' },
      role: person ? await this.roles.of(person.id) : 'guest',
      sessionId: req.sessionID,
      id: typeof id === 'string' ? id : '',
      body: (call.body ? parse(call.body, req.body) : undefined) as Body<C>,
      query: (call.query ? parse(call.query, req.query) : undefined) as Query<C>,
      file: call.upload ? fileOf(call.upload, req) : new Uint8Array(),
    };
  }

  private checked(call: Call, reply: unknown): unknown {
    return this.checkReplies ? call.reply.parse(reply) : reply;
  }
}

function fileOf(types: readonly string[], req: Request): Uint8Array {
  if (!Buffer.isBuffer(req.body) || req.body.length === 0)
    throw new Refusal('unreadable', $localize`There is nothing in that file. Choose another.`);
  if (!types.some((type) => req.is(type)))
    throw new Refusal(
      'unreadable',
      $localize`That kind of file is not taken here. Choose one of: ${types.map((t) => t.split('/')[1]).join(', ')}.`,
    );
  return req.body;
}

/** Sent as a download that no browser will run, whatever is in it. */
async function sendFile(res: Response, { name, type, content }: FileReply, answering: Answering): Promise<void> {
  const kind = type === 'application/pdf' || type.startsWith('image/') ? 'inline' : 'attachment';
  res.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
  res.setHeader('content-disposition', `${kind}; filename*=UTF-8''${encodeURIComponent(name)}`);
  res.type(type);
  if (typeof content === 'string') res.send(content);
  else if (content instanceof Uint8Array) res.send(Buffer.from(content));
  else {
    res.flushHeaders();
    await pipeline(Readable.from(gently(content, answering)), res);
  }
}

/** So many faults of one body are told: nobody reads more, and a large one could have a million. */
const MOST_ERRORS = 20;

/** Checks what came in against the contract; what is wrong is said in the contract's own sentences. */
export function parse<S extends z.ZodType>(schema: S, value: unknown): z.infer<S> {
  const odd = unkeepableIn(value);
  if (odd !== undefined)
    throw new Refusal(
      'invalid',
      $localize`There is a sign in “${odd === '' ? $localize`that` : odd}” that can’t be kept. Take it out and write it anew.`,
      { errors: [{ field: odd, detail: $localize`A sign in it can’t be kept.` }] },
    );
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const errors = result.error.issues
    .slice(0, MOST_ERRORS)
    .map((issue) => ({ field: issue.path.join('.'), detail: message(issue) }));
  throw new Refusal('invalid', errors[0]?.detail ?? $localize`That can’t be used.`, { errors });
}

function message(issue: z.core.$ZodIssue): string {
  // The contract writes its own sentences and ends them with a stop; the library's short messages get the field's name.
  if (/[.!?]$/.test(issue.message)) return issue.message;
  const field = issue.path.join('.');
  return field === ''
    ? $localize`What was sent is not in the form this call understands.`
    : $localize`“${field}” is missing or not in the form it should have (${issue.message}).`;
}

/** Piece by piece, others first. */
async function* gently<T>(pieces: AsyncIterable<T>, answering: Answering): AsyncGenerator<T> {
  for await (const piece of pieces) {
    yield piece;
    await answering.first();
  }
}
