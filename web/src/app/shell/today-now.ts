import { Injectable, inject } from '@angular/core';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';

/** What is in work now, read once for everything in the shell that shows or watches it. */
@Injectable()
export class TodayNow {
  private readonly api = inject(ApiClient);
  readonly today = liveQuery(['lots'], () => this.api.get('/api/today'));
}
