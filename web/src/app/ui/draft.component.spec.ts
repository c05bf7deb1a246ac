import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { FormsModule } from '@angular/forms';
import { Subject } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import type { ShownProblem } from '../api/api-client';
import { forgetDrafts } from '../api/forget-drafts';
import { pageAction } from '../api/page-action';
import { Session } from '../api/session';
import { Drafts } from '../services/drafts';
import { StudioCalendar } from '../services/studio-calendar';
import { DraftOf } from './draft';
import { NumberField } from './number-field';

const person = signal<{ id: string } | null>({ id: 'isaby' });

@Component({
  imports: [DraftOf, FormsModule, NumberField],
  template: `<form>
    <vs-draft of="delivery" [action]="action" [also]="{ hazards }" />
    <input name="name" [(ngModel)]="name" />
    <input vsNumber name="share" [(ngModel)]="share" />
    <input name="place" [(ngModel)]="place" />
    <input type="password" name="secret" [(ngModel)]="secret" />
    <select name="kind" [(ngModel)]="kind">
      <option value="bought">bought</option>
      <option value="given">given</option>
    </select>
    @if (kind() === 'given') {
      <input name="giver" [(ngModel)]="giver" />
    }
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Form {
  readonly name = signal('');
  readonly share = signal<number | null>(null);
  readonly place = signal('High shelf');
  readonly secret = signal('');
  readonly kind = signal('bought');
  readonly giver = signal('');
  readonly hazards = signal<readonly string[]>([]);
  readonly action = pageAction();
}

describe('a form left half-written', () => {
  let fixture: ComponentFixture<Form>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const open = async (): Promise<Form> => {
    fixture = TestBed.createComponent(Form);
    await fixture.whenStable();
    return fixture.componentInstance;
  };
  const write = async (name: string, value: string): Promise<void> => {
    const field = page().querySelector<HTMLInputElement>(`[name=${name}]`);
    if (!field) throw new Error(`no field ${name}`);
    field.value = value;
    field.dispatchEvent(new Event(field.tagName === 'SELECT' ? 'change' : 'input', { bubbles: true }));
    await fixture.whenStable();
  };
  const press = async (label: string): Promise<void> => {
    [...page().querySelectorAll('button')].find((b) => b.textContent.trim() === label)?.click();
    // Fields that others bring up are filled a drawing later each.
    for (let i = 0; i < 5; i += 1) await fixture.whenStable();
  };
  const offered = (): boolean => page().textContent.includes('isn’t kept in the studio yet');

  beforeEach(() => {
    localStorage.clear();
    person.set({ id: 'isaby' });
    TestBed.configureTestingModule({
      providers: [
        { provide: Session, useValue: { person } },
        { provide: StudioCalendar, useValue: { formatMoment: (at: string) => at } },
      ],
    });
  });

  it('is offered again, and gone on with field by field, those others bring up too', async () => {
    const form = await open();
    await write('name', 'Weld');
    await write('share', '12,5');
    await write('kind', 'given');
    await write('giver', 'the bookbinder');
    page().querySelector('form')?.dispatchEvent(new Event('change'));
    form.hazards.set(['dust']);
    await fixture.whenStable();
    fixture.destroy();
    const again = await open();
    expect(offered()).toBe(true);
    expect(again.name()).toBe('');
    await press('Go on with it');
    expect(offered()).toBe(false);
    expect([again.name(), again.share(), again.kind(), again.giver(), again.hazards()]).toEqual([
      'Weld',
      12.5,
      'given',
      'the bookbinder',
      ['dust'],
    ]);
    expect(again.place()).toBe('High shelf');
  });

  it('never keeps a passphrase, not even as the page is left', async () => {
    await open();
    await write('secret', 'ten green hanks');
    fixture.destroy();
    await open();
    await write('name', 'Ada');
    await write('secret', 'ten green hanks');
    window.dispatchEvent(new Event('pagehide'));
    fixture.destroy();
    expect(Object.values(localStorage).join(' ')).not.toContain('hanks');
    expect(TestBed.inject(Drafts).read('delivery')?.fields).toEqual({ name: 'Ada' });
  });

  it('keeps only what somebody wrote', async () => {
    await open();
    fixture.destroy();
    await open();
    expect(offered()).toBe(false);
    await write('name', 'Weld');
    fixture.destroy();
    expect(TestBed.inject(Drafts).read('delivery')?.fields).toEqual({ name: 'Weld' });
  });

  it('goes when it is kept in the studio, and stays when that was refused', async () => {
    const form = await open();
    await write('name', 'Weld');
    const refused = new Subject<void>();
    form.action.run(refused);
    refused.error({ detail: 'No.' } satisfies ShownProblem);
    await fixture.whenStable();
    fixture.destroy();
    const again = await open();
    expect(offered()).toBe(true);
    await press('Go on with it');
    const kept = new Subject<void>();
    again.action.run(kept);
    kept.next();
    await fixture.whenStable();
    fixture.destroy();
    await open();
    expect(offered()).toBe(false);
  });

  it('loses nothing of an older beginning that is still offered', async () => {
    await open();
    await write('name', 'Weld');
    fixture.destroy();
    await open();
    await write('place', 'Cabinet 2');
    fixture.destroy();
    expect(TestBed.inject(Drafts).read('delivery')?.fields).toEqual({ name: 'Weld', place: 'Cabinet 2' });
  });

  it('is nobody else’s, is thrown away on a press, and goes with whoever signs out', async () => {
    await open();
    await write('name', 'Weld');
    fixture.destroy();
    person.set({ id: 'corin' });
    await open();
    expect(offered()).toBe(false);
    fixture.destroy();
    person.set({ id: 'isaby' });
    expect(TestBed.inject(Drafts).count()).toBe(1);
    await open();
    await press('Throw it away');
    expect([offered(), TestBed.inject(Drafts).count()]).toEqual([false, 0]);
    await write('name', 'Weld');
    fixture.destroy();
    forgetDrafts();
    expect(TestBed.inject(Drafts).count()).toBe(0);
  });

  it('is forgotten after a month', async () => {
    const at = new Date(Date.now() - 31 * 86_400_000).toISOString();
    localStorage.setItem('vestigia-draft isaby delivery', JSON.stringify({ at, fields: { name: 'Weld' } }));
    await open();
    expect(offered()).toBe(false);
  });
});
