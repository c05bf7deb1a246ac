import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { Colourway, PersonRef, RecipePrivacy } from '@vestigia/contract';
import { said, DELTA_E_FORMULAS, DELTA_E_LABELS, describeColour, describeDifference, sayTaken } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { KeepTo } from '../../ui/keep-to';
import { LotLedger } from '../../ui/lot-ledger';
import { Meanwhile } from '../../ui/meanwhile';
import { Notes } from '../../ui/notes';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { ColourEntry } from '../../ui/colour-entry';
import { NumberField } from '../../ui/number-field';
import { Repeats } from './repeats';
import { DeedsOf } from '../../ui/deeds-of';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { May } from '../../ui/may';
import { PutAway } from '../../ui/put-away';
import { AtHand } from '../../ui/at-hand';
import { Decimals } from '../../ui/decimals';
import { LabFigures } from '../../ui/lab-figures';
import { Said } from '../../ui/said';

/** One colourway: the promise, and every lot that kept or broke it. */
@Component({
  selector: 'vs-colourway',
  imports: [
    Said,
    LabFigures,
    Decimals,
    AtHand,
    PutAway,
    May,
    Kept,
    DraftOf,
    ActBar,
    DeedsOf,
    ColourEntry,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    KeepTo,
    LotLedger,
    Meanwhile,
    Notes,
    RefusalNote,
    Repeats,
    Swatch,
    When,
  ],
  templateUrl: './colourway.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwayPage {
  /** What its template says by what holds. */
  protected readonly says = {
    setAnotherMaster: $localize`Set another master`,
    setTheMaster: $localize`Set the master`,
    reasonMissing: $localize`A new master takes a reason; the lots before keep the one they were dyed under.`,
    masterMissing: $localize`Choose the lot that came out as it should, or give the swatch as the colour reader has it.`,
    whyAnother: $localize`Why another`,
    note: $localize`Note`,
    now: $localize`now`,
    superseded: $localize`superseded`,
    asCameOut: (tag: string | number): string => $localize`as ${tag} came out. `,
  };

  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly action = pageAction();
  protected readonly keeping = pageAction();
  private readonly keepTo = viewChild(KeepTo);
  protected readonly page = liveQuery(
    ['colourways', 'lots'],
    () => this.api.get('/api/colourways/{id}', { id: this.id() }),
    () => this.id(),
  );
  private readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
  protected readonly versions = computed(() =>
    (this.recipes.value() ?? []).flatMap((r) =>
      r.versions
        .filter((v) => (v.status !== 'retired' && !r.putAway) || v.id === this.recipeVersionId())
        .map((v) => ({ id: v.id, label: $localize`${r.name}, version ${v.number} (${said(v.status)})` })),
    ),
  );
  /** What the form stands on: it doesn't follow others while somebody writes. */
  protected readonly opened = openedOn(() => this.page.value()?.colourway, {
    key: (c) => c.id,
    version: (c) => c.version,
    say: ({ recipe, toleranceDeltaE, formula, note }) => ({
      'judged by': DELTA_E_LABELS[formula],
      recipe: $localize`${recipe.name}, version ${recipe.number}`,
      tolerance: String(toleranceDeltaE),
      note,
    }),
  });
  protected readonly recipeVersionId = linkedSignal(() => this.opened.value()?.recipe.versionId ?? '');
  protected readonly formulas = DELTA_E_FORMULAS;
  protected readonly formulaLabel = DELTA_E_LABELS;
  protected readonly formula = linkedSignal(() => this.opened.value()?.formula ?? 'de00');
  protected readonly tolerance = linkedSignal(() => this.opened.value()?.toleranceDeltaE ?? 2);
  protected readonly note = linkedSignal(() => this.opened.value()?.note ?? '');
  protected readonly label = describeColour;

  protected readonly names = (people: readonly PersonRef[]): string => people.map((p) => p.name).join(', ');

  /** The latest read lots, in words beside the master. */
  protected readonly lately = computed(() => {
    const p = this.page.value();
    return (p?.lots ?? [])
      .flatMap((lot) =>
        lot.result && p
          ? [
              {
                lot,
                lab: lot.result,
                label: p.colourway.master
                  ? describeDifference(p.colourway.master, lot.result).summary
                  : describeColour(lot.result),
              },
            ]
          : [],
      )
      .slice(0, 3);
  });

  /** Lots that came out in a colour that could be the master. */
  protected readonly coloured = computed(() => (this.page.value()?.lots ?? []).filter((l) => l.result !== null));
  protected readonly fromLot = signal('');
  /** Dyed from now on as that lot really was. */
  protected readonly asDone = signal(false);
  private readonly entry = viewChild(ColourEntry);
  protected readonly sayTaken = sayTaken;
  /** Light and observer of a given swatch: the master’s, or daylight. */
  protected readonly under = computed(
    () => this.page.value()?.colourway.master ?? { illuminant: 'D65' as const, observer: '10' as const },
  );
  protected readonly why = signal('');
  protected readonly naming = pageAction();

  /** What another colourway begins with: all but the name. A master under another light would have to be read anew. */
  protected likeIt({ recipe, base, master, toleranceDeltaE }: Colourway): Record<string, string> {
    const { L, a, b, illuminant, observer } = master ?? {};
    return {
      version: recipe.versionId,
      base: base.id,
      within: String(toleranceDeltaE),
      ...(illuminant === 'D65' && observer === '10' ? { lab: `${L} ${a} ${b}` } : {}),
    };
  }

  constructor() {
    namesPage(() => this.page.value()?.colourway.name);
    readAnewWhenStale(this.action, () => this.page.reload());
  }

  protected makeMaster(): void {
    const { illuminant, observer } = this.under();
    const [entry, lotId] = [this.entry(), this.fromLot() || null];
    const given = entry && !entry.isEmpty() ? entry.value() : null;
    this.naming.run(
      this.api.post(
        '/api/colourways/{id}/masters',
        {
          id: newId(),
          lab: given && { ...given.lab, illuminant, observer },
          taken: given?.taken ?? null,
          lotId,
          reason: this.why(),
          asDoneVersionId: lotId !== null && this.asDone() ? newId() : null,
        },
        this.id(),
      ),
      () => {
        this.entry()?.clear();
        this.fromLot.set('');
        this.why.set('');
        this.page.reload();
      },
    );
  }

  protected keep(privacy: RecipePrivacy): void {
    this.keeping.run(this.api.put('/api/colourways/{id}/kept-to', privacy, this.id()), () => {
      this.keepTo()?.close();
      this.page.reload();
    });
  }

  protected save(): void {
    const c = this.page.value()?.colourway;
    if (!c) return;
    this.action.run(
      this.api.put(
        '/api/colourways/{id}',
        {
          version: this.opened.version(),
          recipeVersionId: this.recipeVersionId(),
          toleranceDeltaE: this.tolerance(),
          formula: this.formula(),
          note: this.note(),
        },
        this.id(),
      ),
      () => {
        this.opened.take();
        this.page.reload();
      },
    );
  }
}
