/** Rounds of the active set; small problems need a handful. */
const MOST_ROUNDS = 60;
const TINY = 1e-12;

/** Solves the square system of the chosen unknowns' normal equations by Gauss-Jordan with pivots; null where it is singular. */
function solveChosen(gram: Float64Array, right: Float64Array, n: number, on: readonly number[]): number[] | null {
  const m = on.length;
  const rows = on.map((i) => {
    const row = new Array<number>(m + 1);
    for (let k = 0; k < m; k++) row[k] = gram[i * n + on[k]!]!;
    row[m] = right[i]!;
    return row;
  });
  for (let c = 0; c < m; c++) {
    let pivot = c;
    for (let r = c + 1; r < m; r++) if (Math.abs(rows[r]![c]!) > Math.abs(rows[pivot]![c]!)) pivot = r;
    if (Math.abs(rows[pivot]![c]!) < TINY) return null;
    [rows[c], rows[pivot]] = [rows[pivot]!, rows[c]!];
    for (let r = 0; r < m; r++) {
      if (r === c) continue;
      const f = rows[r]![c]! / rows[c]![c]!;
      for (let k = c; k <= m; k++) rows[r]![k]! -= f * rows[c]![k]!;
    }
  }
  return rows.map((row, i) => row[m]! / row[i]!);
}

/**
 * Least squares with bounds: x that makes |A x - b| least with lo <= x <= hi, by an active set that frees one bound at a time
 * (Stark and Parker 1995, BVLS; Lawson and Hanson 1974 for lo = 0), on the normal equations.
 * @param columns of A, each as long as b. @param lo and @param hi a bound a column; lo < hi
 */
export function boundedLeastSquares(
  columns: readonly Float64Array[],
  b: Float64Array,
  lo: readonly number[],
  hi: readonly number[],
): number[] {
  const n = columns.length;
  // Everything below needs A'A and A'b only.
  const gram = new Float64Array(n * n);
  const onto = new Float64Array(n);
  let scale = TINY;
  for (let i = 0; i < n; i++) {
    const u = columns[i]!;
    for (let j = i; j < n; j++) {
      const v = columns[j]!;
      let sum = 0;
      for (let k = 0; k < u.length; k++) sum += u[k]! * v[k]!;
      gram[i * n + j] = gram[j * n + i] = sum;
    }
    let sum = 0;
    for (let k = 0; k < u.length; k++) sum += u[k]! * b[k]!;
    onto[i] = sum;
    scale = Math.max(scale, gram[i * n + i]!);
  }
  const x = lo.map((v, i) => (Number.isFinite(v) ? v : hi[i]!));
  /** -1 at the lower bound, 1 at the upper one, 0 free. */
  const at: (-1 | 0 | 1)[] = x.map((v, i) => (v === lo[i] ? -1 : 1));
  const right = new Float64Array(n);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    // The bound that would gain most by being left.
    let free = -1;
    let most = 1e-10 * scale;
    for (let i = 0; i < n; i++) {
      if (at[i] === 0) continue;
      let gradient = onto[i]!;
      for (let j = 0; j < n; j++) gradient -= gram[i * n + j]! * x[j]!;
      const gain = at[i] === -1 ? gradient : -gradient;
      if (gain > most) [free, most] = [i, gain];
    }
    if (free < 0) break;
    at[free] = 0;
    for (let inner = 0; inner < MOST_ROUNDS; inner++) {
      const on = at.flatMap((s, i) => (s === 0 ? [i] : []));
      if (!on.length) break;
      for (const i of on) {
        right[i] = onto[i]!;
        for (let j = 0; j < n; j++) if (at[j] !== 0) right[i] -= gram[i * n + j]! * x[j]!;
      }
      const z = solveChosen(gram, right, n, on);
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
