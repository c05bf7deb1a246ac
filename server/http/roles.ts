import { worded } from '@vestigia/core';
import type { Role } from '@vestigia/core';
import { mayAs } from '@vestigia/core';
import { eq } from 'drizzle-orm';
import { people } from '../db/schema';
import type { Context } from '../shared/context';
import { Refusal } from '../shared/problem';

/** What each person may do here, kept until people change: every call asks. */
export class Roles {
  private readonly known = new Map<string, Role>();

  constructor(private readonly context: Context) {
    context.changes.listen((topics) => {
      if (topics.includes('studio')) this.known.clear();
    });
  }

  /** Who isn't here any more may look at nothing more than a guest may. */
  async of(personId: string): Promise<Role> {
    const known = this.known.get(personId);
    if (known) return known;
    const [row] = await this.context.database.db
      .select({ role: people.role })
      .from(people)
      .where(eq(people.id, personId));
    const role = row?.role ?? 'guest';
    this.known.set(personId, role);
    return role;
  }

  /** @throws {Refusal} where the person may not do what needs that */
  async assert(personId: string, needs: Role): Promise<void> {
    const has = await this.of(personId);
    if (!mayAs(has, needs))
      throw new Refusal(
        'notAllowed',
        $localize`That is for ${NAMED[needs]} to do, and you are in as ${NAMED[has]}. Ask somebody here who is.`,
      );
  }
}

const NAMED: Readonly<Record<Role, string>> = worded(() => ({
  guest: $localize`a guest`,
  helper: $localize`a helper`,
  dyer: $localize`a dyer`,
  owner: $localize`an owner`,
}));
