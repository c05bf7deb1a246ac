import type { Deed, DeedChanges, DeedKind, DeedThing, Session } from '@vestigia/contract';
import type { Role } from '@vestigia/core';
import { fieldWord } from './deed-fields';
import type { SaysWhen } from './deed-values';
import { valueWord } from './deed-values';

export const ROLE_LABELS: Readonly<Record<Role, string>> = {
  guest: $localize`guest: looks on`,
  helper: $localize`helper: records`,
  dyer: $localize`dyer: also recipes, prices and files`,
  owner: $localize`owner: all, people too`,
};

const DONE: Readonly<Record<DeedKind, string>> = {
  added: $localize`added`,
  changed: $localize`changed`,
  removed: $localize`took out`,
  cameIn: $localize`came in`,
  left: $localize`left`,
  turnedAway: $localize`was turned away at the door`,
  endedSession: $localize`ended where somebody was in`,
  openedFile: $localize`A studio file was opened`,
  brought: $localize`brought in a file`,
  tookFile: $localize`took a file away`,
};

const THINGS: Readonly<Record<DeedThing, string>> = {
  studio: $localize`the studio’s settings`,
  person: $localize`the person`,
  heatSource: $localize`the heat source`,
  vessel: $localize`the vessel`,
  water: $localize`the water`,
  material: $localize`the material`,
  jar: $localize`the jar`,
  recipe: $localize`the recipe`,
  colourway: $localize`the colourway`,
  swatch: $localize`the snippet`,
  container: $localize`the container`,
  file: '',
  customer: $localize`the customer`,
  order: $localize`the order`,
};

/** Who did what, as a sentence without the time. */
export function sayDeed({ by, kind, thing, name, note }: Deed): string {
  switch (kind) {
    case 'cameIn':
    case 'left':
      return `${name} ${DONE[kind]}`;
    case 'turnedAway':
      return $localize`Somebody was turned away who gave the name of ${name}${note === '' ? '' : $localize`, from ${note}`}`;
    case 'endedSession':
      return $localize`${by?.name ?? $localize`Somebody`} ended where ${name} was in`;
    case 'openedFile':
      return $localize`${DONE[kind]}:kind:: ${name}, by ${note}`;
    case 'brought':
    case 'tookFile':
      return `${by?.name ?? $localize`Somebody`} ${DONE[kind]}${name === '' ? '' : `: ${name}`}`;
    default:
      return `${by?.name ?? $localize`The program`} ${DONE[kind]} ${THINGS[thing]}${thing === 'studio' ? '' : ` ${name}`}`;
  }
}

const ID = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/;
/** Of what nobody can read the value is not told: what is secret, and which thing was meant. */
const isTold = (value: unknown): boolean => !(typeof value === 'string' && ID.test(value));

/** Each field that changed, with what it was and is; a secret one by its name alone. */
export const sayChanges = (changes: DeedChanges, calendar: SaysWhen): string[] =>
  Object.entries(changes).map(([field, [from, to]]) => {
    const word = fieldWord(field) ?? field;
    if ((from === null && to === null) || !isTold(from) || !isTold(to)) return word;
    const now = valueWord(field, to, calendar);
    return from === null ? `${word}: ${now}` : `${word}: ${valueWord(field, from, calendar)} → ${now}`;
  });

/** A browser and its machine in two words, from what it says of itself. */
export function sayBrowser({ browser }: Pick<Session, 'browser'>): string {
  const machine = /(iPad|iPhone|Android|Windows|Macintosh|Linux)/.exec(browser)?.[1] ?? $localize`another machine`;
  const program = /(Firefox|Edg|Chrome|Safari)/.exec(browser)?.[1] ?? $localize`another program`;
  return $localize`${program === 'Edg' ? $localize`Edge` : program} on ${machine === 'Macintosh' ? $localize`a Mac` : machine}`;
}
