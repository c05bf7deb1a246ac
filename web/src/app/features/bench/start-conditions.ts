import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, Tag } from '@vestigia/contract';
import type { PlannedStep, RunDetails, VesselUsed } from '@vestigia/core';
import { readTagCode } from '@vestigia/core';
import { firstValueFrom } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { BenchState } from './bench-state';
import { Said } from '../../ui/said';

/** Which pot and water a step is really begun in: scanned, typed or chosen. As planned where nothing is said. */
@Component({
  selector: 'vs-start-conditions',
  imports: [Said, FormsModule, MatFormFieldModule, MatInputModule],
  templateUrl: './start-conditions.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StartConditions {
  private readonly api = inject(ApiClient);
  protected readonly state = inject(BenchState);
  readonly lot = input.required<LotDetail>();
  readonly step = input.required<PlannedStep>();
  readonly changed = output<RunDetails['start']>();
  private readonly which = computed(() => `${this.lot().summary.id} ${this.step().index}`);
  protected readonly typed = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly answer = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly batches = computed(() => this.step().baths.map((b) => b.batches[0] ?? 1));
  protected readonly batch = linkedSignal({
    source: this.which,
    computation: () => untracked(this.batches)[0] ?? 1,
  });
  private readonly pots = linkedSignal<string, readonly VesselUsed[]>({ source: this.which, computation: () => [] });
  protected readonly waterId = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly potId = computed(() => this.pots().find((p) => p.batch === this.batch())?.vesselId ?? '');
  private readonly planned = computed(() => this.step().baths.find((b) => b.batches[0] === this.batch()));
  protected readonly busy = signal(false);

  protected scan(event?: Event): void {
    event?.preventDefault();
    const typed = this.typed().trim();
    if (typed !== '' && !this.busy()) void this.look(typed);
  }

  private async look(typed: string): Promise<void> {
    const named = this.state.around()?.vessels.find((v) => v.name.toLowerCase() === typed.toLowerCase());
    const code = readTagCode(typed);
    if (named) this.take(named.id, named.name);
    else if (!code.ok) this.answer.set(code.message);
    else {
      this.busy.set(true);
      const found = await firstValueFrom(this.api.get('/api/tags', { query: { code: typed } })).catch(
        (problem: ShownProblem) => problem.detail,
      );
      this.busy.set(false);
      if (typeof found === 'string') this.answer.set(found);
      else this.takeTag(found);
    }
  }

  private takeTag(tag: Tag): void {
    if (tag.kind === 'vessel' && tag.vesselId !== null) this.take(tag.vesselId, tag.title);
    else if (tag.kind === 'stockLot')
      this.answer.set($localize`${tag.title} is a jar, not a pot. Scan the tag on the pot.`);
    else
      this.answer.set(
        tag.lotId === this.lot().summary.id
          ? $localize`${tag.title}:title:: of this lot.`
          : $localize`That is ${tag.title}, another lot’s. Leave it, and scan the pot of ${this.lot().summary.tag}.`,
      );
  }

  private take(vesselId: string, name: string): void {
    const planned = this.planned();
    const right = this.step().baths.find((b) => b.vesselId === vesselId);
    this.answer.set(
      right
        ? $localize`${name}:name:: the right pot${this.batches().length > 1 ? $localize` for batch ${right.batches.join($localize` and `)}` : ''}.`
        : $localize`Wrong pot: ${planned?.vesselName ?? 'another'} was planned. Take that one, or begin in ${name}:name:: it is written down.`,
    );
    this.choosePot(right ? '' : vesselId);
  }

  protected choosePot(vesselId: string): void {
    const vessel = this.state.around()?.vessels.find((v) => v.id === vesselId);
    const batch = this.batch();
    this.pots.update((all) => [
      ...all.filter((p) => p.batch !== batch),
      ...(vessel && vessel.id !== this.planned()?.vesselId
        ? [{ batch, vesselId: vessel.id, vesselName: vessel.name }]
        : []),
    ]);
    this.say();
  }

  protected chooseWater(waterId: string): void {
    this.waterId.set(waterId);
    this.say();
  }

  private say(): void {
    const water = this.state.around()?.waters.find((w) => w.id === this.waterId());
    this.changed.emit({
      ...(this.pots().length > 0 ? { vessels: this.pots() } : {}),
      ...(water ? { water: { id: water.id, name: water.name } } : {}),
    });
  }
}
