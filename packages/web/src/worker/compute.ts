import { bankIndex, nearestFinishes } from '@steady-gleam/core/bank';
import { D65_10, flatSpectrum, de2000, type Lab } from '@steady-gleam/core/colour';
import { STYLES, thenLaid, withCount, type StackLayer } from '@steady-gleam/core/finishes';
import { importReadings, parseProductsCsv } from '@steady-gleam/core/formats';
import { answerCard, handFromCards, nominalTable, type LadderOf, type LadderTable } from '@steady-gleam/core/letdown';
import { formulate, paretoPourables, pourables, type FormulateInput } from '@steady-gleam/core/formulate';
import { layerLooks, opticalStack } from '@steady-gleam/core/looks';
import {
  fitStrength,
  computeMapRows,
  computeMovingRows,
  createSearch,
  lookUnder,
  nudge,
  packRows,
  paretoRecipes,
  rateExactly,
  recipeFigures,
  targetUnder,
  factorsToLabs,
  effectCoats,
  filmFactor,
  mapCounts,
  interpolateLabs,
  type RatedRecipe,
} from '@steady-gleam/core/matching';
import {
  findPigment,
  mixCoat,
  type ColourKind,
  type EffectMix,
  findCarrier,
  prepareLibrary,
  findGround,
  findMix,
} from '@steady-gleam/core/materials';
import {
  prepareCoat,
  flakeDepth,
  contrastRatio,
  sparkleIndex,
  evenTable,
  sampleGeometries,
  sampleTable,
  targetTable,
  FIVE_ANGLES,
  existingFinish,
  type Ground,
  type PreparedCoat,
} from '@steady-gleam/core/optics';
import {
  blendProfile,
  crestAndTrough,
  passChanges,
  passFilm,
  STRIPES_SEEN,
  suggestBlend,
  type BlendPlace,
  type PassSetup,
} from '@steady-gleam/core/spraying';
import { adviseCount, drawCount } from '@steady-gleam/core/practice';
import type { Mix, SampleLook, Compute, StripesLook } from './computeTypes';

/** So many mixes are made ready to be poured. */
const MOST_FOUND = 8;
/** So many finishes are shown for a reading. */
const NEAREST = 20;

/** Film at an edge against that on the flat; ours. */
const EDGE_FILM = 0.6;

/** A ladder goes to this many times the film meant: a doubled edge of an unsteady hand lies below it. */
const LADDER_TO = 3;
/** Draws of the hand behind a figure of stripes, the same for every set-up that is compared. */
const STRIPE_SEEDS = Array.from({ length: 15 }, (_, i) => 7 + i);
/** Distance of places where stripes are judged, cm. */
const DRAW_CM = 0.6;
/** Places of a stripe picture. */
const STRIPE_COLUMNS = 260;
const STRIPE_ROWS = 150;
/** Films of a practice panel that are looked at; colours run on between them. */
const PRACTICE_STEPS = 64;
/** Of the five angles: face is 15 degrees from the mirror, flop 110. */
const FACE = 0;
const FLOP = 4;
/** Shares of the effect film at which a blend is worked out; between them factors are interpolated. */
const BLEND_STEPS = Array.from({ length: 13 }, (_, i) => i / 12);

export function createCompute(): Compute {
  let shop = prepareLibrary();
  const stopped = new Set<number>();
  let bank = bankIndex([]);
  /** Ground, unit coat and spread of a stack's effect layers. */
  const effectOf = (layers: readonly StackLayer[], mixId: string) => {
    const first = layers.findIndex((l) => l.kind === 'effect' && l.materialId === mixId);
    const { ground } = opticalStack(shop, layers.slice(0, Math.max(0, first)));
    const layer = layers[first];
    return {
      ground,
      coat: shop.coat(findMix(mixId, shop.library.systems), layer?.strength ?? 1),
      spread: STYLES[layer?.style ?? 'wet'].spread,
    };
  };
  let tableKept: { key: string; table: LadderTable } | null = null;
  let ladderKept: { key: string; films: number[]; labs: Lab[][] } | null = null;
  /** Looks of a growing effect film over the stack's ground, at the five angles; the last one asked for is kept. */
  const ladderOf = (layers: readonly StackLayer[], mixId: string, most: number) => {
    const key = JSON.stringify([layers, mixId, Math.ceil(most)]);
    if (ladderKept?.key === key) return ladderKept;
    ladderKept = { key, ...effectLadder(effectOf(layers, mixId), Math.ceil(most)) };
    return ladderKept;
  };
  /** Looks of a growing effect film over a ground, at the five angles. */
  const effectLadder = ({ ground, coat, spread }: ReturnType<typeof effectOf>, most: number) => {
    const model = shop.model(FIVE_ANGLES);
    const films = Array.from({ length: 37 }, (_, i) => (most * i) / 36);
    const labs = films.map((n) =>
      factorsToLabs(
        model.over(
          ground,
          model.pile([...ground.coats, ...effectCoats({ coat, style: { ...STYLES.wet, film: 1, spread } }, n)]),
        ),
      ),
    );
    return { films, labs };
  };
  /**
   * Looks of a ground whose film is uneven, under the effect coats as they are planned: a metallic is laid thicker or thinner over
   * its solid, a solid lets what is below it through.
   */
  const groundLadderOf = (layers: readonly StackLayer[], mixId: string, coats: readonly number[], most: number) => {
    const { coats: all, ground } = opticalStack(shop, layers);
    const effects = all.slice(ground.coats.length);
    const below = opticalStack(
      shop,
      layers.slice(
        0,
        layers.findIndex((l) => l.kind === 'ground'),
      ),
    ).ground.albedo;
    const material = shop.library.grounds.find((g) => g.id === ground.id);
    const planned = coats.reduce((a, b) => a + b, 0);
    const model = shop.model(FIVE_ANGLES);
    const films = Array.from({ length: 25 }, (_, i) => (most * i) / 24);
    const labs = films.map((n) => {
      // A metallic looks as it was planned at its planned film, and thicker or thinner by its unevenness.
      const laid = material ? shop.groundOver(material, n, below) : ground;
      const flakes = ground.coats.map((c) => ({ ...c, factor: (c.factor * n) / Math.max(1e-6, planned) }));
      return factorsToLabs(model.over(laid, model.pile([...flakes, ...effects])));
    });
    return { films, labs };
  };
  /** Sparkle of the flakes of a mix in some coats, by those that cover most; null without flakes. */
  const grainOf = (system: EffectMix, coats: readonly PreparedCoat[]): SampleLook['grain'] => {
    if (!system.flakes.length) return null;
    const most = system.flakes.reduce((a, b) => (b.cover > a.cover ? b : a));
    const { sizeUm, tilt } = findPigment(most.pigmentId, shop.library.pigments);
    const depth = coats.reduce((sum, c) => sum + flakeDepth(c) * c.factor, 0);
    return { index: sparkleIndex(sizeUm, 1 - Math.exp(-depth), tilt), sizeUm };
  };
  const recipeOf = (mix: Mix) => ({
    coat: shop.coat(findMix(mix.mixId, shop.library.systems), mix.strength),
    style: STYLES[mix.style],
    controlCoats: mix.controlCoats,
    then: thenLaid(findMix(mix.mixId, shop.library.systems).family),
  });
  return {
    setBank: (readings) => {
      bank = bankIndex(readings);
    },
    nearest: (asked, of) =>
      nearestFinishes(of === null ? bank : bankIndex(bank.readings.filter((r) => r.finishId === of)), asked, NEAREST),
    setMaterials: (own) => {
      shop = prepareLibrary(own);
      ladderKept = null;
      tableKept = null;
    },
    pigmentLook: (pigmentId, cover) => {
      const model = shop.model(FIVE_ANGLES);
      const p = findPigment(pigmentId, shop.library.pigments);
      const coat = prepareCoat(shop.film, { flakes: { cover, tilt: p.tilt, edge: p.edge, optics: p.optics } });
      const over = (albedo: number) => factorsToLabs(model.evaluate({ albedo: flatSpectrum(albedo) }, [coat]));
      return { white: over(0.9), black: over(0.02) };
    },
    dyeLook: (dyeId) => {
      const model = shop.model([{ incidence: 45, aspecular: 45 }]);
      const depth = shop.library.dyes.find((d) => d.id === dyeId)?.depth ?? flatSpectrum(0);
      const ground = { albedo: flatSpectrum(0.9) };
      return [0.5, 1, 2, 3, 4].map(
        (n) => factorsToLabs(model.evaluate(ground, [prepareCoat(shop.film, { dye: depth, factor: n })]))[0]!,
      );
    },
    mapRows: (mix, target, light, groundIds, isMoving) => {
      const wanted = new Set(groundIds);
      const viewing = { illuminant: light, observer: '10' } as const;
      const grounds = shop.grounds().filter((g) => wanted.has(g.id));
      const seen = light === 'D65' ? target : targetUnder(target, viewing);
      const rows = isMoving
        ? computeMovingRows(shop.movingModel(target), grounds, recipeOf(mix), mapCounts(), seen, { viewing })
        : computeMapRows(shop.model(target), grounds, recipeOf(mix), mapCounts(), seen, { viewing });
      return packRows(rows);
    },
    probe: (mix, groundId, coats, target, light) => {
      const system = findMix(mix.mixId, shop.library.systems);
      const material = findGround(groundId, shop.library.grounds);
      const ground = shop.ground(material);
      const effects = effectCoats(recipeOf(mix), coats);
      const model = shop.model(target);
      const factors = model.over(ground, model.pile([...ground.coats, ...effects]));
      const contrastAt = (n: number) =>
        contrastRatio(shop.model([{ incidence: 45, aspecular: 45 }]), effectCoats(recipeOf(mix), n))[0]!;
      const [now, then] = [coats, coats + 1].map((n) =>
        factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(recipeOf(mix), n)]))),
      );
      const depth = effects.reduce((sum, c) => sum + flakeDepth(c) * c.factor, 0);
      return {
        figures: recipeFigures(
          material,
          system,
          findCarrier(system.carrierId, shop.library.carriers),
          withCount(system.family, { ...mix, coats: 0 }, coats),
        ),
        second: lookUnder(target, factors, light),
        contrast: contrastAt(coats),
        atEdge: contrastAt(coats * EDGE_FILM),
        oneMore: Math.max(...now!.map((lab, g) => de2000(lab, then![g]!))),
        cover: depth > 0 ? -Math.expm1(-depth) : null,
        sparkle: grainOf(system, effects)?.index ?? null,
      };
    },
    search: async (mix, target, groundIds, ticket, onGround) => {
      const wanted = new Set(groundIds);
      const grounds = shop.grounds().filter((g) => wanted.has(g.id));
      const input = {
        model: shop.model(target),
        grounds,
        coat: shop.coat(findMix(mix.mixId, shop.library.systems), 1),
        style: STYLES[mix.style],
        then: thenLaid(findMix(mix.mixId, shop.library.systems).family),
        target,
      };
      const overGround = createSearch(input);
      const found: RatedRecipe[] = [];
      for (const [i, ground] of grounds.entries()) {
        found.push(...overGround(ground));
        onGround(i + 1);
        // Lets a stop, or a map that waits, come in between grounds.
        await new Promise((resolve) => setTimeout(resolve, 0));
        if (stopped.delete(ticket)) return null;
      }
      return paretoRecipes(found, Infinity).map((r) =>
        rateExactly(
          input,
          grounds.find((g) => g.id === r.groundId)!,
          r,
        ),
      );
    },
    formulate: async ({ target, style, filmUm, mostPigments, mostDyes, counts }, ticket, onStep) => {
      const { film, library } = shop;
      const input: FormulateInput = {
        ...{ film, model: shop.model(target), target, style: STYLES[style], filmUm, mostPigments, mostDyes, counts },
        // Flakes that are seen one by one are doses, not tints.
        shelf: {
          grounds: shop.grounds(),
          pigments: library.pigments.filter((p) => p.kind !== 'foil'),
          dyes: library.dyes,
        },
      };
      const walk = formulate(input);
      for (;;) {
        const step = walk.next();
        if (step.done) {
          const near = step.value.slice(0, MOST_FOUND);
          return { mixes: paretoPourables(near.flatMap((m) => pourables(input, m))), nearest: near[0] ?? null };
        }
        onStep(step.value);
        // Lets a stop come in between.
        await new Promise((resolve) => setTimeout(resolve, 0));
        if (stopped.delete(ticket)) return null;
      }
    },
    stopSearch: (ticket) => void stopped.add(ticket),
    nudge: (mix, groundId, coats, target, card, weaker) =>
      nudge({
        weaker,
        model: shop.model(target),
        ground: shop.ground(findGround(groundId, shop.library.grounds)),
        recipe: recipeOf(mix),
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
        shop.model([{ incidence: 45, aspecular: 45 }]),
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
        recipe: recipeOf(on.mix),
        viewing: D65_10,
      };
      // The next rung of the same card asks the film model for nothing new.
      if (tableKept?.key !== key) tableKept = { key, table: nominalTable(of, believed) };
      return answerCard(of, { ...ask, believed }, tableKept.table);
    },
    patches: (mix, groundId, counts) => {
      const model = shop.model([{ incidence: 45, aspecular: 45 }]);
      const ground = shop.ground(findGround(groundId, shop.library.grounds));
      const recipe = recipeOf(mix);
      return counts.map((coats) => {
        const effects = effectCoats(recipe, coats);
        const bare = model.pile(effects);
        const over = (albedo: number) => factorsToLabs(model.over({ albedo: flatSpectrum(albedo) }, bare))[0]!;
        return {
          coats,
          ground: factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effects])))[0]!,
          black: over(0.03),
          grey: over(0.2),
        };
      });
    },
    sectionColours: (mix, groundId, coats) => {
      const model = shop.model(FIVE_ANGLES);
      const ground = shop.ground(findGround(groundId, shop.library.grounds));
      const recipe = recipeOf(mix);
      const at = (n: number) =>
        factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)])))[2]!;
      return { ground: at(0), effect: at(coats), film: filmFactor(recipe, coats) };
    },
    groundColours: () => {
      const model = shop.model([{ incidence: 45, aspecular: 45 }]);
      return Object.fromEntries(
        shop.library.grounds.map((g) => {
          const ground = shop.ground(g);
          return [g.id, factorsToLabs(model.over(ground, model.pile([...ground.coats])))[0]!];
        }),
      );
    },
    layerColours: (layers) => {
      const model = shop.model([{ incidence: 45, aspecular: 45 }]);
      return layerLooks(shop, model, layers).map((labs) => labs[0]!);
    },
    stackLook: (layers, angles) => {
      const { ground, coats } = opticalStack(shop, layers);
      const model = shop.model(angles);
      return factorsToLabs(model.over(ground, model.pile(coats)));
    },
    stripes: (layers, mixId, setup, of) => {
      const most = setup.coats.reduce((a, b) => a + b, 0) * LADDER_TO;
      const ladder = of === 'ground' ? groundLadderOf(layers, mixId, setup.coats, most) : ladderOf(layers, mixId, most);
      const look = (n: number): readonly Lab[] => interpolateLabs(ladder.films, ladder.labs, n);
      const judge = (s: PassSetup, columns: number, rows: number) => {
        const film = passFilm(s, columns, rows);
        const ends = crestAndTrough(film.film);
        const [high, low] = [look(ends.crest), look(ends.trough)];
        const face = de2000(high[FACE]!, low[FACE]!);
        const flop = de2000(high[FLOP]!, low[FLOP]!);
        return { film, ...ends, face, flop, worst: Math.max(face, flop) };
      };
      // One stroke of luck decides nothing: every set-up is sprayed with the same hands many times, and its median counts. Places
      // are as far apart along as across, so that crossed coats are judged like the others.
      const width = setup.panels.reduce((a, b) => a + b, 0);
      const rows = Math.max(20, Math.round(setup.heightCm / DRAW_CM));
      const columns = Math.max(20, Math.round(width / DRAW_CM));
      const drawn = (s: PassSetup) => {
        const all = STRIPE_SEEDS.map((seed) => judge({ ...s, seed }, columns, rows));
        const sorted = (key: 'worst' | 'face' | 'flop') => all.map((d) => d[key]).sort((a, b) => a - b);
        const at = (key: 'worst' | 'face' | 'flop', q: number) =>
          sorted(key)[Math.round(q * (STRIPE_SEEDS.length - 1))]!;
        return {
          all,
          worst: at('worst', 0.5),
          face: at('face', 0.5),
          flop: at('flop', 0.5),
          spread: [at('worst', 0.1), at('worst', 0.9)] as const,
        };
      };
      // The picture shows the panel of the draw that is nearest to the median.
      const typical = drawn(setup);
      const fromTypical = (i: number) => Math.abs(typical.all[i]!.worst - typical.worst);
      const pictured = STRIPE_SEEDS.map((_, i) => i).reduce((a, b) => (fromTypical(b) < fromTypical(a) ? b : a));
      const now = judge({ ...setup, seed: STRIPE_SEEDS[pictured]! }, STRIPE_COLUMNS, STRIPE_ROWS);
      let change: StripesLook['change'] = null;
      if (typical.worst > STRIPES_SEEN) {
        const tried = passChanges(setup).map((c) => ({ ...c, ...drawn(c.setup) }));
        const good = tried.find((c) => c.worst <= STRIPES_SEEN);
        // When none hides them: the cheapest of those that do nearly the most.
        const least = Math.min(...tried.map((c) => c.worst));
        const best = good ?? tried.find((c) => c.worst <= least * 1.1) ?? null;
        if (best && best.worst < typical.worst - 0.02)
          change = { name: best.name, setup: best.setup, worst: best.worst, spread: best.spread, hides: !!good };
      }
      const steps = 64;
      const lut = Array.from({ length: steps }, (_, i) =>
        look(now.trough * 0.9 + ((now.crest * 1.1 - now.trough * 0.9) * i) / (steps - 1)),
      );
      return {
        columns: STRIPE_COLUMNS,
        rows: STRIPE_ROWS,
        film: Float32Array.from(now.film.film),
        crest: now.crest,
        trough: now.trough,
        face: typical.face,
        flop: typical.flop,
        spread: typical.spread,
        from: now.trough * 0.9,
        to: now.crest * 1.1,
        lut,
        change,
      };
    },
    practiceLook: (mixId, groundId, most) => {
      const ladder = effectLadder(
        {
          ground: shop.ground(findGround(groundId, shop.library.grounds)),
          coat: shop.coat(findMix(mixId, shop.library.systems), 1),
          spread: STYLES.wet.spread,
        },
        most,
      );
      return Array.from({ length: PRACTICE_STEPS }, (_, i) =>
        interpolateLabs(ladder.films, ladder.labs, (most * i) / (PRACTICE_STEPS - 1)),
      );
    },
    practiceCard: (seed) => drawCount(shop, seed),
    practiceAdvice: (round, seen) => adviseCount(shop, round, seen),
    controlShift: (layers, mixId, coats, angles) => {
      const { ground, coat } = effectOf(layers, mixId);
      const style = STYLES[layers.find((l) => l.kind === 'effect' && l.materialId === mixId)?.style ?? 'wet'];
      const model = shop.model(angles);
      const at = (controlCoats: number) =>
        factorsToLabs(
          model.over(
            ground,
            model.pile([...ground.coats, ...effectCoats({ coat, style, controlCoats }, Math.max(0.05, coats))]),
          ),
        );
      const [without, withOne] = [at(0), at(1)];
      return without.map(([l, a, b], g): Lab => [withOne[g]![0] - l, withOne[g]![1] - a, withOne[g]![2] - b]);
    },
    blend: (layers, mixId, target, stack, repairCm, lengthCm) => {
      const angles = target.length ? target : FIVE_ANGLES;
      const model = shop.model(angles);
      const effects = stack.filter((l) => l.kind === 'effect').reduce((sum, l) => sum + l.film, 0);
      const { ground, coat, spread } = effectOf(layers, mixId);
      const piles = BLEND_STEPS.map((f) =>
        model.pile(effectCoats({ coat, style: { ...STYLES.wet, film: 1, spread } }, f * effects)),
      );
      const over = (base: Ground) => piles.map((p) => Float64Array.from(model.over(base, p)));
      const fresh = model.pile([
        ...ground.coats,
        ...effectCoats({ coat, style: { ...STYLES.wet, film: 1, spread } }, effects),
      ]);
      // Without readings the finish that is there is taken to be what this stack gives.
      const existing = target.length ? target.map((t) => t.lab) : factorsToLabs(model.over(ground, fresh));
      const onOld = over(existingFinish(model.optics, existing));
      const onGround = BLEND_STEPS.map((f) =>
        Float64Array.from(
          model.over(
            ground,
            model.pile([
              ...ground.coats,
              ...effectCoats({ coat, style: { ...STYLES.wet, film: 1, spread } }, f * effects),
            ]),
          ),
        ),
      );
      const between = (list: readonly Float64Array[], share: number): Float64Array => {
        const at = Math.min(BLEND_STEPS.length - 1 - 1e-9, Math.max(0, share * (BLEND_STEPS.length - 1)));
        const [k, t] = [Math.floor(at), at - Math.floor(at)];
        return list[k]!.map((v, i) => v + t * (list[k + 1]![i]! - v));
      };
      // Blends that are tried pass through the same places again and again: looks are kept by 500ths of both shares.
      const known = new Map<number, Lab[]>();
      const material = shop.library.grounds.find((g) => g.id === ground.id);
      const hides = (coats: number) => (material ? 1 - shop.shows(material, coats) : 1);
      const look = (place: BlendPlace): Lab[] => {
        const share = effects > 0 ? place.effect / effects : 0;
        const hidden = hides(place.ground);
        const key = Math.round(hidden * 500) * 1000 + Math.round(share * 500);
        let labs = known.get(key);
        if (!labs) {
          const g = Math.round(hidden * 500) / 500;
          const low = between(onGround, Math.round(share * 500) / 500);
          const old = between(onOld, Math.round(share * 500) / 500);
          labs = factorsToLabs(low.map((v, i) => g * v + (1 - g) * old[i]!));
          known.set(key, labs);
        }
        return labs;
      };
      const profile = blendProfile(stack, look, existing, lengthCm);
      const found = suggestBlend(stack, repairCm, lengthCm, look, existing);
      return {
        angles: angles.map((a) => a.aspecular),
        existing,
        profile,
        suggestion: found,
        guessed: target.length === 0,
      };
    },
    sample: (layers, target) => {
      const { ground, coats } = opticalStack(shop, layers);
      const table = sampleTable(shop.model(sampleGeometries(shop.film)), ground, coats);
      const angles = target.length ? target : FIVE_ANGLES;
      const model = shop.model(angles);
      const labs = factorsToLabs(model.over(ground, model.pile(coats)));
      const top = layers.findLast((l) => l.kind === 'effect' && l.materialId);
      const flaked = coats.findLast((c) => c.flakes.length > 0);
      return {
        prediction: evenTable(table),
        target: target.length ? evenTable(targetTable(shop.film, table, target, labs)) : null,
        labs,
        grain: top && flaked ? grainOf(findMix(top.materialId!, shop.library.systems), [flaked]) : null,
      };
    },
  };
}
