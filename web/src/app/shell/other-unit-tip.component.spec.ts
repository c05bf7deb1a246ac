import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TestBed } from '@angular/core/testing';
import { OtherUnitTip } from './other-unit-tip';

describe('OtherUnitTip', () => {
  const figure = (text: string): HTMLButtonElement => {
    const button = document.createElement('button');
    button.textContent = text;
    document.body.append(button);
    return button;
  };
  const said = async (): Promise<string | undefined> => {
    await shown.whenStable();
    return (shown.nativeElement as HTMLElement).querySelector('[role=tooltip]')?.textContent ?? undefined;
  };
  let shown: ReturnType<typeof TestBed.createComponent<OtherUnitTip>>;
  beforeEach(() => {
    shown = TestBed.createComponent(OtherUnitTip);
  });
  afterEach(() => {
    shown.destroy();
    document.body.replaceChildren();
  });

  it('says what the keyboard is at in the other units, until it goes on', async () => {
    const [one, other] = [figure('161.7 g'), figure('Stores')];
    one.focus();
    expect(await said()).toBe('5.704 oz');
    other.focus();
    expect(await said()).toBeUndefined();
  });
  it('goes with Escape, and along with a scroll', async () => {
    const one = figure('82 °C, 6 l');
    one.focus();
    expect(await said()).toBe('180 °F · 1.59 US gal · 1.32 imperial gal');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(await said()).toBeUndefined();
    one.blur();
    one.focus();
    expect(await said()).toContain('180 °F');
    document.dispatchEvent(new Event('scroll'));
    expect(await said()).toContain('180 °F');
  });
  it('does not get in the way of whoever pressed with a pointer', async () => {
    const one = figure('161.7 g');
    one.dispatchEvent(new Event('pointerdown', { bubbles: true }));
    one.focus();
    expect(await said()).toBeUndefined();
  });
  it('has nothing to say of a whole page of text', async () => {
    figure(`120 g ${'and more '.repeat(40)}`).focus();
    expect(await said()).toBeUndefined();
  });
});
