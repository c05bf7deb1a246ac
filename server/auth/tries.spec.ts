import { describe, expect, it } from 'vitest';
import type { Refusal } from '../shared/problem';
import { Tries, networkOf } from './tries';

describe('wrong tries at the door', () => {
  const door = () => {
    let nowMs = Date.parse('2026-06-01T09:00:00Z');
    const shown: string[] = [];
    const tries = new Tries(
      () => new Date(nowMs),
      (_person, code) => void shown.push(code),
    );
    const answer = (address: string, personId = 'ada', consoleCode?: string): string => {
      try {
        tries.assertOpen({ address, personId, consoleCode });
        return 'open';
      } catch (error) {
        return (error as Refusal).code;
      }
    };
    const guess = (address: string, personId = 'ada'): string => {
      const said = answer(address, personId);
      if (said === 'open') tries.count({ address, personId });
      return said;
    };
    return { tries, shown, answer, guess, pass: (ms: number) => (nowMs += ms) };
  };

  it('wait a minute after five for one name from one address; elsewhere the name gets in', () => {
    const { guess, answer, pass } = door();
    for (let i = 0; i < 5; i += 1) expect(guess('10.0.0.7')).toBe('open');
    expect(guess('10.0.0.7')).toBe('slowDown');
    expect(answer('10.0.0.8')).toBe('open');
    expect(answer('10.0.0.7', 'bo')).toBe('open');
    pass(60_001);
    expect(answer('10.0.0.7')).toBe('open');
  });

  it('wait where one address tries one name after another', () => {
    const { guess } = door();
    for (let i = 0; i < 30; i += 1) expect(guess('10.0.0.7', `person ${i}`)).toBe('open');
    expect(guess('10.0.0.7', 'another')).toBe('slowDown');
  });

  it('ask for a code where one name is tried from everywhere, shown once where the program runs', () => {
    const { guess, answer, shown, tries } = door();
    for (let i = 0; i < 25; i += 1) expect(guess(`10.0.1.${i}`)).toBe('open');
    expect(guess('10.0.2.1')).toBe('askConsole');
    expect(answer('10.0.2.2')).toBe('askConsole');
    expect(shown).toHaveLength(1);
    expect(answer('10.0.2.2', 'ada', 'wrong')).toBe('askConsole');
    expect(answer('10.0.2.2', 'ada', shown[0]?.toLowerCase().replaceAll('-', ' '))).toBe('open');
    tries.forget({ address: '10.0.2.2', personId: 'ada' });
    expect(answer('10.0.2.3')).toBe('open');
  });

  it('keep nobody from a code that an owner gave, nor from a new passphrase of their own', () => {
    const { guess, tries } = door();
    for (let i = 0; i < 25; i += 1) guess(`10.0.1.${i}`);
    expect(() => tries.assertUnhurried({ address: '10.0.2.2', personId: 'ada' })).not.toThrow();
  });

  it('let a guesser of codes wait too', () => {
    const { guess, answer } = door();
    for (let i = 0; i < 25; i += 1) guess(`10.0.1.${i}`);
    for (let i = 0; i < 5; i += 1) expect(answer('10.0.9.9', 'ada', `guess ${i}`)).toBe('askConsole');
    expect(answer('10.0.9.9', 'ada', 'guess 6')).toBe('slowDown');
  });

  it.each([
    ['192.168.1.20', '192.168.1.20'],
    ['::ffff:192.168.1.20', '192.168.1.20'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:0db8:0001:0002::9', '2001:db8:1:2'],
    ['2001:db8::9', '2001:db8:0:0'],
    ['::1', '0:0:0:0'],
  ])('%s counts as %s', (address, network) => expect(networkOf(address)).toBe(network));
});
