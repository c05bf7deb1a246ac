import type { customers } from '../db/schema';

/** A customer as people see it; an erased one by its number alone. */
export const customerName = ({
  name,
  number,
  erasedAt,
}: Pick<typeof customers.$inferSelect, 'name' | 'number' | 'erasedAt'>): string =>
  erasedAt === null ? name : $localize`Customer ${number}, erased`;
