import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { Door, StudioDocument } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { Session } from '../../api/session';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

/** The door: come in, or on the first run make the studio. */
@Component({
  selector: 'vs-door',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <main>
    <p class="product">Vestigia</p>
    @if (door(); as d) {
      @if (d.studio; as studio) {
        <h1>{{ studio.name }}</h1>
        @if (studio.signInNote) {
          <p class="note">{{ studio.signInNote }}</p>
        }
        <form (ngSubmit)="comeIn()">
          <fieldset>
            <legend>Who is here?</legend>
            @for (p of d.people; track p.id) {
              <label class="tick"
                ><input type="radio" name="person" [value]="p.id" [(ngModel)]="personId" /> {{ p.name }}</label
              >
            }
          </fieldset>
          <mat-form-field
            ><mat-label>Passphrase</mat-label
            ><input matInput type="password" name="passphrase" autocomplete="current-password" [(ngModel)]="passphrase"
          /></mat-form-field>
          <vs-refusal [problem]="action.problem()" />
          <div class="actions">
            <button class="act main" type="submit" [disabled]="action.busy() || !personId()">Come in</button>
          </div>
        </form>
      } @else {
        <h1>A studio begins</h1>
        <p>Nothing is kept here yet. Name the studio and its first person; pots, water, jars and recipes come after.</p>
        <form (ngSubmit)="open()">
          <div class="fields">
            <mat-form-field class="wide"
              ><mat-label>The studio’s name</mat-label><input matInput name="studio" [(ngModel)]="studioName" required
            /></mat-form-field>
            <mat-form-field class="wide"
              ><mat-label>Its time zone</mat-label><input matInput name="zone" [(ngModel)]="zone" required
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Your name</mat-label
              ><input matInput name="name" autocomplete="name" [(ngModel)]="name" required
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Your passphrase</mat-label
              ><input
                matInput
                type="password"
                name="new-passphrase"
                autocomplete="new-password"
                [(ngModel)]="passphrase"
                required
            /></mat-form-field>
          </div>
          <vs-refusal [problem]="action.problem()" />
          <div class="actions">
            <button class="act main" type="submit" [disabled]="action.busy()">Open the studio</button>
          </div>
        </form>
        <h2>Or move one here</h2>
        <p>
          A studio file that Vestigia wrote opens whole, with its history. Its passphrases do not travel: give each
          person’s anew in the file before opening it.
        </p>
        <input type="file" accept="application/json,.json" aria-label="Studio file" (change)="openFile($event)" />
      }
    } @else {
      <vs-refusal [problem]="action.problem()" />
    }
  </main>`,
  styles: `
    main {
      max-width: 34rem;
      margin: 0 auto;
      padding: 12vh 1.5rem 3rem;
    }
    .product {
      font-weight: 800;
      letter-spacing: 0.02em;
      border-bottom: 3px solid var(--ink);
      padding-bottom: 0.4rem;
      margin-bottom: 2.5rem;
    }
    .note {
      border: 2px dashed var(--line-strong);
      padding: 0.75rem 1rem;
    }
    input[type='file'] {
      font: inherit;
      min-height: 44px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoorPage {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  /** Where the person was going. */
  readonly to = input<string | undefined>(undefined);
  protected readonly action = doing();
  protected readonly door = signal<Door | undefined>(undefined);
  protected readonly personId = signal('');
  protected readonly passphrase = signal('');
  protected readonly studioName = signal('');
  protected readonly zone = signal(Intl.DateTimeFormat().resolvedOptions().timeZone);
  protected readonly name = signal('');
  private readonly firstId = computed(() => newId());

  constructor() {
    this.look();
  }

  private look(): void {
    this.action.run(this.session.look(), (door) => this.door.set(door));
  }

  protected comeIn(): void {
    this.action.run(
      this.api.post('/api/door/session', { personId: this.personId(), passphrase: this.passphrase() }),
      () => this.enter(),
    );
  }

  protected open(): void {
    const body = {
      name: this.studioName(),
      zone: this.zone(),
      person: { id: this.firstId(), name: this.name(), passphrase: this.passphrase() },
    };
    this.action.run(this.api.post('/api/door/studio', body), () => this.enter());
  }

  protected openFile(event: Event): void {
    const file = (event.target as HTMLInputElement).files?.[0];
    void file
      ?.text()
      .then((text) => this.action.run(this.api.post('/api/door/document', readJson(text)), () => this.look()));
  }

  private enter(): void {
    this.session
      .look()
      .subscribe(() => void this.router.navigateByUrl(this.to()?.startsWith('/') ? (this.to() ?? '/') : '/today'));
  }
}

/** What is not JSON goes to the server as it is: the contract refuses it in a plain sentence. */
function readJson(text: string): StudioDocument {
  try {
    return JSON.parse(text) as StudioDocument;
  } catch {
    return {} as StudioDocument;
  }
}
