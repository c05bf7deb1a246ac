import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import { provideRouter } from '@angular/router';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../../api/api-client';
import { Session } from '../../../api/session';
import { ServerClock } from '../../../api/server-clock';
import { signal } from '@angular/core';
import { pickersIn } from './picked-fields';
import { StockLotPickings } from './stock-lot-pickings';

const picking = (id: string, amount: number, pickers: string[], minutesEach: number | null, reversed = false) => ({
  id,
  stockLotId: 'j',
  movementId: `m${id}`,
  portions: 1,
  tareMg: 0,
  note: '',
  pickers,
  minutesEach,
  guessed: false,
  pickedWith: '',
  pickedAt: '2026-05-30T10:00:00.000Z',
  amount,
  reversed,
  by: { id: 'ada', name: 'Ada' },
});

it.each([
  ['Wren, Tam', ['Wren', 'Tam']],
  ['Wren and Tam', ['Wren', 'Tam']],
  [' Wren ;\nTam,, ', ['Wren', 'Tam']],
  ['Sandy Anderson', ['Sandy Anderson']],
  ['', []],
])('reads the pickers of “%s”', (text, names) => expect(pickersIn(text)).toEqual(names));

describe('pickings of a jar', () => {
  const post = vi.fn(() => of({ id: 'x' }));
  let fixture: ComponentFixture<StockLotPickings>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = (name: string): void => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim().startsWith(name));
    if (!button) throw new Error(`there is no “${name}”, only ${page().textContent}`);
    button.click();
    fixture.detectChanges();
  };
  const write = async (label: string, value: string): Promise<void> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    await ((await field.getControl(MatInputHarness)) as MatInputHarness).setValue(value);
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: { post } },
        { provide: Session, useValue: { zone: signal('Europe/London'), person: signal(null) } },
        { provide: ServerClock, useValue: { now: () => Date.parse('2026-06-01T12:00:00.000Z') } },
      ],
    });
    fixture = TestBed.createComponent(StockLotPickings);
    fixture.componentRef.setInput('stockLot', {
      row: { id: 'j' },
      pickings: [
        picking('1', 300_000, ['Ada'], 60),
        picking('2', 600_000, ['Ada', 'Tam'], 60),
        picking('3', 9_000_000, ['Ada'], 1, true),
      ],
    });
    fixture.detectChanges();
  });

  it('says what an hour of one pair of hands gave, without what was reversed', () =>
    expect(page().textContent).toContain('300 g'));

  it('takes one more, in as many portions as the balance wanted, the same bag proposed for each', async () => {
    press('Another picking');
    await write('How much', '640 g');
    await write('The bag alone, if it is in it', '20 g');
    press('Another portion');
    await write('Portion 2', '320 g');
    await write('Picked by', 'Wren and Tam');
    await write('Minutes, each of them', '40');
    expect(page().textContent?.replace(/\s+/g, ' ')).toContain('920 g in all');
    press('Add the picking');
    expect(post).toHaveBeenCalledWith(
      '/api/stock-lots/{id}/pickings',
      expect.objectContaining({
        portions: [
          { grossText: '640 g', tareText: '20 g' },
          { grossText: '320 g', tareText: '20 g' },
        ],
        pickers: ['Wren', 'Tam'],
        minutesEach: 40,
        guessed: false,
        pickedOn: '2026-06-01',
      }),
      'j',
    );
  });
});
