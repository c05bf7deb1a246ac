import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { RecipeVersionDetail } from '@vestigia/contract';
import type { ZoneLayout, RecipeStatus } from '@vestigia/core';
import type { BathMark } from '@vestigia/core';
import {
  trimZeros,
  bathMarks,
  sharedBaths,
  PRACTICE,
  STEP_PURPOSES,
  STRAIN_LABELS,
  ZONE_LABELS,
  followsLabel,
  layOutPlaced,
  practiceChoice,
  said,
  sayCourse,
  sayDose,
  sayMinutes,
  stepMinutes,
  sayPhBetween,
} from '@vestigia/core';
import { StudioCalendar } from '../../services/studio-calendar';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { ContextPanel } from '../../services/context-panel';
import { newId } from '../../api/new-id';
import { ColoursGiven } from '../../ui/colours-given';
import { FastnessKnown } from '../../ui/fastness-known';
import { Notes } from '../../ui/notes';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { PlacedPicture } from '../../ui/placed-picture';
import { Count } from '../../ui/count';
import { NumberField } from '../../ui/number-field';

import { RecipePrivacy } from './recipe-privacy';
import { May } from '../../ui/may';
import { DeedsOf } from '../../ui/deeds-of';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { Degrees } from '../../ui/degrees';
import { TermTip } from '../../ui/term-tip';
import { Kept } from '../../ui/kept';
import { Decimals } from '../../ui/decimals';
import { BathBrackets } from './bath-brackets';
import { PutAway } from '../../ui/put-away';
import { AtHand } from '../../ui/at-hand';
import { Said } from '../../ui/said';
import { LOT_STATE_LABELS } from '../../format/lot-states';

type Step = RecipeVersionDetail['body']['steps'][number];

/** One recipe version, to read. It never changes; a new version is written instead. */
@Component({
  selector: 'vs-recipe',
  imports: [
    Said,
    AtHand,
    PutAway,
    BathBrackets,
    Decimals,
    Kept,
    TermTip,
    Degrees,
    DraftOf,
    ActBar,
    ScrollRegion,
    DeedsOf,
    May,
    NumberField,
    ColoursGiven,
    FastnessKnown,
    Notes,
    Count,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    PlacedPicture,
    RecipePrivacy,
    RefusalNote,
    Swatch,
    When,
  ],
  templateUrl: './recipe.html',
  styleUrl: './recipe.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePage {
  protected readonly stateLabel = LOT_STATE_LABELS;
  /** What its template says by what holds. */
  protected readonly says = {
    noShorterThan: (minLiquorRatio: string | number): string => $localize`, no shorter than 1:${minLiquorRatio}`,
    or: $localize` or `,
    hardness: (hardnessDh: string | number): string => $localize`, ${hardnessDh} °dH`,
    attended: $localize`hands all the time`,
    waiting: $localize`waiting`,
    byEye: $localize`, done by the eye`,
    byClockAndEye: $localize`, done by clock and eye`,
    lookEvery: (lookEveryMin: string | number): string => $localize` · every ${lookEveryMin} min`,
    within: $localize`within`,
    outside: $localize`outside`,
  };

  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  private readonly baths = computed(() => sharedBaths(this.version.value()?.body.steps ?? []));
  protected readonly lanes = computed(() => Math.max(0, ...this.baths().map((b) => b.lane + 1)));
  protected readonly marksOf = (step: number): BathMark[] => bathMarks(this.baths(), step);
  protected readonly version = liveQuery(
    ['recipes', 'colourways', 'lots'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly action = pageAction();
  protected readonly proving = pageAction();
  protected readonly status = signal<RecipeStatus>('proof');
  protected readonly reason = signal('');
  protected readonly minutes = sayMinutes;
  protected readonly total = stepMinutes;
  protected readonly course = sayCourse;
  protected readonly purposes = STEP_PURPOSES;
  protected readonly doseLabel = sayDose;
  protected readonly earlier = computed(() => {
    const v = this.version.value();
    return v?.recipe.versions.filter((o) => o.number < v.number).at(-1);
  });
  protected readonly placedZones = computed(() => {
    const p = this.version.value()?.body.placed;
    return p ? layOutPlaced(p, 1).zones : [];
  });
  /** Begins at the shade the version promises, where it says one. */
  private readonly versionId = computed(() => this.version.value()?.id);
  protected readonly proof = linkedSignal({
    source: this.versionId,
    computation: () => this.newProof(),
  });

  private newProof() {
    const wanted = untracked(this.version.value)?.body.expectedShades[0];
    return {
      wofG: 20,
      L: null as number | null,
      a: null as number | null,
      b: null as number | null,
      wL: wanted?.L ?? null,
      wa: wanted?.a ?? null,
      wb: wanted?.b ?? null,
      tolerance: 2,
      note: '',
    };
  }

  protected readonly doses = computed(() =>
    (this.version.value()?.body.steps ?? []).flatMap((s) =>
      s.doses.map((d) => ({ name: this.nameOf(d.materialId), label: sayDose(d), where: $localize`in “${s.title}”` })),
    ),
  );

  constructor() {
    namesPage(() => {
      const v = this.version.value();
      return v && $localize`${v.recipe.name} · version ${v.number}`;
    });
    effect(() => {
      const v = this.version.value();
      this.contextPanel.notes.set(
        v
          ? [
              {
                title: $localize`History`,
                lines: v.recipeStatuses.map(
                  (s) =>
                    $localize`${this.calendar.formatDay(s.at)}:at:: ${said(s.status)}, said ${s.by.name}${s.reason ? `. ${s.reason}` : ''}`,
                ),
              },
            ]
          : [],
      );
    });
  }

  protected readonly eachOf = (z: ZoneLayout): string =>
    [z.mlPerPiece === null ? '' : `${z.mlPerPiece} ml`, z.gPerPiece ? `${z.gPerPiece} g` : '']
      .filter((w) => w !== '')
      .join(', ') || '–';

  protected howLabel(z: ZoneLayout): string {
    const points =
      z.pointsCm.length === 0
        ? ''
        : $localize`${z.pointsCm.length} of them${z.spacingCm ? $localize`, about every ${trimZeros(z.spacingCm, 1)} cm` : ''}`;
    return [ZONE_LABELS[z.way], points, z.materialId ? this.nameOf(z.materialId) : '']
      .filter((w) => w !== '')
      .join(', ');
  }

  protected nameOf(id: string): string {
    return this.version.value()?.materials.find((m) => m.id === id)?.name ?? '';
  }

  protected aside(v: RecipeVersionDetail, s: Step, index: number): string {
    const parts = s.parts.map((key) => v.body.parts.find((p) => p.key === key)?.name ?? key);
    return [
      [...s.fibres, ...parts].join(', '),
      followsLabel(v.body.steps, index),
      s.bath === '' ? '' : $localize`bath: ${s.bath}`,
      s.repeats > 1 && s.course.length === 0 ? $localize`${s.repeats} times` : '',
      s.strain ? STRAIN_LABELS[s.strain] : '',
      s.targetPh ? sayPhBetween(s.targetPh) : '',
      s.wait
        ? $localize`then waits ${sayMinutes(s.wait.minMinutes)}${s.wait.maxMinutes === null ? $localize` or longer` : $localize` to ${sayMinutes(s.wait.maxMinutes)}`}`
        : '',
    ]
      .filter((w) => w !== '')
      .join(' · ');
  }

  protected readonly schools = (v: RecipeVersionDetail): string =>
    PRACTICE.flatMap((q) => practiceChoice(q.key, v.body.practice[q.key])?.label ?? []).join(' · ');

  protected stand(): void {
    this.action.run(
      this.api.post(
        '/api/recipe-versions/{id}/standings',
        { id: newId(), status: this.status(), reason: this.reason() },
        this.id(),
      ),
      () => this.version.reload(),
    );
  }

  protected prove(): void {
    const p = this.proof();
    const lab = (L: number | null, a: number | null, b: number | null) => ({
      L: L as number,
      a: a as number,
      b: b as number,
    });
    const body = {
      id: newId(),
      wofG: p.wofG,
      illuminant: 'D65' as const,
      observer: '10' as const,
      lab: lab(p.L, p.a, p.b),
      wanted: lab(p.wL, p.wa, p.wb),
      toleranceDeltaE: p.tolerance,
      note: p.note,
    };
    this.proving.run(this.api.post('/api/recipe-versions/{id}/proofs', body, this.id()), () => this.version.reload());
  }
}
