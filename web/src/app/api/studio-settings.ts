import { Injectable, inject } from '@angular/core';
import type { AmountOptions } from '@vestigia/core';
import { ApiClient } from './api-client';
import { liveQuery } from './live-query';

/** The studio's settings, for reading what people write as they mean it here. */
@Injectable()
export class StudioSettings {
  private readonly api = inject(ApiClient);
  readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));

  measuring(bulkDensityGPerMl: number | null | undefined): AmountOptions {
    const system = this.studio.value()?.volumeSystem;
    return { ...(system ? { system } : {}), ...(bulkDensityGPerMl ? { bulkDensityGPerMl } : {}) };
  }
}
