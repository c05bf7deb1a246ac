import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { StoresNav } from './stores-nav';

/** Begins a walk along the shelf, place by place, or goes on with one. */
@Component({
  selector: 'vs-count',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, StoresNav, When],
  template: ` <div class="head"><h1>Count the shelf</h1></div>
    <vs-stores-nav />
    <p>A place at a time. Every figure is kept as you go; differences are listed before anything is booked.</p>
    <form (ngSubmit)="start()">
      <div class="fields">
        <mat-form-field
          ><mat-label>Place</mat-label
          ><select matNativeControl name="place" [(ngModel)]="place">
            <option value="">the whole studio</option>
            @for (p of places(); track p.place) {
              <option [value]="p.place">{{ p.place }} · {{ p.jars }} jars</option>
            }
          </select></mat-form-field
        >
      </div>
      <label class="tick"
        ><input type="checkbox" name="blind" [(ngModel)]="blind" /> blind: what the screen expects stays hidden until it
        is weighed</label
      >
      <vs-refusal [problem]="action.problem()" />
      <div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Begin</button></div>
    </form>
    @if (walks.value(); as open) {
      @if (open.length > 0) {
        <h2>Begun and not booked</h2>
        <table class="ledger">
          <tbody>
            @for (w of open; track w.id) {
              <tr>
                <td>
                  <a [routerLink]="['/stores/count', w.id]"
                    ><strong>{{ w.place || 'the whole studio' }}</strong></a
                  >
                </td>
                <td>{{ w.counted }} counted{{ w.blind ? ', blind' : '' }}</td>
                <td class="small">{{ w.startedAt | when: 'moment' }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CountPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  protected readonly walks = live(['stores'], () => this.api.get('/api/count-walks'));
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly place = signal('');
  protected readonly blind = signal(true);
  protected readonly places = computed(() => {
    const jars = new Map<string, number>();
    for (const row of this.shelf.value() ?? [])
      if (row.onHand > 0 && row.place !== '') jars.set(row.place, (jars.get(row.place) ?? 0) + 1);
    return [...jars].map(([place, n]) => ({ place, jars: n })).sort((a, b) => a.place.localeCompare(b.place));
  });

  protected start(): void {
    const id = newId();
    this.action.run(
      this.api.post('/api/count-walks', { id, place: this.place(), blind: this.blind() }),
      () => void this.router.navigate(['/stores/count', id]),
    );
  }
}
