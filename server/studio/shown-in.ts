import { SHOWN_AT_FIRST, showFiguresIn } from '@vestigia/core';
import { studio } from '../db/schema';
import type { Context } from '../shared/context';

/** What this process writes out, on cards, in refusals and in lists, reads as the studio's screens do, from now on. */
export async function writeFiguresAsTheStudioReads({ database, changes, log }: Context): Promise<void> {
  const adopt = async (): Promise<void> => {
    const [row] = await database.db.select({ shownIn: studio.shownIn }).from(studio);
    showFiguresIn(row?.shownIn ?? SHOWN_AT_FIRST);
  };
  changes.listen((topics) => {
    if (topics.includes('studio')) adopt().catch((error: unknown) => log.error({ error }, 'settings not read'));
  });
  await adopt();
}
