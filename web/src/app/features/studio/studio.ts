import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { WaterSource } from '@vestigia/contract';
import type { HardnessUnit } from '@vestigia/core';
import type { ShownIn } from '@vestigia/core';
import {
  figuresShownIn,
  SHOWN_AT_FIRST,
  HARDNESS_UNITS,
  HARDNESS_UNIT_LABELS,
  VOLUME_SYSTEMS,
  VOLUME_SYSTEM_LABELS,
  convertHardness,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { Meanwhile } from '../../ui/meanwhile';
import { RefusalNote } from '../../ui/refusal';
import { DeedsOf } from '../../ui/deeds-of';
import { May } from '../../ui/may';
import { Copies } from './copies';
import { People } from './people';
import type { Settings } from './settings';
import { settingsForm, settingsOf, writtenOver } from './settings';
import { Vessels } from './vessels';
import { NumberField } from '../../ui/number-field';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { Fold } from '../../ui/fold';
import { InDegrees } from '../../ui/degrees';
import { SHOWN_FIELDS, SHOWN_LABELS } from '../../format/shown-labels';
import { TermTip } from '../../ui/term-tip';
import { Kept } from '../../ui/kept';
import { Decimals } from '../../ui/decimals';

/** What this page shows of the settings, as it calls them. */
const SETTING_LABELS: Partial<Record<keyof Settings, string>> = {
  name: $localize`the studio’s name`,
  zone: $localize`time zone`,
  balanceName: $localize`the balance`,
  balanceResolutionG: $localize`steps of the balance, g`,
  balanceCapacityG: $localize`what the balance carries, g`,
  fineBalance: $localize`the fine balance`,
  volumeSystem: $localize`spoons and cups`,
  currency: 'currency',
  roomC: $localize`the room, °C`,
  coldWaterC: $localize`cold water, °C`,
  hotWaterC: $localize`hot water, °C`,
  liftLimitKg: $localize`one person lifts, kg`,
  energyMinorPerKwh: $localize`a kilowatt hour`,
  waterMinorPerM3: $localize`a cubic metre of water`,
  hourMinor: $localize`an hour of work`,
  signInNote: $localize`the note on the door`,
  shownIn: $localize`how figures are read`,
};

/** Hardness as it stands on the test strip or the bill, in whichever unit. */
type WaterDraft = Omit<WaterSource, 'version' | 'hardnessDh'> & {
  version?: number;
  hardness: number | null;
  unit: HardnessUnit;
};

/** The house: its people, pots, waters and balance, and the whole of it as one file. */
@Component({
  selector: 'vs-studio',
  imports: [
    Decimals,
    Kept,
    TermTip,
    Fold,
    InDegrees,
    DraftOf,
    ActBar,
    ScrollRegion,
    Copies,
    DeedsOf,
    May,
    NumberField,
    People,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    RefusalNote,
    Vessels,
  ],
  templateUrl: './studio.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudioPage {
  /** What its template says by what holds. */
  protected readonly says = {
    hardness: (dh: string | number, ppm: string | number): string => $localize`${dh} °dH, ${ppm} ppm`,
    iron: (ironMgPerL: string | number): string => $localize`${ironMgPerL} mg/l`,
    change: (name: string | number): string => $localize`Change ${name}`,
    room: $localize`The room`,
    coldWater: $localize`Cold water comes at`,
    hotWater: $localize`Hot water comes at`,
  };

  private readonly api = inject(ApiClient);
  protected readonly hardnessUnits = HARDNESS_UNITS;
  protected readonly hardnessLabel = HARDNESS_UNIT_LABELS;
  protected readonly ppm = (dh: number): number => Math.round(convertHardness(dh, 'dh', 'ppm'));
  protected readonly systems = VOLUME_SYSTEMS;
  protected readonly systemLabel = VOLUME_SYSTEM_LABELS;
  protected readonly newId = newId;
  protected readonly shownFields = SHOWN_FIELDS;
  protected readonly shownLabel = SHOWN_LABELS;
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly action = pageAction();
  protected readonly saving = pageAction();
  protected readonly water = signal<WaterDraft | undefined>(undefined);
  private readonly now = computed(() => {
    const s = this.studio.value();
    return s && settingsOf(s);
  });
  protected readonly opened = openedOn(() => this.now(), settingsForm(SETTING_LABELS));
  /** Written into as it is typed; what it stands on doesn't follow others while somebody writes. */
  protected readonly settings = linkedSignal((): Settings => {
    const opened = this.opened.value() ?? ({} as Settings);
    return {
      ...opened,
      fineBalance: opened.fineBalance && { ...opened.fineBalance },
      shownIn: { ...(opened.shownIn ?? SHOWN_AT_FIRST) },
    };
  });

  constructor() {
    readAnewWhenStale(this.saving, () => this.studio.reload());
    readAnewWhenStale(this.action, () => this.studio.reload());
  }

  protected readonly openedWater = openedOn(() => this.studio.value()?.waters.find((w) => w.id === this.water()?.id), {
    key: (w) => w.id,
    version: (w) => w.version,
    say: ({ name, ph, hardnessDh, ironMgPerL, note }) => ({
      name,
      pH: String(ph ?? ''),
      'hardness, °dH': String(hardnessDh ?? ''),
      'iron, mg/l': String(ironMgPerL ?? ''),
      note,
    }),
  });

  protected editWater({ hardnessDh, ...w }: WaterSource): void {
    this.water.set({ ...w, hardness: hardnessDh, unit: 'dh' });
    this.openedWater.take();
    this.openedWater.touch();
  }

  /** Somebody else saved the water meanwhile: theirs is opened anew, or one's own goes on. */
  protected choseWater(which: 'theirs' | 'mine'): void {
    const now = this.openedWater.value();
    if (which === 'theirs' && now) this.editWater(now);
    this.action.clear();
  }

  protected keepWater({ version, id, hardness, unit, ...rest }: WaterDraft): void {
    const d = { ...rest, hardnessDh: hardness === null ? null : convertHardness(Math.max(0, hardness), unit, 'dh') };
    const sent =
      version === undefined
        ? this.api.post('/api/waters', { id, ...d })
        : this.api.put('/api/waters/{id}', { ...d, version: this.openedWater.version() }, id);
    this.action.run(sent, () => {
      this.water.set(undefined);
      this.studio.reload();
    });
  }

  protected readonly NEW_FINE = { name: $localize`fine balance`, resolutionG: 0.01, capacityG: 200 };

  protected setFine(fine: Settings['fineBalance']): void {
    this.opened.touch();
    this.settings.update((s) => ({ ...s, fineBalance: fine && { ...fine } }));
  }

  protected readIn(key: keyof ShownIn, way: string): void {
    const { shownIn } = this.settings();
    this.settings.update((now) => ({ ...now, shownIn: { ...shownIn, [key]: way } }));
  }

  protected keepSettings(): void {
    const [now, opened] = [this.now(), this.opened.value()];
    if (!now || !opened) return;
    const sent = { ...writtenOver(now, opened, this.settings()), version: this.opened.version() };
    const isReadOtherwise = JSON.stringify(sent.shownIn) !== JSON.stringify(figuresShownIn());
    this.saving.run(this.api.put('/api/studio', sent), () => {
      // Every figure on every page is written out anew.
      if (isReadOtherwise) return location.reload();
      this.opened.take();
      this.studio.reload();
    });
  }
}
