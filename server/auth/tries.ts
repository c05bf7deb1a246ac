import { newCode, readCode } from '../shared/passphrase';
import { Refusal } from '../shared/problem';

/** So many wrong tries are let be; after that each waits. */
const LET_BE = { ofBoth: 5, ofAddress: 30, ofPerson: 25 } as const;
const WAIT_MS = 60_000;
/** A wrong try is forgotten after so long, by what it is counted for. */
const FORGOTTEN_MS = { ofBoth: WAIT_MS, ofAddress: 10 * 60_000, ofPerson: 86_400_000 } as const;
/** Whoever makes up addresses and ids can’t fill the memory. */
const MOST_KEPT = 20_000;

interface Count {
  wrong: number;
  lastMs: number;
}

export interface Try {
  readonly address: string;
  readonly personId: string;
  readonly consoleCode?: string | undefined;
}

/**
 * Wrong tries at the door, counted by address, by person, and by both. Few of both or many from one address wait a
 * minute. Many for one person, from wherever, need a code that is shown where Vestigia runs: so nobody guesses on from
 * address to address, and the real person gets in.
 */
export class Tries {
  private readonly counts = new Map<string, Count>();
  private readonly codes = new Map<string, string>();

  /** @param show says a line where Vestigia runs */
  constructor(
    private readonly clock: () => Date,
    private readonly show: (personId: string, code: string) => void,
  ) {}

  /** @throws {Refusal} where this one has to wait */
  assertUnhurried(tried: Try): void {
    const { ofBoth, ofAddress } = keysOf(tried);
    if (this.wrong(ofBoth, 'ofBoth') >= LET_BE.ofBoth || this.wrong(ofAddress, 'ofAddress') >= LET_BE.ofAddress)
      throw new Refusal('slowDown', $localize`Too many wrong tries. Wait a minute, then try again.`);
  }

  /**
   * Before a passphrase is tried. A code that an owner gave can't be guessed, and whoever is in already was known: those
   * only wait.
   * @throws {Refusal} where this one has to wait, or to give the console's code
   */
  assertOpen(tried: Try): void {
    this.assertUnhurried(tried);
    const { ofPerson } = keysOf(tried);
    if (this.wrong(ofPerson, 'ofPerson') < LET_BE.ofPerson) return;
    const code = this.codeFor(ofPerson, tried.personId);
    if (readCode(tried.consoleCode ?? '') === code) return;
    if ((tried.consoleCode ?? '') !== '') this.count(tried);
    throw new Refusal(
      'askConsole',
      $localize`There were too many wrong tries for that name. The computer Vestigia runs on shows a code now: give it with the passphrase.`,
    );
  }

  count(tried: Try): void {
    const keys = keysOf(tried);
    for (const kind of ['ofBoth', 'ofAddress', 'ofPerson'] as const)
      this.counts.set(keys[kind], {
        wrong: this.wrong(keys[kind], kind) + 1,
        lastMs: this.clock().getTime(),
      });
    if (this.counts.size > MOST_KEPT)
      for (const key of [...this.counts.keys()].slice(0, MOST_KEPT / 2)) this.counts.delete(key);
  }

  /** It was right: what was wrong before is forgotten. */
  forget(tried: Try): void {
    const { ofBoth, ofPerson } = keysOf(tried);
    for (const key of [ofBoth, ofPerson]) this.counts.delete(key);
    this.codes.delete(ofPerson);
  }

  private wrong(key: string, kind: keyof typeof FORGOTTEN_MS): number {
    const count = this.counts.get(key);
    return count && this.clock().getTime() - count.lastMs < FORGOTTEN_MS[kind] ? count.wrong : 0;
  }

  private codeFor(key: string, personId: string): string {
    const known = this.codes.get(key);
    if (known !== undefined) return known;
    const code = newCode();
    this.codes.set(key, code);
    this.show(personId, code);
    return code;
  }
}

function keysOf({ address, personId }: Try): Record<keyof typeof LET_BE, string> {
  // An id is the same however its letters are written; so is a network, however many addresses it gives one machine.
  const [from, who] = [networkOf(address), personId.toLowerCase().slice(0, 60)];
  return { ofBoth: `${from} ${who}`, ofAddress: $localize`from ${from}`, ofPerson: $localize`for ${who}` };
}

/** An IPv4 address as it is; of an IPv6 one the network’s half, for one machine has as many of the rest as it likes. */
export function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '');
  if (!plain.includes(':')) return plain;
  const [head = '', tail] = plain.split('::');
  const groups = head === '' ? [] : head.split(':');
  const after = tail === undefined || tail === '' ? [] : tail.split(':');
  const whole =
    tail === undefined
      ? groups
      : [...groups, ...Array<string>(Math.max(0, 8 - groups.length - after.length)).fill('0'), ...after];
  return whole
    .slice(0, 4)
    .map((group) => Number.parseInt(group, 16).toString(16))
    .join(':');
}
