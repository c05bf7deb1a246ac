import { EventEmitter } from 'node:events';
import type { Topic } from '@vestigia/contract';
import type { Logger } from 'pino';
import { pino } from 'pino';
import type { Database } from '../db/database';
import { Answering } from './answering';

/** What the whole server works with. The clock is given, so that tests can set it. */
export interface Context {
  readonly database: Database;
  readonly clock: () => Date;
  readonly log: Logger;
  readonly changes: ChangeBus;
  readonly answering: Answering;
  /** Tells by its id that a session ended, so that the lines it holds open end with it. */
  readonly sessionEnds: EventEmitter;
  /** Who watches pots, asked for what wants somebody now. */
  readonly watchers: ((nowMs: number) => readonly PotCall[])[];
  /** What is done before the database is closed. */
  readonly atClose: (() => Promise<void>)[];
}

/** A context on a database, with nothing watched yet. Without a log nothing is said. */
export const contextOn = (
  database: Database,
  clock: () => Date = () => new Date(),
  log: Logger = pino({ level: 'silent' }),
): Context => ({
  database,
  clock,
  log,
  changes: new ChangeBus(),
  answering: new Answering(),
  sessionEnds: new EventEmitter().setMaxListeners(0),
  watchers: [],
  atClose: [],
});

/** A pot that wants somebody now. */
export interface PotCall {
  readonly lotId: string;
  readonly stepIndex: number;
  readonly code: string;
  readonly message: string;
}

/** Tells listeners what changed, after it is safely on the disk. */
export class ChangeBus {
  private readonly listeners = new Set<(topics: readonly Topic[]) => void>();

  listen(listener: (topics: readonly Topic[]) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  tell(topics: readonly Topic[]): void {
    for (const listener of this.listeners) listener(topics);
  }
}
