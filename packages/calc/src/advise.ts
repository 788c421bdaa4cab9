import { labOf, type Lab } from '@steady-gleam/core/colour';
import { D65_10 } from '@steady-gleam/core/colour';
import { defaultTolerance } from '@steady-gleam/core/finishes';
import {
  adviseAfter,
  adviseFirst,
  answerCard,
  nominalTable,
  noiseOf,
  predictedLabs,
  readCard,
  sayLooks,
  type CardReadings,
  type CardSaid,
  type LadderOf,
  type LadderTable,
  type TargetRead,
} from '@steady-gleam/core/letdown';
import {
  createFilm,
  createOptics,
  createFastModel,
  FIVE_ANGLES,
  prepareCoat,
  type Geometry,
} from '@steady-gleam/core/optics';
import type { InferType } from 'yup';
import { toAlbedo, toCoat } from './coats';
import type { calcSchemas } from './schemas';

type AdviseInput = InferType<(typeof calcSchemas)['advise']>;
type EyeInput = InferType<(typeof calcSchemas)['eye']>;

const film = createFilm();
/** Spots a target is averaged over where it is not said. */
const USUAL_SPOTS = 3;

/** A few values by their key, the oldest forgotten first. */
function keep<T>(most: number): (key: string, make: () => T) => T {
  const known = new Map<string, T>();
  return (key, make) => {
    const found = known.get(key);
    if (found !== undefined) return found;
    const made = make();
    if (known.size >= most) known.delete(known.keys().next().value!);
    known.set(key, made);
    return made;
  };
}

const models = keep<LadderOf['model']>(16);
const ladders = keep<{ of: LadderOf; table: LadderTable }>(32);
const cards = keep<CardSaid>(64);

/** The ladder of a request, tabulated once. */
function ladderOf(r: Pick<AdviseInput, 'ground' | 'under' | 'coat' | 'style'>, geometries: readonly Geometry[]) {
  const angles = geometries.map((g) => [g.incidence, g.aspecular]);
  return ladders(JSON.stringify([r.ground, r.under, r.coat, r.style, angles]), () => {
    const of: LadderOf = {
      model: models(JSON.stringify(angles), () => createFastModel(createOptics(film, geometries))),
      ground: {
        albedo: toAlbedo(film, r.ground, D65_10),
        coats: r.under.map((c) => prepareCoat(film, toCoat(c))),
      },
      recipe: { coat: prepareCoat(film, toCoat(r.coat)), style: { ...r.style, id: 'medium', name: 'as asked' } },
      viewing: D65_10,
    };
    return { of, table: nominalTable(of) };
  });
}

const targetOf = (target: NonNullable<EyeInput['target']>): TargetRead['angles'] =>
  target.map((t) => ({
    incidence: t.incidence,
    aspecular: t.aspecular,
    lab: labOf(t.lab),
    tolerance: t.tolerance ?? defaultTolerance(t.aspecular),
  }));

/** What the card says, kept between requests with the same card. */
function cardOf(r: AdviseInput): CardSaid {
  const { ground, under, coat, style, target, targetSpots, sameInstrument, bare, rungs, noise } = r;
  const key = JSON.stringify([ground, under, coat, style, target, targetSpots, sameInstrument, bare, rungs, noise]);
  return cards(key, () => {
    const angles = targetOf(target);
    const { of, table } = ladderOf(r, angles);
    const scatter = noiseOf(
      noise ?? null,
      angles.map((a) => a.lab[0]),
    );
    const read: CardReadings = {
      bare: bare as CardReadings['bare'],
      rungs: rungs as CardReadings['rungs'],
      noise: scatter,
    };
    return readCard(of, { angles, spots: targetSpots ?? USUAL_SPOTS, sameInstrument, noise: scatter }, read, {
      nominal: table,
    });
  });
}

/** One advise for card and looks, as docs/calc.md writes it. */
export function advise(r: AdviseInput) {
  const card = cardOf(r);
  const says = sayLooks(
    card,
    r.looks.map((l) => ({ ...l, spots: l.spots ?? 1, labs: l.labs as (Lab | null)[] })),
  );
  const now = r.looks.at(-1)?.sprayed ?? 0;
  const said = says.length ? adviseAfter(card, says, now, r.looksLeft ?? 0) : adviseFirst(card);
  return {
    best: said.best,
    card90: card.card90,
    object90: said.object90,
    window: said.inside ? said.window : null,
    closest: said.inside ? null : said.window,
    kind: said.inside ? 'inside' : 'closest',
    spray: said.spray,
    chances: said.chances,
    left: said.left,
    doubtful: card.fit?.doubtful ?? [],
    swapped: card.fit?.swapped ?? [],
    fit: card.fit?.chi ?? null,
    labs: predictedLabs(card.ladder, r.at),
  };
}

/** Count by eye, as the screens have it. */
export function eye(r: EyeInput) {
  const angles = r.target ? targetOf(r.target) : null;
  const { of, table } = ladderOf(r, angles ?? FIVE_ANGLES);
  const said = answerCard(
    of,
    {
      target: angles && { angles, spots: USUAL_SPOTS, sameInstrument: true, noise: noiseOf(null, []) },
      ...{ bare: null, rungs: [], verdicts: r.verdicts, handHeld: r.handHeld, believed: {} },
    },
    table,
  )!.eye!;
  return { best: said.best, interval90: said.interval, disagree: said.disagree };
}
