/**
 * What a person may do in a studio, each also what those before it may: a `guest` reads what isn’t kept to others, a
 * `helper` records, a `dyer` changes recipes, prices and things and takes files out, an `owner` decides about people and
 * the whole.
 */
export const ROLES = ['guest', 'helper', 'dyer', 'owner'] as const;
/** One of `ROLES`. */
export type Role = (typeof ROLES)[number];

/** Whether who is `has` may do what `needs` at least that. */
export const mayAs = (has: Role, needs: Role): boolean => ROLES.indexOf(has) >= ROLES.indexOf(needs);
