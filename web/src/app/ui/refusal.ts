import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { ShownProblem } from '../api/api-client';

/** What was refused and what to do, said where the hand is. */
@Component({
  selector: 'vs-refusal',
  template: `@if (problem(); as p) {
    <p class="refusal" role="alert">{{ p.detail }}</p>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RefusalNote {
  readonly problem = input<ShownProblem | undefined>(undefined);
}
