import { v7 } from 'uuid';

/** Ids are made here, so that sending the same thing twice after a lost connection does it once. */
export const newId = (): string => v7();
