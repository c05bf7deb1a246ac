import { describe, expect, it } from 'vitest';
import { ROLES, mayAs } from './roles';

describe('what a person may do', () => {
  it.each(ROLES.map((role, i) => [role, ROLES.slice(0, i + 1)] as const))('%s may what %s may', (role, may) =>
    expect(ROLES.filter((needs) => mayAs(role, needs))).toEqual(may),
  );
});
