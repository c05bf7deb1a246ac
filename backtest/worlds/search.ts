/** Nelder and Mead’s simplex: the lowest place found about a start, with what it is worth there. */
export function lowest(
  start: readonly number[],
  size: number,
  worth: (x: readonly number[]) => number,
  steps = 60 * start.length,
): { readonly at: readonly number[]; readonly value: number } {
  const n = start.length;
  let points = Array.from({ length: n + 1 }, (_, i) => {
    const at = start.map((v, k) => v + (k === i - 1 ? size : 0));
    return { at, value: worth(at) };
  });
  for (let step = 0; step < steps; step += 1) {
    points = points.sort((x, y) => x.value - y.value);
    const [best, worst] = [points[0], points[n]];
    if (!best || !worst || worst.value - best.value < 1e-4) break;
    const centre = start.map((_, k) => points.slice(0, n).reduce((sum, p) => sum + (p.at[k] ?? 0), 0) / n);
    const along = (by: number) => {
      const at = centre.map((c, k) => c + by * ((worst.at[k] ?? 0) - c));
      return { at, value: worth(at) };
    };
    const mirrored = along(-1);
    const second = points[n - 1]?.value ?? worst.value;
    if (mirrored.value < best.value) {
      const further = along(-2);
      points[n] = further.value < mirrored.value ? further : mirrored;
    } else if (mirrored.value < second) points[n] = mirrored;
    else {
      const inside = along(mirrored.value < worst.value ? -0.5 : 0.5);
      if (inside.value < worst.value) points[n] = inside;
      else
        points = points.map((p) => {
          const at = p.at.map((v, k) => ((best.at[k] ?? 0) + v) / 2);
          return p === best ? p : { at, value: worth(at) };
        });
    }
  }
  const [best] = points.sort((x, y) => x.value - y.value);
  return best ?? { at: start, value: worth(start) };
}
