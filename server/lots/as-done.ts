import { asReallyDone, foldRun } from '@vestigia/core';
import type { RecipeBody } from '@vestigia/contract';
import type { Db } from '../db/database';
import { findVersion } from '../recipes/recipes-store';
import { addVersion } from '../recipes/write-versions';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { findLot, readEntries } from './lots-store';

/** Writes the recipe's next version as a lot was really dyed: a trial, with what is otherwise in its note. */
export async function writeAsDone(db: Db, lotId: string, { id }: { id: string }, by: By): Promise<{ id: string }> {
  const written = await writeWhereOtherwise(db, lotId, id, by);
  if (written) return written;
  const { number } = await findLot(db, lotId);
  throw new Refusal(
    'refused',
    $localize`${lotTag(number)} went as its recipe says. There is nothing to write otherwise.`,
    {
      reason: 'asPlanned',
    },
  );
}

/** The same; nothing where the lot went as its recipe says. */
export async function writeWhereOtherwise(
  db: Db,
  lotId: string,
  id: string,
  by: By,
): Promise<{ id: string } | undefined> {
  const lot = await findLot(db, lotId);
  const version = await findVersion(db, lot.recipeVersionId);
  const records = foldRun(await readEntries(db, lotId), lot.plan.steps.length);
  const { steps, placed, changes } = asReallyDone(version.body, lot.plan, records);
  if (changes.length === 0) return undefined;
  const label = [
    $localize`As ${lotTag(lot.number)} was really dyed, after version ${version.number}:number::`,
    ...changes.map((c) => `${c.stepTitle}: ${c.message}.`),
    version.body.note,
  ];
  const note = label
    .filter((line) => line !== '')
    .join(' ')
    .slice(0, NOTE_LENGTH);
  // What core writes anew is a body of the same shape.
  return addVersion(
    db,
    { id, recipeId: version.recipeId, body: { ...version.body, steps, placed, note } as RecipeBody },
    by,
  );
}
const NOTE_LENGTH = 2000;
