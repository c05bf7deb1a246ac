import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import type { ShownProblem } from '../api/api-client';
import { RefusalNote } from './refusal';

@Component({
  imports: [RefusalNote],
  template: `<form>
    <input name="name" aria-describedby="hint" />
    <details><input name="quantityText" /></details>
    <vs-refusal [problem]="problem()" />
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Form {
  readonly problem = signal<ShownProblem | undefined>(undefined);
}

describe('what was refused', () => {
  it('stands at the foot and under the field it is about, unfolded, with the hand in it, until it is mended', async () => {
    const fixture = TestBed.createComponent(Form);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const field = (name: string): HTMLInputElement => page.querySelector(`[name=${name}]`) as HTMLInputElement;
    fixture.componentInstance.problem.set({
      detail: 'Write how much.',
      errors: [
        { field: 'quantityText', detail: 'Write how much.' },
        { field: 'name', detail: 'It needs a name.' },
        { field: 'elsewhere', detail: 'Nobody can see this field.' },
      ],
    });
    await fixture.whenStable();
    const said = (name: string): string[] =>
      (field(name).getAttribute('aria-describedby') ?? '')
        .split(' ')
        .map((id) => document.getElementById(id)?.textContent ?? id);
    expect([said('quantityText'), said('name')]).toEqual([['Write how much.'], ['hint', 'It needs a name.']]);
    expect(page.querySelector('details')?.open).toBe(true);
    expect(document.activeElement).toBe(field('quantityText'));
    expect(page.querySelector('vs-refusal')?.textContent).toContain('Write how much.');
    field('name').dispatchEvent(new Event('input'));
    expect([said('name'), field('name').hasAttribute('aria-invalid')]).toEqual([['hint'], false]);
    fixture.componentInstance.problem.set(undefined);
    await fixture.whenStable();
    expect(field('quantityText').hasAttribute('aria-describedby')).toBe(false);
    expect(page.querySelectorAll('[role=alert]')).toHaveLength(0);
  });
});
