import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BathMark } from '@vestigia/core';

/** Beside a line of a chain: the liquors it shares with others, each as a bracket from the first line to the last. */
@Component({
  selector: 'vs-bath-brackets',
  template: `@for (lane of lanes(); track $index) {
      <span class="lane" [class]="lane?.part ?? ''" [title]="lane ? says.inOneLiquor(lane.bath.name) : ''"></span>
    }
    <span class="unseen">{{ said() }}</span>`,
  styles: `
    :host {
      display: flex;
      align-self: stretch;
    }
    .lane {
      position: relative;
      width: 0.9rem;
    }
    .lane::before,
    .lane::after {
      content: '';
      position: absolute;
      left: 0.3rem;
    }
    .lane::before {
      border-left: 3px solid var(--ink);
      top: -1px;
      bottom: -1px;
    }
    .past::before {
      border-left: 3px dotted var(--line-strong);
    }
    .first::before {
      top: 50%;
    }
    .last::before {
      bottom: 50%;
    }
    .first::after,
    .in::after,
    .last::after {
      top: 50%;
      width: 0.6rem;
      border-top: 3px solid var(--ink);
    }
    .lane:not(.first, .in, .past, .last)::before {
      display: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BathBrackets {
  /** What its template says by what holds. */
  protected readonly says = {
    inOneLiquor: (name: string | number): string => $localize`in one liquor: ${name}`,
  };

  readonly marks = input.required<readonly BathMark[]>();
  /** How many brackets stand beside each other at most, so that lines begin below each other. */
  readonly of = input.required<number>();
  protected readonly lanes = computed(() =>
    // The inmost stands next to the line.
    Array.from({ length: this.of() }, (_, i) => this.marks().find((m) => m.bath.lane === this.of() - 1 - i)),
  );
  protected readonly said = computed(() =>
    this.marks()
      .filter((m) => m.part !== 'past')
      .map(({ bath }) => $localize`In one liquor, ${bath.name}, with ${bath.steps.length - 1} more.`)
      .join(' '),
  );
}
