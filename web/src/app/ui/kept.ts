import { Directive, ElementRef, Injector, afterNextRender, computed, effect, inject, input } from '@angular/core';
import { JustKept } from '../api/just-kept';

const SAID_AT_MOST = 120;

/** A row or line that stands for something in the studio: marked new for a moment after this page had it kept. */
@Directive({ selector: '[vsKept]', host: { '[class.just-kept]': 'isNew()', '[style.--just-now]': 'justNow()' } })
export class Kept {
  /** Its id in the studio. */
  readonly vsKept = input.required<string>();
  private readonly justKept = inject(JustKept);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly isNew = computed(() => this.justKept.has(this.vsKept()));
  /** The words of its mark, as a style’s `content` takes them. */
  protected readonly justNow = computed(() => (this.isNew() ? JSON.stringify(`${$localize`just now`} `) : null));

  constructor() {
    effect(() => {
      if (!this.isNew()) return;
      const id = this.vsKept();
      afterNextRender(() => this.justKept.say(id, this.inWords()), { injector: this.injector });
    });
  }

  /** What heads the row, else how it begins. */
  private inWords(): string {
    const head = this.host.querySelector('th, [role=rowheader]') ?? this.host;
    const words = (head.textContent ?? '').replace(/\s+/g, ' ').trim();
    return words.length > SAID_AT_MOST ? `${words.slice(0, SAID_AT_MOST)} …` : words;
  }
}
