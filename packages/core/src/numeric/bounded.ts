/** Rounds of the active set; small problems need a handful. */
const MOST_ROUNDS = 60;
const TINY = 1e-12;

/** Solves the square system of the chosen columns' normal equations by Gauss-Jordan with pivots; null where it is singular. */
function solveNormal(rows: readonly Float64Array[], target: Float64Array, on: readonly number[]): number[] | null {
  const n = on.length;
  const m = on.map((i) => {
    const line = on.map((j) => rows[i]!.reduce((s, v, k) => s + v * rows[j]![k]!, 0));
    line.push(rows[i]!.reduce((s, v, k) => s + v * target[k]!, 0));
    return line;
  });
  for (let c = 0; c < n; c++) {
    const pivot = m.reduce((best, row, r) => (r >= c && Math.abs(row[c]!) > Math.abs(m[best]![c]!) ? r : best), c);
    if (Math.abs(m[pivot]![c]!) < TINY) return null;
    [m[c], m[pivot]] = [m[pivot]!, m[c]!];
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const f = m[r]![c]! / m[c]![c]!;
      for (let k = c; k <= n; k++) m[r]![k]! -= f * m[c]![k]!;
    }
  }
  return m.map((row, i) => row[n]! / row[i]!);
}

/**
 * Least squares with bounds: x that makes |A x - b| least with lo <= x <= hi, by an active set that frees one bound at a time
 * (Stark and Parker 1995, BVLS; Lawson and Hanson 1974 for lo = 0).
 * @param columns of A, each as long as b. @param lo and @param hi a bound a column; lo < hi
 */
export function boundedLeastSquares(
  columns: readonly Float64Array[],
  b: Float64Array,
  lo: readonly number[],
  hi: readonly number[],
): number[] {
  const n = columns.length;
  const x = lo.map((v, i) => (Number.isFinite(v) ? v : hi[i]!));
  /** -1 at the lower bound, 1 at the upper one, 0 free. */
  const at: (-1 | 0 | 1)[] = x.map((v, i) => (v === lo[i] ? -1 : 1));
  const residual = () => b.map((v, k) => v - columns.reduce((s, c, i) => s + c[k]! * x[i]!, 0));
  const scale = Math.max(TINY, ...columns.map((c) => c.reduce((s, v) => s + v * v, 0)));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const r = residual();
    const gradient = columns.map((c) => c.reduce((s, v, k) => s + v * r[k]!, 0));
    // The bound that would gain most by being left.
    let free = -1;
    for (let i = 0; i < n; i++) {
      const gain = at[i] === -1 ? gradient[i]! : at[i] === 1 ? -gradient[i]! : 0;
      if (gain > 1e-10 * scale && (free < 0 || gain > Math.abs(gradient[free]!))) free = i;
    }
    if (free < 0) break;
    at[free] = 0;
    for (let inner = 0; inner < MOST_ROUNDS; inner++) {
      const on = at.flatMap((s, i) => (s === 0 ? [i] : []));
      if (!on.length) break;
      const fixed = b.map((v, k) => v - columns.reduce((s, c, i) => (at[i] === 0 ? s : s + c[k]! * x[i]!), 0));
      const z = solveNormal(columns, fixed, on);
      if (!z) {
        // Columns that say the same: the one just freed goes back.
        at[free] = x[free]! <= lo[free]! ? -1 : 1;
        break;
      }
      // As far towards it as the bounds allow.
      let step = 1;
      let hits = -1;
      on.forEach((i, k) => {
        const [from, to] = [x[i]!, z[k]!];
        const limit = to < lo[i]! ? lo[i]! : to > hi[i]! ? hi[i]! : null;
        if (limit === null) return;
        const s = Math.abs(to - from) < TINY ? 0 : (limit - from) / (to - from);
        if (s < step) [step, hits] = [Math.max(0, s), i];
      });
      on.forEach((i, k) => (x[i] = x[i]! + step * (z[k]! - x[i]!)));
      if (hits < 0) break;
      const up = z[on.indexOf(hits)]! > hi[hits]!;
      x[hits] = up ? hi[hits]! : lo[hits]!;
      at[hits] = up ? 1 : -1;
    }
  }
  return x;
}
