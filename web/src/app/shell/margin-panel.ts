import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { figureText, inputText } from '../ui/figure-text';
import { Margin } from './margin';

@Component({
  selector: 'vs-margin',
  template: `
    @if (margin.working(); as open) {
      <section aria-live="polite">
        <h2>Working: {{ open.name }}</h2>
        <p class="sum">{{ value(open.figure) }}</p>
        <p class="formula">= {{ open.figure.working.formula }}</p>
        <dl>
          @for (input of open.figure.working.inputs; track $index) {
            <div>
              <dt>{{ input.name }}</dt>
              <dd>
                {{ inputValue(input) }}
                @if (input.source) {
                  <span class="soft small">{{ input.source }}</span>
                }
              </dd>
            </div>
          }
        </dl>
        @for (note of open.figure.working.notes; track $index) {
          <p class="small">· {{ note }}</p>
        }
      </section>
    }
    @for (note of margin.notes(); track $index) {
      <section>
        <h2>{{ note.title }}</h2>
        @for (line of note.lines; track $index) {
          <p class="small">{{ line }}</p>
        }
      </section>
    }
    @if (!margin.working() && margin.notes().length === 0) {
      <p class="soft small">Press any figure with a dotted line under it, and its working shows here.</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    h2 {
      margin: 0 0 0.4rem;
      font-size: 1rem;
    }
    section {
      border-top: 2px solid var(--ink);
      padding: 0.6rem 0 1rem;
    }
    .sum {
      font-size: 1.6rem;
      font-weight: 700;
      margin: 0;
    }
    .formula {
      margin: 0.1rem 0 0.6rem;
    }
    dl {
      margin: 0;
    }
    dl div {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0.25rem 0.75rem;
      border-bottom: 1px solid var(--line);
      padding: 0.3rem 0;
    }
    dt,
    dd {
      margin: 0;
    }
    dd {
      text-align: right;
      font-weight: 600;
    }
    dd span {
      display: block;
      font-weight: 400;
    }
    p {
      margin: 0.3rem 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarginPanel {
  protected readonly margin = inject(Margin);
  protected readonly value = figureText;
  protected readonly inputValue = inputText;
}
