import { Injectable, inject } from '@angular/core';
import { DRAFTS } from '../api/forget-drafts';
import { Session } from '../api/session';

/** What somebody began to write and didn't keep yet: field by field, and when. */
export interface Draft {
  readonly at: string;
  readonly fields: Readonly<Record<string, unknown>>;
}

/** A form nobody came back to in this time is not waited for any longer. */
const KEPT_DAYS = 30;

/** Forms half-written, kept in the tablet for whoever wrote them, until they are kept in the studio or thrown away. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly session = inject(Session);

  read(form: string): Draft | undefined {
    const text = localStorage.getItem(this.keyOf(form));
    if (text === null) return undefined;
    const draft = JSON.parse(text) as Draft;
    if (Date.now() - Date.parse(draft.at) < KEPT_DAYS * 86_400_000) return draft;
    this.drop(form);
    return undefined;
  }

  keep(form: string, fields: Draft['fields']): void {
    if (Object.keys(fields).length === 0) return this.drop(form);
    const draft: Draft = { at: new Date().toISOString(), fields };
    localStorage.setItem(this.keyOf(form), JSON.stringify(draft));
  }

  drop(form: string): void {
    localStorage.removeItem(this.keyOf(form));
  }

  /** How many forms whoever is in has begun here. */
  count(): number {
    return Object.keys(localStorage).filter((k) => k.startsWith(this.keyOf(''))).length;
  }

  private keyOf(form: string): string {
    return `${DRAFTS}${this.session.person()?.id ?? ''} ${form}`;
  }
}
