import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, inject, output, signal, viewChild } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import type { SearchHit } from '@vestigia/contract';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { ApiClient } from '../api/api-client';

const PATHS: Readonly<Record<SearchHit['kind'], string>> = {
  lot: '/lots',
  jar: '/stores',
  recipe: '/recipes',
  colourway: '/colourways',
  vessel: '/studio',
};

/** Finds lots, jars, recipes and colourways by name, number or tag. */
@Component({
  selector: 'vs-search',
  imports: [FormsModule],
  template: `
    <label class="small" for="search-words">Search lots, jars, recipes, colourways</label>
    <input
      #field
      id="search-words"
      type="search"
      autocomplete="off"
      [(ngModel)]="words"
      (keydown)="onKey($event)"
      role="combobox"
      aria-controls="search-hits"
      [attr.aria-expanded]="hits().length > 0"
      [attr.aria-activedescendant]="hits().length > 0 ? 'hit-' + chosen() : null"
    />
    <ul id="search-hits" role="listbox" aria-label="Found">
      @for (hit of hits(); track hit.kind + hit.id; let i = $index) {
        <li [id]="'hit-' + i" role="option" [attr.aria-selected]="i === chosen()" (mousedown)="go(hit)">
          <strong>{{ hit.title }}</strong> <span class="soft">{{ hit.detail }}</span>
        </li>
      }
    </ul>
    @if (words().trim() !== '' && hits().length === 0) {
      <p class="small soft">Nothing by that name. Try a lot’s number or a jar’s tag.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
      border-bottom: 3px solid var(--ink);
      background: var(--raised);
    }
    input {
      width: min(40rem, 100%);
      min-height: 48px;
      box-sizing: border-box;
      font: inherit;
      font-size: 1.25rem;
      border: 2px solid var(--ink);
      background: var(--sheet);
      color: var(--ink);
      padding: 0 0.75rem;
      display: block;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 0.5rem 0 0;
      max-width: 40rem;
    }
    li {
      padding: 0.6rem 0.75rem;
      cursor: pointer;
      border-bottom: 1px solid var(--line);
    }
    li[aria-selected='true'] {
      box-shadow: inset 5px 0 0 var(--ink);
      background: var(--wash);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SearchBox {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  readonly closed = output();
  protected readonly words = signal('');
  protected readonly chosen = signal(0);
  protected readonly hits = toSignal(
    toObservable(this.words).pipe(
      debounceTime(120),
      switchMap((q) =>
        q.trim() === '' ? of([]) : this.api.get('/api/search', { query: { q } }).pipe(catchError(() => of([]))),
      ),
    ),
    { initialValue: [] as SearchHit[] },
  );

  focus(): void {
    this.field().nativeElement.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') this.closed.emit();
    else if (event.key === 'ArrowDown') this.chosen.update((i) => Math.min(this.hits().length - 1, i + 1));
    else if (event.key === 'ArrowUp') this.chosen.update((i) => Math.max(0, i - 1));
    else if (event.key === 'Enter') {
      const hit = this.hits()[this.chosen()];
      if (hit) this.go(hit);
    } else {
      this.chosen.set(0);
      return;
    }
    event.preventDefault();
  }

  protected go(hit: SearchHit): void {
    this.closed.emit();
    void this.router.navigate(hit.kind === 'vessel' ? [PATHS.vessel] : [PATHS[hit.kind], hit.id]);
  }
}
