import { describe, expect, it } from '@jest/globals';
import { createRandom } from '../numeric/random';
import { markOf, recorded } from '../testdata/known';
import { bestOrder, EXACT_UP_TO, orderCost, oversprayOn, worstOverspray, type BoothArea } from './order';
import { keptGaps, planTimeline, type TimeTask } from './timeline';

/*
 * Orders and clocks of booths by chance, as they were when they were recorded. A change that is not meant shows here; one that is meant is
 * recorded anew (`npm run unit -- -u known`) and told in CHANGELOG.md as one that changes figures.
 */
const booths = Array.from({ length: 12 }, (_, i) => {
  const random = createRandom(40 + i);
  const areas = Array.from({ length: 2 + (i % (EXACT_UP_TO + 3)) }, (_a, k): BoothArea => ({
    ...{
      id: `a${k}`,
      name: `a${k}`,
      x: 6 * random(),
      y: 3 * random(),
      areaM2: 0.2 + 2 * random(),
      first: random() < 0.2,
    },
  }));
  return { areas, air: { towards: 360 * random(), openMinutes: 4 + 10 * random(), minutesPerM2: 1 + random() } };
});

/** Tasks one on the other, with cups, windows that close and pot lives. */
function knownTasks(seed: number): TimeTask[] {
  const random = createRandom(seed);
  return Array.from({ length: 4 + (seed % 14) }, (_, i): TimeTask => {
    const below = i > 0 && random() < 0.8 ? Math.floor(random() * i) : null;
    const min = Math.floor(random() * 40);
    return {
      ...{ id: `t${i}`, coatId: i % 4 ? `c${i}` : null, areaId: i % 4 ? `a${i % 3}` : null },
      ...{ minutes: 3 + Math.floor(random() * 20), painter: random() < 0.85 },
      batch: random() < 0.7 ? `cup${Math.floor(random() * 3)}` : null,
      after:
        below === null ? [] : [{ id: `t${below}`, min, max: random() < 0.4 ? min + Math.floor(random() * 30) : null }],
    };
  });
}

describe('known booths', () => {
  it('are gone round in the order they were, at the same cost', () => {
    expect(
      booths.map(({ areas, air }) => {
        const order = bestOrder(areas, air);
        const worst = worstOverspray(order, air);
        const each = areas.flatMap((a) => areas.map((b) => oversprayOn(a, b, air)));
        return `${order.map((a) => a.id).join(' ')}: ${orderCost(order, air).toPrecision(5)}, ${markOf([worst, each])}`;
      }),
    ).toMatchSnapshot();
  });
  it('run by the clock they ran by', () => {
    const lines = Array.from({ length: 24 }, (_, i) => {
      const tasks = knownTasks(60 + i);
      const random = createRandom(i);
      const done = new Map(tasks.slice(0, i % 4).map((t, k) => [t.id, 20 * (k + 1)]));
      const batches = ['cup0', 'cup1', 'cup2'].map((id, k) => ({
        ...{
          id,
          name: `cup ${k}`,
          mixMinutes: 4 + k,
          potMinutes: random() < 0.7 ? 20 + Math.floor(60 * random()) : null,
        },
      }));
      const mixed = new Map(i % 3 ? [] : [['cup0', 5]]);
      const line = planTimeline({ tasks, batches, now: done.size * 20, done, mixed });
      return { tasks, line };
    });
    expect(
      lines.map(
        ({ tasks, line }) =>
          `${line.end.toPrecision(5)} min, ${line.conflicts.map((c) => `${c.kind} ${c.task}`).join(', ')}: ${markOf([line, keptGaps(tasks, line)])}`,
      ),
    ).toMatchSnapshot();
    expect(recorded(lines[2]!.line)).toMatchSnapshot();
  });
});
