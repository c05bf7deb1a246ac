import { rmSync } from 'node:fs';
import type TestAgent from 'supertest/lib/agent';
import request from 'supertest';
import { inject } from 'vitest';
import { createApp } from '../app';
import { checkCopy } from '../copies/check-copy';
import { openFolder } from '../db/open-database';
import { contextOn } from '../shared/context';
import type { Context } from '../shared/context';
import { MIGRATIONS, copyTemplate } from './databases';

/** A server on an empty folder, some days after the test studio’s. */
export interface EmptyStudio {
  readonly context: Context;
  readonly agent: TestAgent;
  readonly folder: string;
  close(): Promise<void>;
}

/** @param copiesFolder where copies of a studio lie */
export async function openEmptyStudio(copiesFolder: string): Promise<EmptyStudio> {
  const folder = copyTemplate(inject('templateFolder'));
  const database = await openFolder(folder, MIGRATIONS, new Date());
  const context = contextOn(database, () => new Date('2026-06-09T10:00:00.000Z'));
  const app = await createApp(context, {
    answersTo: [],
    copies: { folder: copiesFolder, check: (path) => checkCopy(path, MIGRATIONS) },
    checkReplies: true,
  });
  return {
    context,
    agent: request.agent(app),
    folder,
    close: async () => {
      for (const end of context.atClose) await end();
      await database.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
