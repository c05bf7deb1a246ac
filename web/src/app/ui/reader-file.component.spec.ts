import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatNativeSelectHarness } from '@angular/material/input/testing';
import { BANDS_NM } from '@vestigia/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { FromFile } from './reader-file';
import { ReaderFile } from './reader-file';

describe('a file of a reader', () => {
  const taken = vi.fn<(from: FromFile) => void>();
  let fixture: ComponentFixture<ReaderFile>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const open = async (text: string): Promise<void> => {
    const file = page().querySelector<HTMLInputElement>('input[type=file]')!;
    Object.defineProperty(file, 'files', {
      value: [{ text: () => Promise.resolve(text) }],
      configurable: true,
    });
    file.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    fixture.detectChanges();
  };

  beforeEach(() => {
    taken.mockReset();
    fixture = TestBed.createComponent(ReaderFile);
    fixture.componentRef.setInput('conditions', { illuminant: 'D65', observer: '10' });
    fixture.componentInstance.taken.subscribe(taken);
    fixture.detectChanges();
  });

  it('gives its first swatch, by its spectrum, and another when that is chosen', async () => {
    const row = (name: string, value: number): string => [name, ...BANDS_NM.map(() => value)].join(',');
    await open([['name', ...BANDS_NM].join(','), row('pale', 0.5), row('dark', 0.1)].join('\n'));
    expect(taken).toHaveBeenLastCalledWith({
      lab: { L: 76.07, a: 0, b: 0 },
      way: 'spectrum',
      spectrum: expect.objectContaining({ length: 31 }) as unknown,
    });
    expect(page().textContent).toContain('Worked out from its spectrum under D65, 10°.');
    const select = await TestbedHarnessEnvironment.loader(fixture).getHarness(MatNativeSelectHarness);
    await select.selectOptions({ text: 'dark' });
    expect(taken.mock.lastCall?.[0].lab.L).toBeCloseTo(37.84, 1);
  });

  it('gives colours as they stand, and says under which light they count', async () => {
    await open('name,L,a,b\nweld,74.2,-4.1,52');
    expect(taken).toHaveBeenCalledWith({ lab: { L: 74.2, a: -4.1, b: 52 }, way: 'reader', spectrum: null });
    expect(page().textContent).toContain('As the file has it');
  });

  it('that is none says what to do, and nothing is taken', async () => {
    await open('no table');
    expect(page().textContent).toContain('neither CGATS.17 text nor a table');
    expect(taken).not.toHaveBeenCalled();
  });
});
