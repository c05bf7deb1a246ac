import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { PRACTICE, JUDGE_RULE_LABELS, JUDGE_RULES } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { Meanwhile } from '../../ui/meanwhile';
import { RefusalNote } from '../../ui/refusal';
import { settingsForm, settingsOf, writtenOver } from './settings';
import { NumberField } from '../../ui/number-field';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';

/** House practice: the studio's own answer to each question good dyers differ on, with what each costs and gains. */
@Component({
  selector: 'vs-practice',
  imports: [
    DraftOf,
    ActBar,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    RefusalNote,
  ],
  templateUrl: './practice.html',
  styleUrl: './practice.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PracticePage {
  private readonly api = inject(ApiClient);
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly action = pageAction();
  protected readonly questions = PRACTICE;
  private readonly now = computed(() => {
    const s = this.studio.value();
    return s && settingsOf(s);
  });
  protected readonly opened = openedOn(
    () => this.now(),
    settingsForm({
      practice: $localize`house practice`,
      provenNeeds: $localize`proofs needed`,
      judgeRule: $localize`a lot may be passed`,
    }),
  );
  protected readonly answers = linkedSignal(() => ({ ...(this.opened.value()?.practice ?? {}) }));
  protected readonly needs = linkedSignal(() => this.opened.value()?.provenNeeds ?? 3);
  protected readonly rules = JUDGE_RULES;
  protected readonly ruleLabel = JUDGE_RULE_LABELS;
  protected readonly rule = linkedSignal(() => this.opened.value()?.judgeRule ?? 'eye');

  constructor() {
    readAnewWhenStale(this.action, () => this.studio.reload());
  }

  protected answer(key: string, choice: string): void {
    const { [key]: _before, ...others } = this.answers();
    this.answers.set(choice === '' ? others : { ...others, [key]: choice });
  }

  protected keep(): void {
    const [now, opened] = [this.now(), this.opened.value()];
    if (!now || !opened) return;
    const written = { practice: this.answers(), provenNeeds: this.needs(), judgeRule: this.rule() };
    const sent = { ...writtenOver(now, opened, written), version: this.opened.version() };
    this.action.run(this.api.put('/api/studio', sent), () => {
      this.opened.take();
      this.studio.reload();
    });
  }
}
