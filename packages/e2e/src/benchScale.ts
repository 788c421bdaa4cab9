import fillData from './fillData';
import { booths, scale, SIZES } from './reliability/scale';

/** A long shop against a short one, a long log against a short one, fifty booths against one. Ends by itself. */
const PORT = 4921;
const remove = await fillData();
try {
  const { page, tap, plans } = await scale(PORT);
  console.log(
    `a page of the list with ${SIZES.jobs} jobs: ${page.many.toFixed(1)} ms, ${page.ratio.toFixed(2)} times that with ${SIZES.few} (wanted at most 2)`,
  );
  console.log(
    `a tap into a log of 5,000: ${tap.long.toFixed(1)} ms, ${tap.ratio.toFixed(2)} times that into one of 50 (wanted at most 1.5)`,
  );
  for (const plan of plans) console.log(`  ${plan}`);
  const b = await booths(PORT + 4);
  console.log(
    `${b.booths} booths for a minute: ${b.taps} taps, ${b.lost} lost, ${b.doubled} doubled; p95 ${b.p95.toFixed(1)} ms, ${b.ratio.toFixed(1)} times one booth’s median (wanted at most 10)`,
  );
} finally {
  remove();
}
