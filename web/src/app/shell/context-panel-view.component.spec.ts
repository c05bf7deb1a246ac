import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { ContextPanel } from '../services/context-panel';
import { ContextPanelView } from './context-panel-view';

describe('the margin', () => {
  const figure = {
    value: 170.1,
    unit: 'g',
    working: { formula: '15 % × 1134 g', inputs: [{ name: 'Per cent', value: 15, unit: '% WOF' }], notes: [] },
  };
  let panel: ContextPanel;
  let view: ComponentFixture<ContextPanelView>;
  const text = (): string => (view.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ').trim();

  beforeEach(async () => {
    panel = TestBed.inject(ContextPanel);
    view = TestBed.createComponent(ContextPanelView);
    await view.whenStable();
  });

  it('takes room only while it has something to say', () => {
    expect(panel.isOpen()).toBe(false);
    expect(text()).toBe('');
    panel.showWorking('Potassium alum', figure);
    expect(panel.isOpen()).toBe(true);
    panel.closeWorking();
    expect(panel.isOpen()).toBe(false);
    panel.notes.set([{ title: 'Bad neighbours', lines: ['Acid beside bleach.'] }]);
    expect(panel.isOpen()).toBe(true);
  });

  it('says a working into what stood there before, so that a screen reader hears it', async () => {
    const live = (view.nativeElement as HTMLElement).querySelector('[aria-live]');
    panel.showWorking('Potassium alum', figure);
    await view.whenStable();
    expect((view.nativeElement as HTMLElement).querySelector('[aria-live]')).toBe(live);
    expect(live?.textContent).toContain('15 % × 1134 g');
  });

  it('closing a working leaves the page’s cautions', async () => {
    panel.notes.set([{ title: 'Bad neighbours', lines: ['Acid beside bleach.'] }]);
    panel.showWorking('Potassium alum', figure);
    await view.whenStable();
    (view.nativeElement as HTMLElement).querySelector<HTMLButtonElement>('button.close')?.click();
    await view.whenStable();
    expect(text()).toBe('Bad neighbours Acid beside bleach.');
  });

  it('gives the hand back to the figure, which doesn’t open it again', () => {
    const opener = document.createElement('button');
    document.body.append(opener);
    opener.addEventListener('focus', () => panel.showWorking('Potassium alum', figure, opener));
    opener.focus();
    expect(panel.working()).toBeDefined();
    const margin = document.createElement('vs-context-panel');
    margin.tabIndex = -1;
    document.body.append(margin);
    margin.focus();
    panel.closeWorking();
    margin.remove();
    expect(document.activeElement).toBe(opener);
    expect(panel.working()).toBeUndefined();
    opener.blur();
    opener.focus();
    expect(panel.working()).toBeDefined();
    opener.remove();
  });
});
