import { Component, linkedSignal, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { FormsModule } from '@angular/forms';
import { beforeEach, describe, expect, it } from 'vitest';
import { openedOn } from '../api/opened-on';
import { Meanwhile } from './meanwhile';

interface Label {
  readonly id: string;
  readonly version: number;
  readonly place: string;
  readonly note: string;
}
const told = signal<Label | undefined>(undefined);

@Component({
  imports: [FormsModule, Meanwhile],
  template: `<form (input)="opened.touch()">
    <input name="place" [(ngModel)]="place" /><vs-meanwhile [opened]="opened" />
  </form>`,
})
class LabelForm {
  readonly opened = openedOn(() => told(), {
    key: (l) => l.id,
    version: (l) => l.version,
    say: ({ place, note }) => ({ place, note }),
  });
  readonly place = linkedSignal(() => this.opened.value()?.place ?? '');
}

describe('a form being written while others save', () => {
  const open = async () => {
    const fixture = TestBed.createComponent(LabelForm);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const field = page.querySelector('input') as HTMLInputElement;
    return {
      form: fixture.componentInstance,
      field,
      text: () => page.textContent?.replace(/\s+/g, ' ').trim() ?? '',
      stable: () => fixture.whenStable(),
      write: async (value: string) => {
        field.value = value;
        field.dispatchEvent(new Event('input', { bubbles: true }));
        await fixture.whenStable();
      },
      press: async (name: string) => {
        [...page.querySelectorAll('button')].find((b) => b.textContent?.trim() === name)?.click();
        await fixture.whenStable();
      },
    };
  };
  const first = { id: 'j', version: 1, place: 'Shelf 1', note: '' };
  beforeEach(() => told.set(first));

  it('follows what is told until somebody writes', async () => {
    const { field, stable, text } = await open();
    told.set({ ...first, version: 2, place: 'Shelf 2' });
    await stable();
    expect([field.value, text()]).toEqual(['Shelf 2', '']);
  });

  it('keeps what was typed, says what changed, and saves on the version it was opened on', async () => {
    const { form, field, stable, text, write } = await open();
    await write('Loft');
    told.set({ ...first, version: 2, place: 'Shelf 2' });
    await stable();
    expect([field.value, form.opened.version()]).toEqual(['Loft', 1]);
    expect(text()).toContain('place: was “Shelf 1”, is “Shelf 2” now.');
    expect(text()).not.toContain('note');
  });

  it('takes what stands now, or keeps its own knowing what it replaces', async () => {
    const { form, field, stable, text, write, press } = await open();
    await write('Loft');
    told.set({ ...first, version: 2, place: 'Shelf 2' });
    await stable();
    await press('Keep what I wrote');
    expect([field.value, form.opened.version(), text()]).toEqual(['Loft', 2, '']);
    told.set({ ...first, version: 3, place: 'Shelf 3' });
    await stable();
    await press('Take what stands now');
    expect([field.value, form.opened.version(), text()]).toEqual(['Shelf 3', 3, '']);
  });

  it('asks nothing where what others changed doesn’t stand in this form', async () => {
    const { form, stable, text, write } = await open();
    await write('Loft');
    told.set({ ...first, version: 2 });
    await stable();
    expect([form.opened.version(), text()]).toEqual([2, '']);
  });

  it('another thing opened is another form', async () => {
    const { field, stable, write } = await open();
    await write('Loft');
    told.set({ ...first, id: 'other', place: 'Cellar' });
    await stable();
    expect(field.value).toBe('Cellar');
  });
});
