import type { HttpErrorResponse } from '@angular/common/http';
import { HttpClient } from '@angular/common/http';
import { Injectable, inject, signal } from '@angular/core';
import type { Api, Problem } from '@vestigia/contract';
import type { Observable } from 'rxjs';
import { catchError, tap, throwError } from 'rxjs';
import type { z } from 'zod';
import { JustKept } from './just-kept';

type Calls = Api[keyof Api];
type CallOf<M, P> = Extract<Calls, { method: M; path: P }>;
type Paths<M> = Extract<Calls, { method: M }>['path'];
type ReplyOf<C> = C extends { reply: infer R extends z.ZodType } ? z.output<R> : never;
type BodyOf<C> = C extends { body: infer B extends z.ZodType } ? z.input<B> : undefined;

/** What goes wrong on the way, as a sentence for people. */
export type ShownProblem = Pick<Problem, 'detail'> & Partial<Problem>;

/**
 * Speaks to the server. Paths, bodies and replies are checked against the contract's table of calls when the
 * program is compiled; nothing of the contract's schemas is loaded into the browser.
 */
@Injectable({ providedIn: 'root' })
export class ApiClient {
  private readonly http = inject(HttpClient);
  private readonly justKept = inject(JustKept);
  /** The server no longer knows who is in: everything waits until somebody comes in again. */
  readonly sessionEnded = signal(false);

  get<P extends Paths<'get'>>(
    path: P,
    { id = '', query = {} }: { id?: string; query?: Record<string, string> } = {},
  ): Observable<ReplyOf<CallOf<'get', P>>> {
    return this.plainly(this.http.get<ReplyOf<CallOf<'get', P>>>(fill(path, id), { params: query }));
  }

  post<P extends Paths<'post'>>(
    path: P,
    body: BodyOf<CallOf<'post', P>>,
    id = '',
  ): Observable<ReplyOf<CallOf<'post', P>>> {
    const sent = this.plainly(this.http.post<ReplyOf<CallOf<'post', P>>>(fill(path, id), body)).pipe(
      tap(() => this.noteKept(body)),
    );
    // Whoever comes in, here or by the door, is known again.
    return path === '/api/auth/session' ? sent.pipe(tap(() => this.sessionEnded.set(false))) : sent;
  }

  /** Sends what a file is made of, and takes the file. */
  postForFile<P extends Paths<'post'>>(path: P, body: BodyOf<CallOf<'post', P>>): Observable<Blob> {
    return this.plainly(this.http.post(path, body, { responseType: 'blob' }));
  }

  put<P extends Paths<'put'>>(path: P, body: BodyOf<CallOf<'put', P>>, id = ''): Observable<ReplyOf<CallOf<'put', P>>> {
    return this.plainly(this.http.put<ReplyOf<CallOf<'put', P>>>(fill(path, id), body)).pipe(
      tap(() => this.justKept.note(id)),
    );
  }

  delete<P extends Paths<'delete'>>(path: P, id = ''): Observable<ReplyOf<CallOf<'delete', P>>> {
    return this.plainly(this.http.delete<ReplyOf<CallOf<'delete', P>>>(fill(path, id)));
  }

  /** Sends a file as it is. */
  upload<P extends Paths<'post'>>(
    path: P,
    file: Blob,
    type: string,
    { id = '', query = {} }: { id?: string; query?: Record<string, string> } = {},
  ): Observable<ReplyOf<CallOf<'post', P>>> {
    return this.plainly(
      this.http.post<ReplyOf<CallOf<'post', P>>>(fill(path, id), file, {
        params: query,
        headers: { 'content-type': type },
      }),
    );
  }

  /** What is to be kept comes with an id made by this page; what only asks has none. */
  private noteKept(body: unknown): void {
    const id = typeof body === 'object' && body !== null && 'id' in body ? body.id : undefined;
    if (typeof id === 'string') this.justKept.note(id);
  }

  private plainly<T>(asked: Observable<T>): Observable<T> {
    return asked.pipe(
      catchError((error: HttpErrorResponse) => {
        const problem = shownProblem(error);
        if (problem.code === 'notSignedIn') this.sessionEnded.set(true);
        return throwError(() => problem);
      }),
    );
  }
}

const fill = (path: string, id: string): string => path.replace('{id}', encodeURIComponent(id));

function shownProblem(error: HttpErrorResponse): ShownProblem {
  const problem = error.error as Problem | null;
  if (error.status > 0 && problem && typeof problem.detail === 'string') return problem;
  return {
    // A refusal without a sentence of ours: something on the way said no, and how is still worth knowing.
    ...(error.status > 0 ? { status: error.status } : {}),
    detail: $localize`The server can’t be reached. What you entered is still here; check that it is running, then do it again.`,
  };
}
