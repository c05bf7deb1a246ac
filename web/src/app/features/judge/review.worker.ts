import type { KnownStrength, Observation } from '@vestigia/core';
import { reviewRecord } from '@vestigia/core';

/** What is looked over: everything read, and the jars that are asked about. */
export interface ReviewAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  readonly stockLotIds: readonly string[];
}

/** Foretells each reading from the others off the page’s own thread. */
addEventListener('message', ({ data }: MessageEvent<ReviewAsk>) =>
  postMessage(reviewRecord(data.readings, data.strengths, data.stockLotIds) ?? null),
);
