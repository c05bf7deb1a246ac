import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CsvButton } from './csv-button';

describe('a list taken along', () => {
  let saved: Blob | undefined;
  beforeEach(() => {
    saved = undefined;
    URL.createObjectURL = vi.fn((file: Blob) => {
      saved = file;
      return 'blob:list';
    });
    URL.revokeObjectURL = vi.fn();
  });
  afterEach(() => vi.restoreAllMocks());

  it('is not offered of a list without a row', async () => {
    const fixture = TestBed.createComponent(CsvButton<string>);
    for (const [name, value] of Object.entries({ name: 'jars', rows: [], columns: [] }))
      fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).querySelector('button')).toBeNull();
  });

  it('is a table of all its rows, which no spreadsheet takes for a sum', async () => {
    const clicked = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined);
    const fixture = TestBed.createComponent(CsvButton<{ name: string; grams: number | null }>);
    fixture.componentRef.setInput('name', 'jars');
    fixture.componentRef.setInput('rows', [
      { name: 'Weld, dried', grams: 12.5 },
      { name: '=1+1', grams: null },
    ]);
    fixture.componentRef.setInput('columns', [
      { head: 'material', of: (r: { name: string }) => r.name },
      { head: 'on hand', of: (r: { grams: number | null }) => r.grams },
    ]);
    await fixture.whenStable();
    (fixture.nativeElement as HTMLElement).querySelector('button')?.click();
    await vi.waitFor(() => expect(clicked).toHaveBeenCalledOnce());
    expect((clicked.mock.contexts[0] as HTMLAnchorElement).download).toBe('jars.csv');
    const reader = new FileReader();
    const read = new Promise((done) => (reader.onload = done));
    reader.readAsArrayBuffer(saved as Blob);
    await read;
    const bytes = new Uint8Array(reader.result as ArrayBuffer);
    expect([...bytes.slice(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    expect(new TextDecoder().decode(bytes).split('\r\n')).toEqual([
      'material,on hand',
      '"Weld, dried",12.5',
      '"\'=1+1",',
    ]);
  });
});
