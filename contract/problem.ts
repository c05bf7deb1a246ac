import { z } from 'zod';

/** Every refusal's stable code. Branch on the code, never on the words. */
export const PROBLEM_CODES = {
  invalid: 400,
  unreadable: 400,
  notSignedIn: 401,
  wrongPassphrase: 401,
  askConsole: 401,
  otherSite: 403,
  notAllowed: 403,
  notFound: 404,
  stale: 409,
  changedMeanwhile: 409,
  alreadyDone: 409,
  clockBehind: 409,
  tooLarge: 413,
  refused: 422,
  idReused: 422,
  slowDown: 429,
  broken: 500,
  databaseAway: 503,
  diskFull: 507,
} as const;
export type ProblemCode = keyof typeof PROBLEM_CODES;

/** RFC 9457 problem details. `detail` is a plain sentence that says what to do. */
export const problem = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    code: z.enum(Object.keys(PROBLEM_CODES) as [ProblemCode, ...ProblemCode[]]),
    detail: z.string(),
    /** The finer reason, from core, where there is one. */
    reason: z.string().optional(),
    errors: z.array(z.object({ field: z.string(), detail: z.string() })).optional(),
    /** On a stale edit: what you sent, and what stands now. */
    yours: z.unknown().optional(),
    theirs: z.unknown().optional(),
    /** Ways out of a refusal: what to ask for instead. */
    ways: z
      .array(
        z.object({
          code: z.string(),
          message: z.string(),
          liquorRatio: z.number().optional(),
          fills: z.int().optional(),
        }),
      )
      .optional(),
  })
  .meta({ id: 'Problem' });
export type Problem = z.infer<typeof problem>;
