/** When a photograph’s camera says it was taken; its colours it says nothing true of. */
export async function readTakenAt(file: Blob): Promise<Date | undefined> {
  try {
    const { parse } = await import('exifr');
    const told = (await parse(file, ['DateTimeOriginal'])) as { DateTimeOriginal?: unknown } | undefined;
    return told?.DateTimeOriginal instanceof Date ? told.DateTimeOriginal : undefined;
  } catch {
    // Most pictures say nothing, and some say it wrongly.
    return undefined;
  }
}
