import { Directive, ElementRef, effect, inject, input } from '@angular/core';

const KEPT = 'vestigia-folds';

/** What needn't be asked first is folded, by theme; whoever opens a fold finds it open the next time, on this tablet. */
@Directive({ selector: 'details[vsFold]', host: { class: 'fold', '(click)': 'pressed($event)' } })
export class Fold {
  private readonly host = inject<ElementRef<HTMLDetailsElement>>(ElementRef).nativeElement;
  /** Its name among all folds of the house. */
  readonly vsFold = input.required<string>();

  constructor() {
    effect(() => {
      if (opened().includes(this.vsFold())) this.host.open = true;
    });
  }

  /** Unfolded by a press, not because something in it wanted to be seen. The press is told before it unfolds. */
  protected pressed({ target }: Event): void {
    if (!(target instanceof Element) || target.closest('details > summary')?.parentElement !== this.host) return;
    const others = opened().filter((name) => name !== this.vsFold());
    localStorage.setItem(KEPT, JSON.stringify(this.host.open ? others : [...others, this.vsFold()]));
  }
}

const opened = (): string[] => JSON.parse(localStorage.getItem(KEPT) ?? '[]') as string[];
