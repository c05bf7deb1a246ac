import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import type { LabUnder } from '@vestigia/contract';
import type { Lab, LadderPlace } from '@vestigia/core';
import { LADDER_QUESTIONS, LADDER_WITHIN80, describeColour, ladderAxis, ladderRungs, pressRung } from '@vestigia/core';
import { Swatch } from './swatch';

const ASKS = {
  lightness: 'Hold the piece against the screen. Which is as light?',
  hue: 'Which leans the same way?',
  chroma: 'Which is as clear?',
} as const;

/** A piece held against swatches on the screen, bracketed in a few presses. */
@Component({
  selector: 'vs-eye-ladder',
  imports: [Swatch],
  template: `<p class="small soft">
      In daylight, the screen turned bright. An unmeasured screen is no reader: the truth lies within ΔE00
      {{ within }} four times in five.
    </p>
    @if (asks(); as question) {
      <p role="status">
        <strong>{{ question }}</strong> {{ place().question + 1 }} of {{ of }}
      </p>
      <div class="mounts rungs">
        @for (rung of rungs(); track $index) {
          <button type="button" (click)="press($index)">
            <vs-swatch [lab]="rung" [width]="7" [height]="100" [label]="'rung ' + ($index + 1)" />
          </button>
        }
      </div>
      @if (place().question > 0) {
        <button class="plain" type="button" (click)="again()">Begin anew</button>
      }
    } @else {
      <div class="mounts">
        <figure>
          <vs-swatch [lab]="found()" [width]="9" label="as the eye found it" />
          <figcaption>{{ label(found()) }}</figcaption>
        </figure>
      </div>
      <button class="act" type="button" (click)="taken.emit(place().middle)">Take this as the reading</button>
      <button class="plain" type="button" (click)="again()">Begin anew</button>
    }`,
  styles: `
    .rungs {
      gap: 0;
      padding: 1.5rem;
    }
    .rungs {
      flex-wrap: nowrap;
    }
    .rungs button {
      flex: 1 1 0;
      min-width: 0;
      border: 0;
      padding: 0;
      background: none;
      min-height: 44px;
      cursor: pointer;
    }
    .rungs button:focus-visible {
      outline: 3px solid var(--mount-ink);
      outline-offset: 2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EyeLadder {
  /** Where the ladder begins: what the piece was to be. */
  readonly start = input.required<LabUnder>();
  readonly taken = output<Lab>();
  protected readonly of = LADDER_QUESTIONS;
  protected readonly within = LADDER_WITHIN80;
  protected readonly label = describeColour;
  private readonly startKey = computed(() => JSON.stringify(this.start()));
  protected readonly place = linkedSignal<string, LadderPlace>({
    source: this.startKey,
    computation: (key) => ({ middle: JSON.parse(key) as Lab, question: 0 }),
  });
  protected readonly asks = computed(() => {
    const axis = ladderAxis(this.place());
    return axis && ASKS[axis];
  });
  private under(lab: Lab): LabUnder {
    const { illuminant, observer } = this.start();
    return { L: lab.L, a: lab.a, b: lab.b, illuminant, observer };
  }
  protected readonly rungs = computed(() => ladderRungs(this.place()).map((lab) => this.under(lab)));
  protected readonly found = computed(() => this.under(this.place().middle));

  protected press(rung: number): void {
    this.place.update((place) => pressRung(place, rung));
  }

  protected again(): void {
    this.place.set({ middle: this.start(), question: 0 });
  }
}
