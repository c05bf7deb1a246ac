import type { Call, Person } from '@vestigia/contract';
import type { Request, RequestHandler, Router } from 'express';
import { z } from 'zod';
import type { Context, Topic } from '../context';
import type { Db } from '../db/database';
import { Refusal, notFound } from '../problem';
import type { Writer } from './write';

type Body<C extends Call> = C extends { body: z.ZodType } ? z.infer<C['body']> : undefined;
type Query<C extends Call> = C extends { query: z.ZodType } ? z.infer<C['query']> : undefined;
type Reply<C extends Call> = z.input<C['reply']>;

export interface Asked<C extends Call> {
  readonly db: Db;
  readonly now: Date;
  readonly person: Person;
  /** The `{id}` of the path; empty where it has none. */
  readonly id: string;
  readonly body: Body<C>;
  readonly query: Query<C>;
}

export type Handler<C extends Call> = (asked: Asked<C>) => Promise<Reply<C>>;

/** Registers calls of the contract on a router. Features are written against this and never see Express. */
export class Routes {
  constructor(private readonly router: Router, private readonly context: Context, private readonly writer: Writer, private readonly checkReplies: boolean) {}

  /** A call that changes nothing, whatever its method. */
  reads<C extends Call>(call: C, handler: Handler<C>): void {
    this.register(call, async (req, res) => {
      const asked = this.ask(call, req);
      res.json(this.checked(call, await handler({ ...asked, db: this.context.database.db, now: this.context.clock() })));
    });
  }

  /** A call that changes something: in one transaction, once, on the disk before it is answered, then told to other browsers. */
  writes<C extends Call>(call: C, topics: readonly Topic[], handler: Handler<C>): void {
    this.register(call, async (req, res) => {
      const asked = this.ask(call, req);
      const key = (asked.body as { id?: string } | undefined)?.id;
      const reply = await this.writer.write({ call: `${call.method} ${call.path}`, key, body: [asked.id, asked.body], run: (db, now) => handler({ ...asked, db, now }) });
      this.context.changes.tell(topics);
      res.json(this.checked(call, reply));
    });
  }

  private register(call: Call, handler: RequestHandler): void {
    this.router[call.method](call.path.replace('{id}', ':id'), handler);
  }

  private ask<C extends Call>(call: C, req: Request): Omit<Asked<C>, 'db' | 'now'> {
    const person = req.session.person;
    if (!call.open && !person) throw new Refusal('notSignedIn', 'Come in first: choose your name and give your passphrase.');
    const id = req.params['id'];
    if (id !== undefined && !z.uuid().safeParse(id).success) throw notFound('thing');
    return {
      person: person ?? { id: '', name: '' },
      id: typeof id === 'string' ? id : '',
      body: (call.body ? parse(call.body, req.body) : undefined) as Body<C>,
      query: (call.query ? parse(call.query, req.query) : undefined) as Query<C>,
    };
  }

  private checked(call: Call, reply: unknown): unknown {
    return this.checkReplies ? call.reply.parse(reply) : reply;
  }
}

/** Checks what came in against the contract; what is wrong is said in the contract's own sentences. */
export function parse<S extends z.ZodType>(schema: S, value: unknown): z.infer<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const errors = result.error.issues.map((issue) => ({ field: issue.path.join('.'), detail: sentence(issue) }));
  throw new Refusal('invalid', errors[0]?.detail ?? 'That can’t be used.', { errors });
}

function sentence(issue: z.core.$ZodIssue): string {
  // The contract writes its own sentences and ends them with a stop; the library's short messages get the field's name.
  if (/[.!?]$/.test(issue.message)) return issue.message;
  const field = issue.path.join('.');
  return field === '' ? 'What was sent is not in the form this call understands.' : `“${field}” is missing or not in the form it should have (${issue.message}).`;
}
