import type { AfterViewInit, OnDestroy } from '@angular/core';
import { Directive, ElementRef, inject } from '@angular/core';

/**
 * A wide table moves along by itself where the sheet is narrow. While it is wider than its room it can be reached and
 * moved by keys, under the name of what is in it; while it is not, nobody has to step over it.
 */
@Directive({ selector: '.scroller' })
export class ScrollRegion implements AfterViewInit, OnDestroy {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Not where nothing is laid out, as in a test without a browser. */
  private readonly watch = 'ResizeObserver' in window ? new ResizeObserver(() => this.look()) : undefined;

  ngAfterViewInit(): void {
    this.watch?.observe(this.host);
    for (const inside of this.host.children) this.watch?.observe(inside);
  }

  ngOnDestroy(): void {
    this.watch?.disconnect();
  }

  private look(): void {
    const moves = this.host.scrollWidth > this.host.clientWidth && getComputedStyle(this.host).overflowX === 'auto';
    const name = this.host.querySelector('caption')?.textContent.trim();
    for (const [key, value] of [
      ['tabindex', '0'],
      ['role', 'region'],
      ['aria-label', name ?? $localize`Table`],
    ] as const)
      if (moves) this.host.setAttribute(key, value);
      else this.host.removeAttribute(key);
  }
}
