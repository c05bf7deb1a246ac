import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { AskNotices } from '../ui/ask-notices';
import { PotNotices } from './pot-notices';

const CALL = { key: 'hot', message: 'Alum mordant boils.', path: '/bench/7' };

describe('telling of a pot over other windows', () => {
  const said: { title: string; body: string | undefined }[] = [];
  const requestPermission = vi.fn(() => Promise.resolve('granted'));
  const browser = (permission: NotificationPermission): void =>
    void vi.stubGlobal(
      'Notification',
      Object.assign(
        class {
          onclick: unknown;
          constructor(title: string, { body }: NotificationOptions) {
            said.push({ title, body });
          }
        },
        { permission, requestPermission },
      ),
    );
  const looksElsewhere = (elsewhere: boolean): void => void vi.spyOn(document, 'hasFocus').mockReturnValue(!elsewhere);

  beforeEach(() => {
    said.length = 0;
    requestPermission.mockClear();
    localStorage.clear();
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.restoreAllMocks();
  });
  const question = async () => {
    const fixture = TestBed.createComponent(AskNotices);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    return {
      buttons: () => [...page.querySelectorAll('button')],
      press: async (label: string): Promise<void> => {
        [...page.querySelectorAll('button')].find((b) => b.textContent?.trim() === label)?.click();
        await fixture.whenStable();
      },
    };
  };

  it('is asked for once on a tablet, whatever is answered', async () => {
    browser('default');
    const { buttons, press } = await question();
    await press('No, only here');
    expect(buttons()).toEqual([]);
    expect(requestPermission).not.toHaveBeenCalled();
    TestBed.resetTestingModule();
    expect((await question()).buttons()).toEqual([]);
  });

  it('is left to the browser, which asks for itself', async () => {
    browser('default');
    const { buttons, press } = await question();
    await press('Yes, tell me there too');
    expect(requestPermission).toHaveBeenCalledOnce();
    expect(buttons()).toEqual([]);
  });

  it.each(['granted', 'denied'] as const)('is not asked for where the browser knows: %s', async (permission) => {
    browser(permission);
    expect((await question()).buttons()).toEqual([]);
  });

  it('says what calls once, and only to who looks elsewhere', async () => {
    browser('granted');
    looksElsewhere(true);
    const notices = TestBed.inject(PotNotices);
    await notices.say([CALL]);
    await notices.say([CALL]);
    expect(said).toEqual([{ title: 'Go to the pot', body: 'Alum mordant boils.' }]);
    await notices.say([]);
    looksElsewhere(false);
    await notices.say([CALL]);
    expect(said.length).toBe(1);
  });

  it('says nothing where it was refused', async () => {
    browser('denied');
    looksElsewhere(true);
    await TestBed.inject(PotNotices).say([CALL]);
    expect(said).toEqual([]);
  });
});
