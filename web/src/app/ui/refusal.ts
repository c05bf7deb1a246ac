import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, input } from '@angular/core';
import type { ShownProblem } from '../api/api-client';
import { sayUnder } from './field-note';

/** What was refused and what to do, said where the hand is; what is wrong with one field, under that field as well. */
@Component({
  selector: 'vs-refusal',
  template: `@if (problem(); as p) {
    <p class="refusal" role="alert">{{ p.detail }}</p>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RefusalNote {
  readonly problem = input<ShownProblem | undefined>(undefined);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    effect((mended) => {
      const marked: HTMLElement[] = [];
      const named = [...(this.host.closest('form')?.querySelectorAll<HTMLElement>('[name]') ?? [])];
      for (const { field, detail } of this.problem()?.errors ?? []) {
        const at = named.find((e) => e.getAttribute('name') === field);
        if (!at || marked.includes(at)) continue;
        sayUnder(at, detail);
        at.addEventListener('input', () => sayUnder(at, undefined), { once: true });
        marked.push(at);
      }
      marked[0]?.focus();
      mended(() => {
        for (const at of marked) sayUnder(at, undefined);
      });
    });
  }
}
