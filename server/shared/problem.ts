import { said, worded } from '@vestigia/core';
import type { Problem, ProblemCode } from '@vestigia/contract';
import { PROBLEM_CODES } from '@vestigia/contract';

const TITLES: Readonly<Record<ProblemCode, string>> = worded(() => ({
  invalid: $localize`Something in that can’t be used`,
  unreadable: $localize`That could not be read`,
  notSignedIn: $localize`Come in first`,
  wrongPassphrase: $localize`That passphrase does not open the door`,
  askConsole: $localize`A code is needed`,
  otherSite: $localize`Asked from another site`,
  notAllowed: $localize`Not yours to do`,
  notFound: $localize`Not here`,
  stale: $localize`Changed by someone else`,
  changedMeanwhile: $localize`Something changed meanwhile`,
  alreadyDone: $localize`Done already`,
  clockBehind: $localize`The clock is behind`,
  tooLarge: $localize`Too large`,
  refused: $localize`That can’t be done`,
  idReused: $localize`That id belongs to something else`,
  slowDown: $localize`Too many tries`,
  broken: $localize`Something broke here`,
  databaseAway: $localize`The database is away`,
  diskFull: $localize`The disk is full`,
}));

export interface ProblemExtras {
  readonly reason?: string;
  readonly errors?: readonly { field: string; detail: string }[];
  readonly yours?: unknown;
  readonly theirs?: unknown;
  /** Ways out of a refusal, each a plain sentence, with what to ask instead. */
  readonly ways?: readonly {
    readonly code: string;
    readonly message: string;
    readonly liquorRatio?: number;
    readonly fills?: number;
  }[];
}

/** An expected refusal on its way to the caller. `detail` is a plain sentence that says what to do. */
export class Refusal extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly extras: ProblemExtras = {},
  ) {
    super(detail);
    this.name = 'Refusal';
  }

  toProblem(): Problem {
    return {
      type: `urn:vestigia:problem:${this.code}`,
      title: TITLES[this.code],
      status: PROBLEM_CODES[this.code],
      code: this.code,
      detail: this.detail,
      ...this.extras,
    } as Problem;
  }
}

export const notFound = (what: string): Refusal =>
  new Refusal(
    'notFound',
    $localize`There is no such ${said(what)} here. It may be a mistyped address: go back and choose from the list.`,
  );

/** Sentences for what the database refuses, by constraint. */
const CONSTRAINT_MESSAGES: Readonly<Record<string, readonly [ProblemCode, string]>> = worded(() => ({
  on_hand_not_negative: [
    'refused',
    $localize`The jar does not hold that much any more. Count it, or take the rest from another jar.`,
  ],
  people_name_unique: ['refused', $localize`Someone here has that name already. Add a letter to tell them apart.`],
  vessels_name_unique: ['refused', $localize`A vessel has that name already. Choose another.`],
  heat_sources_name_unique: ['refused', $localize`A heat source has that name already. Choose another.`],
  vessels_heat_source_id_heat_sources_id_fk: [
    'notFound',
    $localize`That heat source is not here any more. Choose another.`,
  ],
  strip_trials_name_unique: ['refused', $localize`A strip trial has that name already. Choose another.`],
  strip_looks_replaces_id_unique: ['alreadyDone', $localize`That was corrected already. Correct the newest one.`],
  strip_readings_replaces_id_unique: [
    'alreadyDone',
    $localize`That reading was corrected already. Correct the newest one.`,
  ],
  waters_name_unique: ['refused', $localize`A water source has that name already. Choose another.`],
  materials_name_unique: [
    'refused',
    $localize`A material has that name already. Choose another, or book a delivery of the one there is.`,
  ],
  stock_lots_tag_unique: ['refused', $localize`Another jar has that tag. Choose another, or leave it empty.`],
  recipes_name_unique: [
    'refused',
    $localize`A recipe has that name already. Choose another, or write a new version of that one.`,
  ],
  colourways_name_unique: ['refused', $localize`A colourway has that name already. Choose another.`],
  run_entries_replaces_id_unique: ['alreadyDone', $localize`That entry was corrected already. Correct the newest one.`],
  eye_readings_replaces_id_unique: [
    'alreadyDone',
    $localize`What was seen there was corrected already. Correct the newest one.`,
  ],
  readings_replaces_id_unique: ['alreadyDone', $localize`That reading was corrected already. Correct the newest one.`],
  movements_reverses_id_unique: ['alreadyDone', $localize`That movement was reversed already.`],
}));

const databaseAway = (): string =>
  $localize`The database is away just now. Nothing that was answered is lost; it is asked again by itself. Do it again when it is back.`;
/** What a PostgreSQL server says on its way down and up (class 57), and what the line to it says. */
const AWAY_CODES = new Set([
  '57P01',
  '57P02',
  '57P03',
  '08000',
  '08001',
  '08003',
  '08006',
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
]);

function isAway(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const { code, syscall } = at as { code?: unknown; syscall?: unknown };
    // A socket that isn’t there has the code of a file that isn’t.
    if (typeof code === 'string' && AWAY_CODES.has(code) && (code !== 'ENOENT' || syscall === 'connect')) return true;
    if (/^Connection terminated|Client has encountered a connection error/.test(at.message)) return true;
  }
  return false;
}

/** Turns a database's refusal into ours; anything unexpected is given back as it came. */
export function refusalFromDatabase(error: unknown): unknown {
  if (isAway(error)) return new Refusal('databaseAway', databaseAway());
  const cause =
    error instanceof Error ? (error.cause as { code?: string; constraint?: string } | undefined) : undefined;
  if (cause?.code === '53100' || (error as { code?: unknown } | null)?.code === 'ENOSPC')
    return new Refusal(
      'diskFull',
      $localize`The disk is full, so this could not be kept. Nothing was changed, and all can be read. Make room on the disk of the studio’s data, then do it again.`,
    );
  if (typeof cause?.code !== 'string') return error;
  const known = cause.constraint === undefined ? undefined : CONSTRAINT_MESSAGES[cause.constraint];
  if (known) return new Refusal(...known);
  if (cause.code === 'VS001')
    return new Refusal('refused', $localize`That record can only be added to. Enter a correction instead.`);
  if (cause.code === 'VS002')
    return new Refusal(
      'changedMeanwhile',
      $localize`Someone took or promised that stock a moment ago. Look at a new proposal.`,
    );
  // What the contract let through and the database can’t hold: a NUL, a day before there were any, too large a figure.
  if (cause.code.startsWith('22'))
    return new Refusal(
      'invalid',
      $localize`Something in that can’t be kept: a sign, a date or a figure that is out of range.`,
    );
  if (cause.code === '23505') return new Refusal('alreadyDone', $localize`That is there already.`);
  if (cause.code === '23503')
    return new Refusal(
      'notFound',
      $localize`That names something which is not here. Reload the page and choose again.`,
    );
  return error;
}
