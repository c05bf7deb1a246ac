import { decimals } from '@vestigia/core';

/** How much room a file takes, as people say it. @param bytes 0 and more */
export const sizeOf = (bytes: number): string =>
  bytes >= 1_000_000_000
    ? `${decimals(bytes / 1_000_000_000, 1)} GB`
    : bytes >= 1_000_000
      ? `${decimals(bytes / 1_000_000, bytes < 10_000_000 ? 1 : 0)} MB`
      : `${Math.max(1, Math.round(bytes / 1000))} kB`;
