import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { LabUnder } from '@vestigia/contract';
import type { Lab, LadderPlace, PaperRungs } from '@vestigia/core';
import {
  LADDER_QUESTIONS,
  LADDER_WITHIN80,
  PAPER_MIDDLE,
  PAPER_RUNGS,
  PAPER_STRIPS,
  PAPER_WITHIN80,
  describeColour,
  isPaperEnd,
  ladderAxis,
  ladderRungs,
  pressRung,
  readPaperLadder,
} from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { pageAction } from '../api/page-action';
import { saveFile } from '../api/save-file';
import { RefusalNote } from './refusal';
import { Swatch } from './swatch';
import { LabFigures } from './lab-figures';

const ASKS = {
  lightness: $localize`Hold the piece against the screen. Which is as light?`,
  hue: $localize`Which leans the same way?`,
  chroma: $localize`Which is as clear?`,
} as const;
const ON_PAPER = {
  lightness: $localize`As light as`,
  hue: $localize`Leaning as`,
  chroma: $localize`As clear as`,
} as const;
const MIDDLE: PaperRungs = { lightness: PAPER_MIDDLE, hue: PAPER_MIDDLE, chroma: PAPER_MIDDLE };

/** What an eye found, and how sure that is. */
export interface LadderFound {
  readonly lab: Lab;
  readonly within80: number;
}

/** A piece held against swatches on the screen, bracketed in a few presses. */
@Component({
  selector: 'vs-eye-ladder',
  imports: [LabFigures, FormsModule, RefusalNote, Swatch],
  template: `<p i18n class="small soft">
      In daylight, the screen turned bright. An unmeasured screen is no reader: the truth lies within ΔE00
      {{ within }} four times in five.
    </p>
    <label class="tick"
      ><input type="checkbox" name="onPaper" [(ngModel)]="isOnPaper" [ngModelOptions]="{ standalone: true }" />
      <ng-container i18n>On a printed ladder instead</ng-container></label
    >
    @if (isOnPaper()) {
      <p i18n class="small">
        Hold the piece along each strip of the sheet printed about {{ start() | lab }}: which number lies nearest?
      </p>
      <vs-refusal [problem]="printing.problem()" />
      <button i18n class="act" type="button" [disabled]="printing.busy()" (click)="print()">Print that sheet</button>
      @for (axis of strips; track axis) {
        <div class="paper" role="group" [attr.aria-label]="onPaper[axis]">
          <span>{{ onPaper[axis] }}</span>
          @for (n of numbers; track n) {
            <button class="plain" type="button" [attr.aria-pressed]="chosen()[axis] === n" (click)="choose(axis, n)">
              {{ n }}
            </button>
          }
        </div>
      }
      @if (paperFound(); as f) {
        <div class="mounts">
          <figure>
            <vs-swatch [lab]="f" [width]="9" label="as the eye found it" i18n-label />
            <figcaption i18n>{{ label(f) }}; within ΔE00 {{ paperWithin }} four times in five</figcaption>
          </figure>
        </div>
        @if (isEnd()) {
          <p i18n>
            That is the end of a strip: the piece may lie beyond. Print a sheet about what was found, or press on.
          </p>
          <button i18n class="plain" type="button" (click)="print(f)">Print a sheet about what was found</button>
        }
        <button i18n class="act" type="button" (click)="taken.emit({ lab: f, within80: paperWithin })">
          Take this as the reading
        </button>
      }
    } @else if (asks(); as question) {
      <p i18n role="status">
        <strong>{{ question }}</strong> {{ place().question + 1 }} of {{ of }}
      </p>
      <div class="mounts rungs">
        @for (rung of rungs(); track $index) {
          <button type="button" (click)="press($index)">
            <vs-swatch [lab]="rung" [width]="7" [height]="100" [label]="says.rung($index + 1)" />
          </button>
        }
      </div>
      @if (place().question > 0) {
        <button i18n class="plain" type="button" (click)="again()">Begin anew</button>
      }
    } @else {
      <div class="mounts">
        <figure>
          <vs-swatch [lab]="found()" [width]="9" label="as the eye found it" i18n-label />
          <figcaption>{{ label(found()) }}</figcaption>
        </figure>
      </div>
      <button i18n class="act" type="button" (click)="taken.emit({ lab: place().middle, within80: within })">
        Take this as the reading
      </button>
      <button i18n class="plain" type="button" (click)="again()">Begin anew</button>
    }`,
  styles: `
    .paper {
      display: grid;
      grid-template-columns: repeat(9, minmax(0, 3rem));
      align-items: center;
      margin-bottom: 0.5rem;
    }
    .paper span {
      grid-column: 1 / -1;
    }
    .paper button {
      min-height: 44px;
      border: 1px solid var(--line);
      text-decoration: none;
      padding: 0;
    }
    .paper button[aria-pressed='true'] {
      background: var(--act);
      color: var(--act-ink);
    }
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
  /** What its template says by what holds. */
  protected readonly says = {
    rung: (value: string | number): string => $localize`rung ${value}`,
  };

  /** Where the ladder begins: what the piece was to be. */
  readonly start = input.required<LabUnder>();
  readonly taken = output<LadderFound>();
  private readonly api = inject(ApiClient);
  protected readonly isOnPaper = signal(false);
  protected readonly strips = PAPER_STRIPS;
  protected readonly onPaper = ON_PAPER;
  protected readonly numbers = Array.from({ length: PAPER_RUNGS }, (_, i) => i + 1);
  protected readonly paperWithin = PAPER_WITHIN80;
  protected readonly printing = pageAction();
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

  protected readonly chosen = linkedSignal<string, Partial<PaperRungs>>({
    source: this.startKey,
    computation: () => ({}),
  });
  private readonly allChosen = computed((): PaperRungs | undefined => {
    const { lightness, hue, chroma } = this.chosen();
    return lightness && hue && chroma ? { lightness, hue, chroma } : undefined;
  });
  protected readonly paperFound = computed(() => {
    const rungs = this.allChosen();
    return rungs && this.under(readPaperLadder(this.start(), rungs));
  });
  protected readonly isEnd = computed(() => isPaperEnd(this.allChosen() ?? MIDDLE));

  protected choose(axis: keyof PaperRungs, rung: number): void {
    this.chosen.update((chosen) => ({ ...chosen, [axis]: rung }));
  }

  protected print(about: LabUnder = this.start()): void {
    const { L, a, b, illuminant, observer } = about;
    const round = (value: number): number => Math.round(value * 100) / 100;
    const lab = { L: round(L), a: round(a), b: round(b), illuminant, observer };
    this.printing.run(this.api.postForFile('/api/ladder.pdf', { title: describeColour(lab), lab }), (file) =>
      saveFile(file, 'ladder.pdf'),
    );
  }

  protected press(rung: number): void {
    this.place.update((place) => pressRung(place, rung));
  }

  protected again(): void {
    this.place.set({ middle: this.start(), question: 0 });
  }
}
