import { bankIndex, nearestFinishes } from '@steady-gleam/core/bank';
import { D65_10 } from '@steady-gleam/core/colour';
import { importReadings, parseProductsCsv } from '@steady-gleam/core/formats';
import { answerCard, handFromCards, nominalTable, type LadderOf, type LadderTable } from '@steady-gleam/core/letdown';
import { coatsOfMix, SWATCH_ANGLE } from '@steady-gleam/core/looks';
import { fitStrength, nudge } from '@steady-gleam/core/matching';
import { findGround, mixCoat, prepareLibrary, type ColourKind } from '@steady-gleam/core/materials';
import { FIVE_ANGLES, prepareCoat } from '@steady-gleam/core/optics';
import { adviseCount, drawCount } from '@steady-gleam/core/practice';
import type { Compute } from './computeTypes';
import { lookAnswers } from './lookAnswers';
import { mapAnswers } from './mapAnswers';
import { searchAnswers } from './searchAnswers';

/** So many finishes are shown for a reading. */
const NEAREST = 20;

/** Everything the screens have computed; owns the library and what was kept of it. */
export function createCompute(): Compute {
  let shop = prepareLibrary();
  let bank = bankIndex([]);
  let tableKept: { key: string; table: LadderTable } | null = null;
  const library = () => shop;
  return {
    ...mapAnswers(library),
    ...searchAnswers(library),
    ...lookAnswers(library),
    setMaterials: (own) => {
      shop = prepareLibrary(own);
      tableKept = null;
    },
    setBank: (readings) => {
      bank = bankIndex(readings);
    },
    nearest: (asked, of) =>
      nearestFinishes(of === null ? bank : bankIndex(bank.readings.filter((r) => r.finishId === of)), asked, NEAREST),
    nudge: (mix, groundId, coats, target, card, weaker) =>
      nudge({
        weaker,
        model: shop.model(target),
        ground: shop.ground(findGround(groundId, shop.library.grounds)),
        recipe: coatsOfMix(shop, mix),
        coats,
        target,
        card,
        toners: shop.library.dyes,
      }),
    fitMix: (colours, filmUm, drawdown) => {
      const of = (kind: ColourKind) => colours.filter((c) => c.kind === kind);
      const mix = {
        flakes: of('flake').map((c) => ({ pigmentId: c.id, cover: c.strength })),
        dyes: of('dye').map((c) => ({ dyeId: c.id, depth: c.strength })),
        solids: of('solid').map((c) => ({ solidId: c.id, share: c.strength })),
        filmUm,
      };
      return fitStrength(
        shop.model(SWATCH_ANGLE),
        shop.ground(findGround(drawdown.groundId, shop.library.grounds)),
        prepareCoat(shop.film, mixCoat(mix, shop.library)),
        drawdown.coats,
        drawdown.lab,
      );
    },
    importReadings: (text, hints) => importReadings(text, hints),
    importProducts: (text) => parseProductsCsv(text),
    card: (on, ask, earlier) => {
      const believed = handFromCards(earlier);
      if (!on) return answerCard(null, { ...ask, believed });
      const angles = ask.target?.angles ?? FIVE_ANGLES;
      const key = JSON.stringify([on, angles.map((a) => [a.incidence, a.aspecular]), believed]);
      const of: LadderOf = {
        model: shop.model(angles),
        ground: shop.ground(findGround(on.groundId, shop.library.grounds)),
        recipe: coatsOfMix(shop, on.mix),
        viewing: D65_10,
      };
      // The next rung of the same card asks the film model for nothing new.
      if (tableKept?.key !== key) tableKept = { key, table: nominalTable(of, believed) };
      return answerCard(of, { ...ask, believed }, tableKept.table);
    },
    practiceCard: (seed) => drawCount(shop, seed),
    practiceAdvice: (round, seen) => adviseCount(shop, round, seen),
  };
}
