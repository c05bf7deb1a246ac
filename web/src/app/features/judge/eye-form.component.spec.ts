import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatNativeSelectHarness } from '@angular/material/input/testing';
import type { EyeReadingView, LotDetail } from '@vestigia/contract';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { lotFixture } from '../../testing/lot.fixture';
import { EyeForm } from './eye-form';

const SEEN: EyeReadingView['seen'] = {
  against: 'master',
  depth: -1,
  hue: 'redder',
  clarity: 0,
  evenness: 'even',
  where: '',
  light: 'daylight',
};
const seenBy = (id: string, rest: Partial<EyeReadingView> = {}): EyeReadingView => ({
  id,
  batch: 1,
  group: null,
  zone: null,
  piece: null,
  dip: null,
  state: 'dry',
  seen: SEEN,
  photos: [],
  note: '',
  at: '2026-06-01T09:00:00.000Z',
  by: { id: 'ada', name: 'Ada' },
  replacesId: null,
  ...rest,
});

describe('judging by eye', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let fixture: ComponentFixture<EyeForm>;
  const page = (): string => (fixture.nativeElement as HTMLElement).textContent?.replaceAll(/\s+/g, ' ') ?? '';
  const show = (lot: LotDetail): void => {
    fixture.componentRef.setInput('lot', lot);
    fixture.detectChanges();
  };
  const choose = async (label: string, text: string): Promise<void> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    await ((await field.getControl(MatNativeSelectHarness)) as MatNativeSelectHarness).selectOptions({ text });
  };
  const press = (name: string): void => {
    const buttons = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    buttons.find((b) => b.textContent?.trim() === name)?.click();
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({ providers: [{ provide: ApiClient, useValue: { post } }] });
    fixture = TestBed.createComponent(EyeForm);
  });

  it('says in a dyer’s words what is about to be written down, and writes down the facts', async () => {
    show(lotFixture());
    expect(page()).toContain('the same as the master swatch, even, in daylight.');
    await choose('Depth', 'paler');
    await choose('Hue', 'yellower');
    await choose('Evenness', 'patchy');
    expect(page()).toContain('paler and yellower than the master swatch, patchy, in daylight.');
    press('Keep what I see');
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/eyes',
      expect.objectContaining({
        batch: 1,
        group: null,
        piece: null,
        dip: null,
        state: 'dry',
        seen: { ...SEEN, hue: 'yellower', evenness: 'patchy' },
        replacesId: null,
      }),
      'lot-1',
    );
  });

  it('holds nothing against a master that there is not', () => {
    const lot = lotFixture();
    show({ ...lot, summary: { ...lot.summary, master: null } });
    expect(page()).toContain('looked at by itself, even');
    expect(page()).not.toContain('the master swatch');
  });

  it('lists what eyes said, by whom, and corrects without erasing', () => {
    const lot = lotFixture();
    show({ ...lot, eyes: [seenBy('first'), seenBy('second', { replacesId: 'first', seen: { ...SEEN, hue: null } })] });
    expect(page()).toMatch(/Batch 1, dry.*paler and redder than the master swatch.*Ada/);
    expect((fixture.nativeElement as HTMLElement).querySelectorAll('tr.struck')).toHaveLength(1);
    press('Correct');
    fixture.detectChanges();
    expect(page()).toContain('What should stand instead');
    press('Keep what I see');
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/eyes',
      expect.objectContaining({ replacesId: 'second', seen: { ...SEEN, hue: null } }),
      'lot-1',
    );
  });

  it('says of a wet piece that it passes nothing', async () => {
    show(lotFixture());
    await choose('The piece is', 'wet');
    expect(page()).toContain('Still wet — don’t judge yet.');
  });
});
