import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { MatFormFieldHarness } from '@angular/material/form-field/testing';
import { MatInputHarness } from '@angular/material/input/testing';
import type { Note } from '@vestigia/contract';
import { WHOLE } from '@vestigia/core';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../api/api-client';
import { LiveChanges } from '../api/live-query';
import { Session } from '../api/session';
import { lotFixture } from '../testing/lot.fixture';
import { Notes } from './notes';

const KEPT: Note = {
  id: 'n',
  subject: 'lot',
  subjectId: 'l',
  text: 'a knot has opened',
  mark: 'next',
  of: { ...WHOLE, piece: '2' },
  replacesId: null,
  by: { id: 'ada', name: 'Ada' },
  at: '2026-06-01T10:00:00.000Z',
};

describe('notes', () => {
  const post = vi.fn((_path: string, _body: object) => of({ id: 'n' }));
  let fixture: ComponentFixture<Notes>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (name: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${page().textContent}`);
    button.click();
    await fixture.whenStable();
  };
  const write = async (label: string | RegExp, text: string): Promise<void> => {
    const field = await TestbedHarnessEnvironment.loader(fixture).getHarness(
      MatFormFieldHarness.with({ floatingLabelText: label }),
    );
    await ((await field.getControl(MatInputHarness)) as MatInputHarness).setValue(text);
  };

  beforeEach(async () => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post, get: () => of([KEPT]) } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
        { provide: Session, useValue: { zone: signal('Europe/London') } },
      ],
    });
    fixture = TestBed.createComponent(Notes);
    fixture.componentRef.setInput('subject', 'lot');
    fixture.componentRef.setInput('subjectId', 'l');
    fixture.componentRef.setInput('marks', ['next']);
    fixture.componentRef.setInput('lot', lotFixture());
    await fixture.whenStable();
  });

  it('say which piece they are on, and where they are seen again', () => {
    expect(page().textContent?.replace(/\s+/g, ' ')).toMatch(/piece 2: a knot has opened for next time, Ada/);
  });

  it('are on all of it, or on one piece, and stay on it when corrected', async () => {
    await write('A note', 'smells of hay');
    await press('Keep the note');
    expect(post.mock.lastCall?.[1]).toMatchObject({ text: 'smells of hay', of: null });
    await press('On one piece or part');
    await write('A note', 'paler');
    await write('One piece', '4');
    await press('Keep the note');
    expect(post.mock.lastCall?.[1]).toMatchObject({ text: 'paler', of: { batch: 1, piece: '4', dip: null } });
    await press('Correct');
    await write(/What should stand/, 'two knots have opened');
    await press('Keep the note');
    expect(post.mock.lastCall?.[1]).toMatchObject({ of: KEPT.of, replacesId: 'n', mark: 'next' });
  });
});
