import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal, viewChild } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import type { SearchHit } from '@vestigia/contract';
import { Swatch } from '../ui/swatch';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { ApiClient } from '../api/api-client';
import { findPages } from './pages';

const PATHS: Readonly<Record<SearchHit['kind'], string>> = {
  lot: '/lots',
  stockLot: '/stores',
  recipe: '/recipes',
  colourway: '/colourways',
  material: '/stores/materials',
  vessel: '/studio',
  swatch: '/judge/book',
  order: '/orders',
  customer: '/orders/customers',
};

/** Something found, and where it is. */
interface Found {
  readonly key: string;
  readonly title: string;
  readonly detail: string;
  readonly lab: SearchHit['lab'];
  readonly to: readonly string[];
  /** What to look for there. */
  readonly find?: string;
}

/** Finds lots, jars, materials, recipes, colourways, orders and pages by name, number or tag. */
@Component({
  selector: 'vs-search',
  imports: [FormsModule, Swatch],
  template: `
    <label i18n class="small" for="search-words"
      >Search lots, jars, materials, recipes, colourways, orders, notes, pages</label
    >
    <input
      #field
      id="search-words"
      type="search"
      autocomplete="off"
      [(ngModel)]="label"
      (keydown)="onKey($event)"
      role="combobox"
      aria-controls="search-hits"
      [attr.aria-expanded]="found().length > 0"
      [attr.aria-activedescendant]="found().length > 0 ? 'hit-' + chosen() : null"
    />
    <ul id="search-hits" role="listbox" aria-label="Found" i18n-aria-label>
      @for (hit of found(); track hit.key; let i = $index) {
        <li [id]="'hit-' + i" role="option" [attr.aria-selected]="i === chosen()" (mousedown)="go(hit)">
          @if (hit.lab; as lab) {
            <vs-swatch [lab]="lab" [width]="1.8" [label]="hit.title" />
          }
          <strong>{{ hit.title }}</strong> <span class="soft">{{ hit.detail }}</span>
        </li>
      }
    </ul>
    @if (label().trim() !== '' && found().length === 0) {
      <p i18n class="small soft">Nothing by that name. Try a lot’s number or a jar’s tag.</p>
    }
  `,
  styleUrl: './search.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SearchBox {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  readonly closed = output();
  protected readonly label = signal('');
  protected readonly chosen = signal(0);
  private readonly hits = toSignal(
    toObservable(this.label).pipe(
      debounceTime(120),
      switchMap((q) =>
        q.trim() === '' ? of([]) : this.api.get('/api/search', { query: { q } }).pipe(catchError(() => of([]))),
      ),
    ),
    { initialValue: [] as SearchHit[] },
  );

  /** Pages first: there are few, and none of them is called like a lot or a jar. */
  protected readonly found = computed((): Found[] => [
    ...findPages(this.label()).map((p) => ({ key: p.path, title: p.name, detail: 'page', lab: null, to: [p.path] })),
    ...this.hits().map((hit) => ({
      key: hit.kind + hit.id,
      title: hit.title,
      detail: hit.detail,
      lab: hit.lab,
      to: hit.kind === 'vessel' || hit.kind === 'swatch' ? [PATHS[hit.kind]] : [PATHS[hit.kind], hit.id],
      ...(hit.kind === 'swatch' ? { find: hit.title } : {}),
    })),
  ]);

  focus(): void {
    this.field().nativeElement.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') this.closed.emit();
    else if (event.key === 'ArrowDown') this.chosen.update((i) => Math.min(this.found().length - 1, i + 1));
    else if (event.key === 'ArrowUp') this.chosen.update((i) => Math.max(0, i - 1));
    else if (event.key === 'Enter') {
      const hit = this.found()[this.chosen()];
      if (hit) this.go(hit);
    } else {
      this.chosen.set(0);
      return;
    }
    event.preventDefault();
  }

  protected go({ to, find }: Found): void {
    this.closed.emit();
    void this.router.navigate([...to], find === undefined ? {} : { queryParams: { find } });
  }
}
