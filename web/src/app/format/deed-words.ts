import type { Deed, DeedChanges, DeedKind, DeedThing, Session } from '@vestigia/contract';
import type { Role } from '@vestigia/core';

export const ROLE_LABELS: Readonly<Record<Role, string>> = {
  guest: 'guest: looks on',
  helper: 'helper: records',
  dyer: 'dyer: also recipes, prices and files',
  owner: 'owner: all, people too',
};

const DONE: Readonly<Record<DeedKind, string>> = {
  added: 'added',
  changed: 'changed',
  removed: 'took out',
  cameIn: 'came in',
  left: 'left',
  turnedAway: 'was turned away at the door',
  endedSession: 'ended where somebody was in',
  openedFile: 'A studio file was opened',
  brought: 'brought in a file',
  tookFile: 'took a file away',
};

const THINGS: Readonly<Record<DeedThing, string>> = {
  studio: 'the studio’s settings',
  person: 'the person',
  heatSource: 'the heat source',
  vessel: 'the vessel',
  water: 'the water',
  material: 'the material',
  jar: 'the jar',
  recipe: 'the recipe',
  colourway: 'the colourway',
  swatch: 'the snippet',
  container: 'the container',
  file: '',
};

/** Who did what, as a sentence without the time. */
export function sayDeed({ by, kind, thing, name, note }: Deed): string {
  switch (kind) {
    case 'cameIn':
    case 'left':
      return `${name} ${DONE[kind]}`;
    case 'turnedAway':
      return `Somebody was turned away who gave the name of ${name}${note === '' ? '' : `, from ${note}`}`;
    case 'endedSession':
      return `${by?.name ?? 'Somebody'} ended where ${name} was in`;
    case 'openedFile':
      return `${DONE[kind]}: ${name}, by ${note}`;
    case 'brought':
    case 'tookFile':
      return `${by?.name ?? 'Somebody'} ${DONE[kind]}${name === '' ? '' : `: ${name}`}`;
    default:
      return `${by?.name ?? 'The program'} ${DONE[kind]} ${THINGS[thing]}${thing === 'studio' ? '' : ` ${name}`}`;
  }
}

/** What doesn’t follow from taking a field’s name apart. */
const FIELDS: Readonly<Record<string, string>> = {
  codeHash: 'a code for coming in',
  passphraseHash: 'the passphrase',
  keptTo: 'to whom it is kept',
  keptVersions: 'versions kept to some',
  amountsKeptTo: 'to whom the amounts are kept',
  workingMl: 'working volume, ml',
  emptyG: 'empty, g',
  maxC: 'hottest, °C',
  powerW: 'power, W',
  heldIron: 'held iron',
  heatSourceId: 'heat source',
  hardnessDh: 'hardness, °dH',
  ph: 'pH',
  costMinor: 'cost, hundredths',
  toleranceDeltaE: 'tolerance, ΔE',
  roomC: 'room, °C',
  coldWaterC: 'cold water, °C',
  hotWaterC: 'hot water, °C',
  liftLimitKg: 'one person lifts, kg',
  asOf: 'as it was on',
};

const fieldWord = (field: string): string =>
  FIELDS[field] ??
  field
    .replace(/^facts\./, '')
    .replaceAll('.', ', ')
    .replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:[\d.]+Z$/;

const valueWord = (value: unknown): string => {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (value === true) return 'yes';
  if (value === false) return 'no';
  if (typeof value === 'string' && INSTANT.test(value)) return value.slice(0, 16).replace('T', ' ');
  if (typeof value === 'number' || typeof value === 'string') return String(value);
  return (
    JSON.stringify(value)
      .replace(/[{}"[\]]/g, '')
      .replaceAll(',', ', ')
      .replaceAll(':', ' ') || 'nothing'
  );
};

/** Each field that changed, with what it was and is; a secret one by its name alone. */
export const sayChanges = (changes: DeedChanges): string[] =>
  Object.entries(changes).map(([field, [from, to]]) => {
    if (from === null && to === null) return fieldWord(field);
    return from === null
      ? `${fieldWord(field)}: ${valueWord(to)}`
      : `${fieldWord(field)}: ${valueWord(from)} → ${valueWord(to)}`;
  });

/** A browser and its machine in two words, from what it says of itself. */
export function sayBrowser({ browser }: Pick<Session, 'browser'>): string {
  const machine = /(iPad|iPhone|Android|Windows|Macintosh|Linux)/.exec(browser)?.[1] ?? 'another machine';
  const program = /(Firefox|Edg|Chrome|Safari)/.exec(browser)?.[1] ?? 'another program';
  return `${program === 'Edg' ? 'Edge' : program} on ${machine === 'Macintosh' ? 'a Mac' : machine}`;
}
