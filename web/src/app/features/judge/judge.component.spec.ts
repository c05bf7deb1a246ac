import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { provideRouter } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { lotFixture } from '../../testing/lot.fixture';
import { JudgePage } from './judge';

const given = (
  verdict: 'pass' | 'hold' | 'refuse',
  piece: string | null,
  reason = '',
): LotDetail['verdicts'][number] => ({
  id: `${verdict}-${piece ?? 'lot'}`,
  verdict,
  of: piece === null ? null : { batch: 1, group: null, zone: null, piece, dip: null },
  reason,
  at: '2026-06-01T09:00:00.000Z',
  by: { id: 'ada', name: 'Ada' },
  toMaster: null,
  toFirst: null,
  betweenBatches: null,
  restsOn: 'eye',
  takenBack: null,
});

describe('the verdict on a lot, or on one part of it alone', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let lot: LotDetail;
  let fixture: ComponentFixture<JudgePage>;
  const page = (): string => (fixture.nativeElement as HTMLElement).textContent?.replaceAll(/\s+/g, ' ') ?? '';
  const show = async (shown: LotDetail): Promise<void> => {
    lot = shown;
    fixture = TestBed.createComponent(JudgePage);
    fixture.componentRef.setInput('id', 'lot-1');
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const write = async (label: string, text: string, nth = 0): Promise<void> => {
    const fields = await TestbedHarnessEnvironment.loader(fixture).getAllHarnesses(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    await ((await fields.at(nth)?.getControl(MatInputHarness)) as MatInputHarness).setValue(text);
  };
  const press = (name: string): void => {
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    buttons.find((b) => b.textContent?.trim() === name)?.click();
    fixture.detectChanges();
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: { post, get: (path: string) => of(path === '/api/readers' ? [] : lot) } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY } },
      ],
    });
  });

  it('is of the lot, unless one part is named', async () => {
    await show(lotFixture());
    await write('Reason', 'patchy');
    press('Hold it');
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/verdicts',
      expect.objectContaining({ verdict: 'hold', of: null, reason: 'patchy' }),
      'lot-1',
    );
    (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>('input[name=alone]')?.click();
    fixture.detectChanges();
    // The first of these is of the next reading, the second of what an eye sees.
    await write('One piece', '3', -1);
    await write('Reason', 'it bled');
    press('Refuse it');
    expect(post).toHaveBeenLastCalledWith(
      '/api/lots/{id}/verdicts',
      expect.objectContaining({
        verdict: 'refuse',
        of: { batch: 1, group: null, zone: null, piece: '3', dip: null },
        reason: 'it bled',
      }),
      'lot-1',
    );
  });

  it('of a lot that is passed still waits for what was held by itself', async () => {
    const all = lotFixture();
    await show({
      ...all,
      summary: { ...all.summary, state: 'released' },
      verdicts: [given('hold', '3', 'washed once more'), given('refuse', '1', 'it bled'), given('pass', null)],
    });
    expect(page()).toMatch(/Held, piece 3 alone, by Ada/);
    expect(page()).toMatch(/piece 1not read, refused by itself/);
    await write('Reason', 'clean now');
    press('Pass piece 3');
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/verdicts',
      expect.objectContaining({ verdict: 'pass', of: expect.objectContaining({ piece: '3' }) as unknown }),
      'lot-1',
    );
    expect(page()).not.toContain('Pass piece 1');
  });
});
