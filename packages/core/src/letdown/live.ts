import { ACCEPTED_OVER, DEFAULT_SCATTER, logScatter, normalCdf, type Scatter } from '../matching/risk';

/** What one place on the job says after some coats: how many coats of the card's it looks like, and how sure that is. */
export interface SpotEvidence {
  readonly spot: string;
  /** Coats sprayed there when it was looked at. */
  readonly sprayed: number;
  /** Coats of the card it looks like. */
  readonly looksLike: number;
  /** Standard deviation of that, as a fraction. */
  readonly sd: number;
}

export interface SpotState {
  readonly spot: string;
  /** Film there in coats of the card. */
  readonly film: number;
  readonly sd: number;
  /** Coats left to the best count; negative where it is over. */
  readonly left: number;
  /** Coats, in quarter steps, that may still go on with at most one chance in twenty of going over. */
  readonly spray: number;
  readonly zone: 'light' | 'even' | 'dark' | 'over';
}

export interface LiveState {
  /** Film of this session against the card, and its standard deviation, as a fraction. */
  readonly session: number;
  readonly sessionSd: number;
  readonly spots: readonly SpotState[];
  /** Coats, in quarter steps, that may go over all. */
  readonly spray: number;
  /** Best count less what lies there on average. */
  readonly left: number;
}

/** Spots that differ by more than this from the rest, as a fraction, are zones of their own; ours. */
const ZONE = 0.08;
/** How much places on one piece differ, as a fraction: edges and overlaps get half as much again; ours. */
const SPOT_SD = 0.25;

/**
 * What is left to spray on the job: every look updates the session's film factor (conjugate normal on its logarithm, prior from
 * the painter's scatter), and each looked-at spot keeps a deviation of its own.
 */
export function liveState(
  best: number,
  window: readonly [number, number],
  sprayed: number,
  evidence: readonly SpotEvidence[],
  scatter: Scatter = DEFAULT_SCATTER,
): LiveState {
  const priorVar = scatter.session ** 2 + (sprayed > 0 ? scatter.coat ** 2 / sprayed : 0);
  const looks = evidence.filter((e) => e.sprayed > 0 && e.looksLike > 0);
  const precision = 1 / priorVar + looks.reduce((s, e) => s + 1 / (e.sd ** 2 + ZONE ** 2 / 4), 0);
  const mean =
    looks.reduce((s, e) => s + Math.log(e.looksLike / e.sprayed) / (e.sd ** 2 + ZONE ** 2 / 4), 0) / precision;
  const sessionSd = Math.sqrt(1 / precision);
  const session = Math.exp(mean);
  // A spot's own film: its look against the session's, each by its precision.
  const spotVar = SPOT_SD ** 2;
  const spots = [...new Map(looks.map((e) => [e.spot, e])).values()].map((e): SpotState => {
    const weight = spotVar / (spotVar + e.sd ** 2);
    const log = mean + weight * (Math.log(e.looksLike / e.sprayed) - mean);
    const film = sprayed * Math.exp(log);
    const sd = Math.sqrt(1 / (1 / (spotVar + sessionSd ** 2) + 1 / e.sd ** 2));
    const off = log - mean;
    const zone = film > window[1] ? 'over' : off < -ZONE ? 'light' : off > ZONE ? 'dark' : 'even';
    return {
      spot: e.spot,
      film,
      sd,
      left: best - film,
      spray: safeCoats(film, sd, best, window[1], scatter, session),
      zone,
    };
  });
  const film = sprayed * session;
  return {
    session,
    sessionSd,
    spots,
    spray: safeCoats(film, sessionSd, best, window[1], scatter, session),
    left: best - film,
  };
}

/** A mist coat, the smallest step that is laid evenly: a quarter of a full one. */
const STEP = 0.25;

/** Coats in quarter steps after which at most one in twenty is over the window, and no more than the best count needs. */
function safeCoats(film: number, sd: number, best: number, upper: number, scatter: Scatter, session: number): number {
  let safe = 0;
  for (let n = STEP; n <= 8; n += STEP) {
    const after = film + n * session;
    const doubt = Math.hypot(sd * film, logScatter(n, { session: 0, coat: scatter.coat }) * n * session) / after;
    const over = 1 - normalCdf(Math.log(upper / after) / doubt);
    if (over > ACCEPTED_OVER || after - best > STEP / 2) break;
    safe = n;
  }
  return safe;
}
