import { worded } from '../words/worded';
import { sayPh } from '../quantity/say-ph';
import { formatTemperature } from '../quantity/temperature';
/*
 * What instruments at the bench say, one line a reading (docs/instruments.md). The same lines come from the simulated
 * instruments, over the browser's serial port and over any other stream of text.
 */
/** Instruments the bench listens to. */
export const INSTRUMENT_KINDS = ['balance', 'probe', 'colour'] as const;
/** One of `INSTRUMENT_KINDS`. */
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];
/** What each is called on screen. */
export const INSTRUMENT_LABELS: Readonly<Record<InstrumentKind, string>> = worded(() => ({
  balance: $localize`balance`,
  probe: $localize`bath probe`,
  colour: $localize`colour reader`,
}));

/** What a reading is worth: in motion, at rest, more than it carries, pan lifted off its zero, gone to sleep. */
export const BALANCE_STATES = ['moving', 'still', 'over', 'under', 'asleep'] as const;
/** One of `BALANCE_STATES`. */
export type BalanceState = (typeof BALANCE_STATES)[number];

/** A line of an instrument, read: what it is, what it reads (g, °C, L*a*b*), or what is the matter. */
export type InstrumentMessage =
  | {
      readonly kind: 'hello';
      readonly instrument: InstrumentKind;
      readonly name: string;
      readonly capacityG: number | null;
      readonly stepG: number | null;
    }
  | { readonly kind: 'weight'; readonly weightG: number; readonly state: BalanceState }
  | { readonly kind: 'temperature'; readonly temperatureC: number }
  | { readonly kind: 'ph'; readonly ph: number }
  | {
      readonly kind: 'colour';
      readonly L: number;
      readonly a: number;
      readonly b: number;
      readonly illuminant: string;
      readonly observer: string;
    }
  | { readonly kind: 'trouble'; readonly code: TroubleCode; readonly message: string };

/** Why a line could not be read, or what an instrument complains of. */
export type TroubleCode = 'garbled' | 'checksum' | 'outOfRange' | 'unknown' | 'fault' | 'flood' | 'tooLong';

/** What an instrument can truly read; anything else is a broken lead or a garbled line, and is not taken. */
const PROBE_RANGE_C: readonly [number, number] = [-10, 130];
const PH_RANGE: readonly [number, number] = [0, 14];
const HEAVIEST_G = 500_000;
/** Characters in a line; a longer one is refused as `tooLong`. */
export const LONGEST_LINE = 120;
/** Readings a second beyond which an instrument is not measuring but stuck. */
export const MAX_LINES_PER_SECOND = 200;

const STATE_LETTERS: Readonly<Record<string, BalanceState>> = {
  M: 'moving',
  S: 'still',
  O: 'over',
  U: 'under',
  Z: 'asleep',
};
const NUMBER = /^[+-]?\d{1,9}(?:\.\d{1,6})?$/;

const trouble = (code: TroubleCode, message: string): InstrumentMessage => ({ kind: 'trouble', code, message });
const numberOf = (text: string | undefined): number | undefined =>
  text !== undefined && NUMBER.test(text) ? Number(text) : undefined;
const within = (value: number, [low, high]: readonly [number, number]): boolean => value >= low && value <= high;

/** Sum of a line's bytes modulo 256, as two hexadecimal digits: catches a dropped or changed character. */
export function lineSum(body: string): string {
  let sum = 0;
  for (let i = 0; i < body.length; i += 1) sum = (sum + body.charCodeAt(i) * (i + 1)) % 256;
  return sum.toString(16).padStart(2, '0');
}

/** A line with its sum, as instruments send it. */
export const withSum = (body: string): string => `${body} ~${lineSum(body)}`;

/** Reads one line. Never throws: what can't be used comes back as trouble, with a sentence for people. */
export function readInstrumentLine(line: string): InstrumentMessage {
  const whole = line.trim();
  if (whole.length > LONGEST_LINE)
    return trouble('tooLong', $localize`A line from the instrument was too long to be a reading. It was left out.`);
  const summed = /^(.*) ~([0-9a-f]{2})$/.exec(whole);
  if (summed && lineSum(summed[1] ?? '') !== summed[2])
    return trouble(
      'checksum',
      $localize`A line from the instrument came through damaged. It was left out; check the lead if it goes on.`,
    );
  const label = (summed ? (summed[1] ?? '') : whole).split(/\s+/);
  switch (label[0]) {
    case 'ID':
      return readHello(label);
    case 'W':
      return readWeightLine(label);
    case 'T':
      return readTemperature(label);
    case 'PH':
      return readPh(label);
    case 'LAB':
      return readColour(label);
    case 'ERR':
      return trouble(
        'fault',
        $localize`The instrument says: ${
          label
            .slice(1)
            .join(' ')
            .replace(/[^\w ,.'°%-]/g, '') || 'fault'
        }.`,
      );
    default:
      return trouble(
        'garbled',
        $localize`The instrument sent something that is no reading. It was left out; check the lead and the speed of the line if it goes on.`,
      );
  }
}

function readHello(label: readonly string[]): InstrumentMessage {
  const instrument = INSTRUMENT_KINDS.find((k) => k === label[1]);
  if (!instrument)
    return trouble('unknown', $localize`That is no balance, bath probe or colour reader. Connect one of those.`);
  const value = (key: string): number | null =>
    numberOf(label.find((w) => w.startsWith(`${key}=`))?.slice(key.length + 1)) ?? null;
  return {
    kind: 'hello',
    instrument,
    name: (label[2] ?? instrument).replaceAll('_', ' ').slice(0, 40),
    capacityG: value('capacity'),
    stepG: value('step'),
  };
}

function readWeightLine(label: readonly string[]): InstrumentMessage {
  const weightG = numberOf(label[1]);
  const state = STATE_LETTERS[label[3] ?? ''];
  if (state === 'over' || state === 'asleep' || state === 'under')
    return { kind: 'weight', weightG: weightG ?? 0, state };
  if (weightG === undefined || label[2] !== 'g' || state === undefined)
    return trouble('garbled', $localize`The balance sent half a reading. It was left out.`);
  if (Math.abs(weightG) > HEAVIEST_G)
    return trouble('outOfRange', $localize`The balance sent a weight no bench balance shows. It was left out.`);
  return { kind: 'weight', weightG, state };
}

function readTemperature(label: readonly string[]): InstrumentMessage {
  const temperatureC = numberOf(label[1]);
  if (temperatureC === undefined || label[2] !== 'C')
    return trouble('garbled', $localize`The probe sent half a reading. It was left out.`);
  if (!within(temperatureC, PROBE_RANGE_C))
    return trouble(
      'outOfRange',
      $localize`The probe says ${formatTemperature(temperatureC)}, which no dye bath is. Check the probe and its lead; until then take the temperature by hand.`,
    );
  return { kind: 'temperature', temperatureC };
}

function readPh(label: readonly string[]): InstrumentMessage {
  const ph = numberOf(label[1]);
  if (ph === undefined) return trouble('garbled', $localize`The pH meter sent half a reading. It was left out.`);
  if (!within(ph, PH_RANGE))
    return trouble(
      'outOfRange',
      $localize`The meter says ${sayPh(ph)}, which is outside 0 to 14. Rinse and calibrate it; until then use a strip.`,
    );
  return { kind: 'ph', ph };
}

function readColour(label: readonly string[]): InstrumentMessage {
  const [L, a, b] = [numberOf(label[1]), numberOf(label[2]), numberOf(label[3])];
  if (L === undefined || a === undefined || b === undefined)
    return trouble('garbled', $localize`The colour reader sent half a reading. Lay it flat and read again.`);
  if (!within(L, [0, 100]) || !within(a, [-128, 128]) || !within(b, [-128, 128]))
    return trouble(
      'outOfRange',
      $localize`The colour reader sent a colour that can’t be. Lay it flat on the piece, with no light coming in, and read again.`,
    );
  return { kind: 'colour', L, a, b, illuminant: label[4] ?? 'D65', observer: label[5] ?? '10' };
}

/** What is said back to an instrument, one word a line. */
export const INSTRUMENT_COMMANDS = ['ID?', 'TARE', 'WAKE', 'READ'] as const;
/** One of `INSTRUMENT_COMMANDS`. */
export type InstrumentCommand = (typeof INSTRUMENT_COMMANDS)[number];

/**
 * Cuts a stream of text into lines and reads them. Keeps at most one line's worth of what is still coming, leaves out
 * floods, and says each kind of trouble once a second at most, so that a broken lead fills neither memory nor screen.
 */
export class InstrumentLines {
  private rest = '';
  private secondMs = 0;
  private inSecond = 0;
  private readonly toldMs = new Map<TroubleCode, number>();
  private skipping = false;

  /** @param text whatever came, whole lines or not @param nowMs when it came, any steady clock */
  feed(text: string, nowMs: number): InstrumentMessage[] {
    const messages: InstrumentMessage[] = [];
    const lines = (this.rest + text).split(/\r\n|\n|\r/);
    this.rest = lines.pop() ?? '';
    for (const line of lines) {
      if (this.skipping) {
        // The end of a line whose beginning was thrown away.
        this.skipping = false;
        continue;
      }
      if (line.trim() === '') continue;
      const message = this.isFlood(nowMs)
        ? trouble(
            'flood',
            $localize`The instrument sends more than anyone can read. It is listened to again when it slows down; unplug it if it doesn’t.`,
          )
        : readInstrumentLine(line);
      if (message.kind !== 'trouble' || this.mayTell(message.code, nowMs)) messages.push(message);
    }
    if (this.rest.length > LONGEST_LINE) {
      this.rest = '';
      this.skipping = true;
      if (this.mayTell('tooLong', nowMs))
        messages.push(
          trouble('tooLong', $localize`A line from the instrument was too long to be a reading. It was left out.`),
        );
    }
    return messages;
  }

  private isFlood(nowMs: number): boolean {
    if (nowMs - this.secondMs >= 1000) {
      this.secondMs = nowMs;
      this.inSecond = 0;
    }
    this.inSecond += 1;
    return this.inSecond > MAX_LINES_PER_SECOND;
  }

  private mayTell(code: TroubleCode, nowMs: number): boolean {
    const last = this.toldMs.get(code);
    if (last !== undefined && nowMs - last < 1000) return false;
    this.toldMs.set(code, nowMs);
    return true;
  }
}
