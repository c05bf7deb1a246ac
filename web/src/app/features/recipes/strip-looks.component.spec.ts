import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness, MatNativeSelectHarness } from '@angular/material/input/testing';
import { signal } from '@angular/core';
import type { StripTrialDetail } from '@vestigia/contract';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { Session } from '../../api/session';
import { StripLooks } from './strip-looks';

const trial = (looks: object[] = []): StripTrialDetail =>
  ({
    summary: { id: 't' },
    layout: ['coffee', 'beet', 'onion'].map((label, i) => ({ number: i + 1, label })),
    looks,
  }) as unknown as StripTrialDetail;
const look = (id: string, by: string, state: 'wet' | 'dry', places: readonly number[]): object => ({
  id,
  state,
  light: 'daylight',
  replacesId: null,
  at: '2026-06-01T09:00:00.000Z',
  by: { id: by, name: by },
  seen: places.map((place, i) => ({ number: i + 1, place, warmth: 'between', evenness: 'even', goodFor: '' })),
});

describe('strips placed by eye', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let fixture: ComponentFixture<StripLooks>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const show = (shown: StripTrialDetail): void => {
    fixture = TestBed.createComponent(StripLooks);
    fixture.componentRef.setInput('trial', shown);
    fixture.detectChanges();
  };
  const fields = (label: string): Promise<MatFormFieldHarness[]> =>
    TestbedHarnessEnvironment.loader(fixture).getAllHarnesses(MatFormFieldHarness.with({ floatingLabelText: label }));
  const write = async (label: string, nth: number, text: string): Promise<void> =>
    ((await (await fields(label))[nth]?.getControl(MatInputHarness)) as MatInputHarness).setValue(text);
  const choose = async (label: string, nth: number, text: string): Promise<void> =>
    ((await (await fields(label))[nth]?.getControl(MatNativeSelectHarness)) as MatNativeSelectHarness).selectOptions({
      text,
    });
  const submit = (): void => {
    page().querySelector<HTMLButtonElement>('button[type=submit]')?.click();
    fixture.detectChanges();
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post } },
        { provide: Session, useValue: { person: signal({ id: 'ada', name: 'Ada' }) } },
      ],
    });
  });

  it('says only of those that got a place what is seen of them', async () => {
    show(trial());
    await write('Place by depth', 1, '1');
    await choose('Warmth', 1, 'warm');
    await choose('Evenness', 1, 'spotted');
    await write('Good for', 1, 'backing');
    await write('Place by depth', 2, ' 2 ');
    submit();
    expect(post).toHaveBeenCalledWith(
      '/api/strip-trials/{id}/looks',
      expect.objectContaining({
        state: 'dry',
        replacesId: null,
        seen: [
          { number: 2, place: 1, warmth: 'warm', evenness: 'spotted', goodFor: 'backing' },
          { number: 3, place: 2, warmth: 'between', evenness: 'even', goodFor: '' },
        ],
      }),
      't',
    );
  });

  it('ranks by what all said, and says how drying changed it', () => {
    show(trial([look('w', 'bo', 'wet', [1, 2, 3]), look('d', 'bo', 'dry', [2, 1, 3])]));
    expect([...page().querySelectorAll('li strong')].map((e) => e.textContent)).toEqual(['beet', 'coffee', 'onion']);
    expect(page().textContent).toMatch(/beet\s*: neither warm nor cool, even, deeper dry than wet/);
    expect(page().textContent).toContain('Write down how I place them');
  });

  it('begins from what this person said before, and corrects that', async () => {
    show(trial([look('mine', 'ada', 'dry', [1, 2, 3]), look('other', 'bo', 'dry', [3, 2, 1])]));
    expect(
      await ((await (await fields('Place by depth'))[0]?.getControl(MatInputHarness)) as MatInputHarness).getValue(),
    ).toBe('1');
    await write('Place by depth', 0, '3');
    submit();
    expect(post).toHaveBeenCalledWith(
      '/api/strip-trials/{id}/looks',
      expect.objectContaining({
        replacesId: 'mine',
        seen: expect.arrayContaining([expect.objectContaining({ number: 1, place: 3 })]) as unknown,
      }),
      't',
    );
  });
});
