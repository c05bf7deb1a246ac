import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { figureText, inputText } from '../format/figure-text';
import { ContextPanel } from '../services/context-panel';

@Component({
  selector: 'vs-context-panel',
  template: `
    @if (contextPanel.working(); as open) {
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
    @for (note of contextPanel.notes(); track $index) {
      <section>
        <h2>{{ note.title }}</h2>
        @for (line of note.lines; track $index) {
          <p class="small">{{ line }}</p>
        }
      </section>
    }
    @if (!contextPanel.working() && contextPanel.notes().length === 0) {
      <p class="soft small">Press any figure with a dotted line under it, and its working shows here.</p>
    }
  `,
  styleUrl: './context-panel-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ContextPanelView {
  protected readonly contextPanel = inject(ContextPanel);
  protected readonly value = figureText;
  protected readonly inputValue = inputText;
}
