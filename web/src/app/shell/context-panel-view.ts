import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { figureText, inputText } from '../format/figure-text';
import { ContextPanel } from '../services/context-panel';

@Component({
  selector: 'vs-context-panel',
  template: `
    <div aria-live="polite">
      @if (contextPanel.working(); as open) {
        <section>
          <button
            i18n
            type="button"
            class="plain close"
            (click)="contextPanel.closeWorking()"
            aria-keyshortcuts="Escape"
          >
            Close <kbd>Esc</kbd>
          </button>
          <h2 i18n>Working: {{ open.name }}</h2>
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
    </div>
    @for (note of contextPanel.notes(); track $index) {
      <section>
        <h2>{{ note.title }}</h2>
        @for (line of note.lines; track $index) {
          <p class="small">{{ line }}</p>
        }
      </section>
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
