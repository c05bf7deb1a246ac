import { ChangeDetectionStrategy, Component, inject, linkedSignal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { PRACTICE } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { settingsOf } from './settings';

/** House practice: the studio's own answer to each question good dyers differ on, with what each costs and gains. */
@Component({
  selector: 'vs-practice',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <vs-refusal [problem]="studio.problem()" />
    @if (studio.value(); as s) {
      <div class="head">
        <h1>House practice</h1>
        <div class="actions"><a class="act" routerLink="/studio">Back to the studio</a></div>
      </div>
      <p>
        Good dyers answer these differently. None is the right one; each says what it costs. A recipe may differ and
        says so; a version that was proven keeps the way it was proven.
      </p>
      <form (ngSubmit)="keep()">
        @for (q of questions; track q.key) {
          <fieldset>
            <legend>{{ q.question }}</legend>
            @for (c of q.choices; track c.key) {
              <label class="choice"
                ><input
                  type="radio"
                  [name]="q.key"
                  [value]="c.key"
                  [checked]="answers()[q.key] === c.key"
                  (change)="answer(q.key, c.key)"
                /><span
                  ><strong>{{ c.words }}</strong
                  ><br /><span class="soft">{{ c.costsAndGains }}</span></span
                ></label
              >
            }
            <label class="choice"
              ><input type="radio" [name]="q.key" [checked]="!answers()[q.key]" (change)="answer(q.key, '')" /><span
                >no house rule</span
              ></label
            >
          </fieldset>
        }
        <mat-form-field class="needs"
          ><mat-label>Proofs that make a version proven</mat-label
          ><input matInput type="number" min="1" name="needs" [(ngModel)]="needs"
        /></mat-form-field>
        <vs-refusal [problem]="action.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="action.busy()">Keep it as the house’s</button>
        </div>
      </form>
    }`,
  styles: `
    form {
      max-width: 62rem;
    }
    fieldset {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(18rem, 100%), 1fr));
      gap: 0.25rem 1.5rem;
    }
    .choice {
      display: flex;
      gap: 0.6rem;
      align-items: flex-start;
      min-height: 44px;
      padding: 0.3rem 0;
      cursor: pointer;
    }
    .choice input {
      width: 1.35rem;
      height: 1.35rem;
      accent-color: var(--act);
      flex: none;
      margin: 0.1rem 0 0;
    }
    .needs {
      max-width: 18rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PracticePage {
  private readonly api = inject(ApiClient);
  protected readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  protected readonly action = doing();
  protected readonly questions = PRACTICE;
  protected readonly answers = linkedSignal(() => ({ ...(this.studio.value()?.practice ?? {}) }));
  protected readonly needs = linkedSignal(() => this.studio.value()?.provenNeeds ?? 3);

  protected answer(key: string, choice: string): void {
    const { [key]: _before, ...others } = this.answers();
    this.answers.set(choice === '' ? others : { ...others, [key]: choice });
  }

  protected keep(): void {
    const s = this.studio.value();
    if (!s) return;
    this.action.run(
      this.api.put('/api/studio', { ...settingsOf(s), practice: this.answers(), provenNeeds: this.needs() }),
      () => this.studio.reload(),
    );
  }
}
