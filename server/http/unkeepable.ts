/** A NUL, or half of a sign: no database keeps them, and nobody types them. */
const UNKEEPABLE = /\0|\p{Surrogate}/u;

/**
 * Where in something that was sent a sign is that can’t be kept, like `steps.0.title`; `undefined`: nowhere. However deep
 * it goes, since whoever sends it decides that.
 */
export function unkeepableIn(sent: unknown): string | undefined {
  const left: { readonly value: unknown; readonly path: string }[] = [{ value: sent, path: '' }];
  for (let next = left.pop(); next; next = left.pop()) {
    const { value, path } = next;
    if (typeof value === 'string' && UNKEEPABLE.test(value)) return path;
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, own] of Object.entries(value)) {
      if (UNKEEPABLE.test(key)) return path;
      // The path of what lies deeper than any field is of no use to anybody.
      left.push({ value: own, path: path.length > 200 ? path : path === '' ? key : `${path}.${key}` });
    }
  }
  return undefined;
}
