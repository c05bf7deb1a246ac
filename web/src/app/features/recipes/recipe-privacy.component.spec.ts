import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { Session } from '../../api/session';
import { RecipePrivacy } from './recipe-privacy';

const PEOPLE = [
  { id: 'ada', name: 'Ada' },
  { id: 'tam', name: 'Tam' },
];

describe('to whom a recipe is shown', () => {
  const put = vi.fn(() => of({ id: 'r' }));
  let fixture: ComponentFixture<RecipePrivacy>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const show = (whole: string[] | null, version: string[] | null = null, amounts: string[] | null = null): void => {
    const named = (ids: string[] | null) => ids && PEOPLE.filter((p) => ids.includes(p.id));
    const recipe = { id: 'r', name: 'Weld', versions: [], keptTo: named(whole), amountsKeptTo: named(amounts) };
    fixture.componentRef.setInput('version', { id: 'v', number: 2, recipe, keptTo: named(version) });
    fixture.detectChanges();
  };
  const press = (name: string): void => {
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name);
    if (!button) throw new Error(`there is no “${name}”, only ${page().textContent}`);
    button.click();
    fixture.detectChanges();
  };
  const box = (name: string): HTMLInputElement => {
    const label = [...page().querySelectorAll('label')].find((l) => l.textContent?.trim().startsWith(name));
    return label?.querySelector('input') as HTMLInputElement;
  };

  beforeEach(() => {
    put.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { put, get: () => of({ people: PEOPLE }) } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
        { provide: Session, useValue: { person: signal(PEOPLE[0]) } },
      ],
    });
    fixture = TestBed.createComponent(RecipePrivacy);
  });

  it('is everybody’s until somebody keeps it, themselves always among those who may see it', () => {
    show(null);
    press('Keep it to some of us');
    expect([box('Ada').checked, box('Ada').disabled, box('Tam').checked]).toEqual([true, true, false]);
    press('Keep it to them');
    expect(put).toHaveBeenCalledWith('/api/recipes/{id}/kept-to', { keptTo: ['ada'], before: null }, 'r');
  });

  it('what is ticked stays when the recipe changes otherwise, and follows when somebody else decided', () => {
    show(['ada']);
    press('Change to whom');
    box('Tam').click();
    fixture.detectChanges();
    show(['ada']);
    expect(box('Tam').checked).toBe(true);
    show(['ada', 'tam']);
    expect(box('Tam').checked).toBe(true);
    show(['ada']);
    expect(box('Tam').checked).toBe(false);
  });

  it('or one version alone is kept, and the recipe stays everybody’s', () => {
    show(null);
    press('Keep this version to some of us');
    expect(page().textContent).toContain('Version 2 is kept to');
    press('Keep it to them');
    expect(put).toHaveBeenCalledWith('/api/recipe-versions/{id}/kept-to', { keptTo: ['ada'], before: null }, 'v');
    show(null, ['ada', 'tam']);
    expect(page().textContent).toMatch(/Version 2 is kept to Ada, Tam/);
    press('Change to whom this version is kept');
    press('Show it to everybody');
    expect(put).toHaveBeenLastCalledWith(
      '/api/recipe-versions/{id}/kept-to',
      { keptTo: null, before: ['ada', 'tam'] },
      'v',
    );
  });

  it('or how much goes in alone, while all see what does', () => {
    show(null, null, ['ada']);
    expect(page().textContent).toContain('How much goes in is kept to Ada');
    press('Change to whom the amounts are kept');
    box('Tam').click();
    fixture.detectChanges();
    press('Keep it to them');
    const body = { keptTo: ['ada', 'tam'], before: ['ada'] };
    expect(put).toHaveBeenCalledWith('/api/recipes/{id}/amounts-kept-to', body, 'r');
  });

  it('left as it is, nothing is ticked that was not', () => {
    show(null);
    press('Keep it to some of us');
    box('Tam').click();
    press('Cancel');
    press('Keep it to some of us');
    expect(box('Tam').checked).toBe(false);
    expect(put).not.toHaveBeenCalled();
  });

  it('is shown to everybody again', () => {
    show(['ada', 'tam']);
    expect(page().textContent).toContain('Ada, Tam');
    press('Change to whom');
    press('Show it to everybody');
    expect(put).toHaveBeenCalledWith('/api/recipes/{id}/kept-to', { keptTo: null, before: ['ada', 'tam'] }, 'r');
  });
});
