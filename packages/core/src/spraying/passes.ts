import { createRandom, normal } from '../numeric/random';
import { fanFilm, type FanProfile } from './ripple';

/** How a panel is sprayed. */
export interface PassSetup {
  readonly profile: FanProfile;
  /** Share of the width at full film, for a flat fan. */
  readonly plateau?: number;
  /** Fan at the distance, cm. */
  readonly fanCm: number;
  /** 0..0.95. */
  readonly overlap: number;
  /** Coats laid, and the film of each against a nominal full coat. */
  readonly coats: readonly number[];
  /** Every coat starts this fraction of a pitch further than the one below; 0 lays them on the same lines. */
  readonly shift: number;
  /** Every second coat is laid across the one before. */
  readonly cross: boolean;
  /** Trigger held beyond the edge, cm; below zero it is let go before. */
  readonly marginCm: number;
  /** Widths of the panels, cm, left to right: each triggered on its own, or all in one walk. */
  readonly panels: readonly number[];
  readonly walk: boolean;
  readonly heightCm: number;
  /** Scatter from pass to pass: speed and distance relative (ln), aim in cm. */
  readonly speedSd: number;
  readonly distanceSd: number;
  readonly aimSdCm: number;
  readonly seed: number;
  /** Whether the coats may be laid as twice as many, half as wet; left out: they may. */
  readonly split?: boolean;
}

/** Film on a panel in nominal full coats, row by row from the top left. */
export interface PassFilm {
  readonly columns: number;
  readonly rows: number;
  readonly film: Float64Array;
}

/** Length over which a trigger starts and stops the film along the pass, cm; ours. */
export const TRIGGER_RAMP_CM = 5;

/** How much of a stroke lies on a place: it rises over the ramp at both ends, half of it at the trigger's own line. */
function stroke(at: number, from: number, to: number): number {
  const ramp = (d: number) => Math.min(1, Math.max(0, 0.5 + d / TRIGGER_RAMP_CM));
  return ramp(at - from) * ramp(to - at);
}

/**
 * Film of all coats over a row of panels. Passes lie a pitch apart, pitch = fan x (1 - overlap); each carries its own speed,
 * distance and aim errors. Without errors, ends and doubling the mean is the sum of the coats' films.
 * @param columns and @param rows places across the whole width and height.
 */
export function passFilm(setup: PassSetup, columns: number, rows: number): PassFilm {
  const width = setup.panels.reduce((a, b) => a + b, 0);
  const height = setup.heightCm;
  const pitch = setup.fanCm * (1 - setup.overlap);
  const mean = meanOverPitch(setup);
  const random = createRandom(setup.seed);
  const film = new Float64Array(columns * rows);
  const spans: (readonly [number, number])[] = [];
  if (setup.walk) spans.push([0, width]);
  else
    setup.panels.reduce((from, w) => {
      spans.push([from, from + w]);
      return from + w;
    }, 0);
  setup.coats.forEach((amount, coat) => {
    const crossed = setup.cross && coat % 2 === 1;
    const offset = setup.shift * pitch * coat;
    // A crossed coat goes up and down, pass beside pass across the whole width.
    for (const [from, to] of crossed ? [[0, height] as const] : spans) {
      const [across, start, end] = crossed ? [width, from, to] : [height, from, to];
      const first = -Math.ceil(setup.fanCm / pitch) - 1;
      const last = Math.ceil((across + setup.fanCm) / pitch) + 1;
      for (let k = first; k <= last; k++) {
        const speed = Math.exp(setup.speedSd * normal(random));
        const distance = Math.exp(setup.distanceSd * normal(random));
        const line = k * pitch + (offset % pitch) + setup.aimSdCm * normal(random);
        const fan = setup.fanCm * distance;
        const thick = amount / speed / distance / mean;
        const along = crossed ? rows : columns;
        const length = crossed ? height : width;
        const strokes = new Float64Array(along);
        for (let i = 0; i < along; i++)
          strokes[i] = stroke(((i + 0.5) / along) * length, start - setup.marginCm, end + setup.marginCm);
        const n = crossed ? columns : rows;
        for (let j = 0; j < n; j++) {
          const at = ((j + 0.5) / n) * across;
          const laid = thick * fanFilm(setup.profile, (at - line) / fan, setup.plateau);
          if (laid === 0) continue;
          for (let i = 0; i < along; i++) {
            const index = crossed ? i * columns + j : j * columns + i;
            film[index] = film[index]! + laid * strokes[i]!;
          }
        }
      }
    }
  });
  return { columns, rows, film };
}

/** Mean film of parallel passes of height one, a pitch apart: the fan's area over the pitch. */
function meanOverPitch(setup: PassSetup): number {
  const samples = 2000;
  let area = 0;
  for (let i = 0; i < samples; i++) area += fanFilm(setup.profile, (i + 0.5) / samples - 0.5, setup.plateau);
  return area / samples / (1 - setup.overlap);
}

/** Crest and trough of a film: the values 2 % of the places lie beyond, so that one spot does not speak for a panel. */
export function crestAndTrough(film: Float64Array): { readonly crest: number; readonly trough: number } {
  const sorted = Float64Array.from(film).sort();
  const at = (q: number) => sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(q * (sorted.length - 1))))]!;
  return { trough: at(0.02), crest: at(0.98) };
}

/** Difference at which stripes are seen, CIEDE2000; ours. */
export const STRIPES_SEEN = 0.6;

/**
 * Dry film of a coat from the gun, um: flow x solids x what lands over the area a minute of spraying covers.
 * @param flow ml a minute. @param speed cm/s. @param fan cm.
 */
export function filmFromGun(q: {
  readonly flow: number;
  readonly volumeSolids: number;
  readonly transfer: number;
  readonly speed: number;
  readonly fan: number;
  readonly overlap: number;
}): number {
  const areaCm2 = q.speed * 60 * q.fan * (1 - q.overlap);
  return ((q.flow * q.volumeSolids * q.transfer) / areaCm2) * 1e4;
}

/** Something a painter can change, from the cheapest: what it is, and the set-up with it. */
export interface PassChange {
  readonly name: string;
  readonly setup: PassSetup;
}

/** What a set-up asks the painter to do otherwise, in words. */
function sayChange(was: PassSetup, now: PassSetup): string {
  const said: string[] = [];
  if (now.walk && !was.walk) said.push('walk the whole side in one stroke');
  if (now.coats.length > was.coats.length) said.push('lay twice as many coats, half as wet');
  if (now.overlap > was.overlap) said.push(`overlap ${Math.round(now.overlap * 100)} %`);
  if (now.cross && !was.cross) said.push('cross every second coat');
  else if (now.shift !== was.shift) said.push('start every second coat half a pass further');
  return said.join(', ');
}

/** Changes worth trying, each with the ones before it, cheapest first. */
export function passChanges(s: PassSetup): PassChange[] {
  const setups: PassSetup[] = [];
  const walked = s.panels.length > 1 && !s.walk ? { ...s, walk: true } : s;
  if (walked !== s) setups.push(walked);
  const many = s.coats.length > 1;
  // Crossed coats lie on other lines anyway: shifting them is no remedy that is still open.
  if (many && s.shift === 0 && !s.cross) setups.push({ ...walked, shift: 0.5 });
  for (const overlap of [0.66, 0.75, 0.8])
    if (overlap > s.overlap + 0.02) setups.push({ ...walked, overlap, ...(many && !s.cross ? { shift: 0.5 } : {}) });
  const overlap = Math.max(0.75, s.overlap);
  if (many && !s.cross) setups.push({ ...walked, cross: true, overlap });
  if (s.coats.length < 8 && s.split !== false)
    setups.push({
      ...walked,
      overlap,
      ...(s.cross ? {} : { shift: 0.5 }),
      coats: s.coats.flatMap((c) => [c / 2, c / 2]),
    });
  return setups.map((setup) => ({ name: sayChange(s, setup), setup }));
}
