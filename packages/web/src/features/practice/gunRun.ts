import {
  gunAt,
  lessonSheet,
  laySegment,
  union,
  type GunSample,
  type Lesson,
  type Patch,
  type PracticeGun,
  type Sheet,
} from '@steady-gleam/core/practice';
import { heldAt, isWay, keyed, steadied, type GunHeld, type Moves } from './gunPosition';

/** A hand at rest with the trigger on is noted this often, ms. */
const REST_MS = 12;
/** A frame that took longer counts as this long, s: a page that slept lays nothing of it. */
const LONGEST_S = 0.1;
/** Where a coat begins: beside the panel, at its upper edge, cm. */
const BESIDE = { x: -8, y: 0 } as const;

interface Player {
  readonly of: readonly GunSample[];
  readonly pace: number;
  readonly since: number;
  readonly onEnd: () => void;
}

/**
 * A coat while it is laid: follows what moves the gun, notes samples of it, and lays the film between them. It knows no page;
 * times are those of the page's own clock, ms.
 */
export class GunRun {
  sheet: Sheet;
  samples: GunSample[] = [];
  held: GunHeld;
  private moves: Moves = 'hand';
  private wanted: GunHeld;
  private began: number | null = null;
  private last = 0;
  private readonly keys = new Set<string>();
  private player: Player | null = null;
  private pending: Patch | null = null;

  constructor(
    readonly lesson: Lesson,
    readonly gun: PracticeGun,
  ) {
    this.sheet = lessonSheet(lesson);
    this.held = { ...BESIDE, d: gun.distanceCm, on: false };
    this.wanted = this.held;
  }

  /** What moves the gun from now on; the trigger is off. */
  moveBy(moves: Moves): void {
    if (moves === this.moves) return;
    this.moves = moves;
    this.keys.clear();
    this.held = { ...this.held, ...BESIDE, on: false };
    this.wanted = this.held;
  }

  get isPlaying(): boolean {
    return this.player !== null;
  }
  /** Since the first spray, s; null before it. */
  clock(ms: number): number | null {
    return this.began === null || this.player ? null : (ms - this.began) / 1000;
  }

  wipe(): void {
    this.sheet = lessonSheet(this.lesson);
    this.samples = [];
    [this.began, this.player, this.pending] = [null, null, null];
    this.held = { ...this.held, ...BESIDE, on: false };
    this.wanted = this.held;
  }

  /** Lays samples by themselves in their own time, times `pace`. */
  play(of: readonly GunSample[], pace: number, ms: number, onEnd: () => void): void {
    this.wipe();
    if (of.length) this.player = { of, pace, since: ms, onEnd };
  }

  /** Nearer or further. */
  far(byCm: number): void {
    const d = heldAt(this.held.d + byCm);
    this.held = { ...this.held, d };
    this.wanted = { ...this.wanted, d };
  }

  press(place: { readonly x: number; readonly y: number }, ms: number): void {
    if (this.player || !this.isDrawn) return;
    this.wanted = { ...this.held, ...place, on: true };
    if (this.moves === 'hand') {
      this.held = this.wanted;
      this.note(ms);
    }
  }
  move(place: { readonly x: number; readonly y: number }, ms: number): void {
    if (this.player || !this.isDrawn) return;
    this.wanted = { ...this.wanted, ...place };
    if (this.moves !== 'hand') return;
    this.held = { ...this.held, ...place };
    if (this.held.on) this.note(ms);
  }
  /** @returns whether the trigger was on */
  release(ms: number): boolean {
    if (!this.wanted.on) return false;
    this.wanted = { ...this.wanted, on: false };
    if (this.moves === 'hand') {
      this.held = { ...this.held, on: false };
      this.note(ms);
    }
    return true;
  }
  private get isDrawn(): boolean {
    return this.moves === 'hand' || this.moves === 'steadied';
  }

  /** @returns whether the key is one of the gun's, and whether it let go of the trigger */
  keyDown(key: string, isRepeat: boolean): { readonly isOwn: boolean; readonly isReleased: boolean } {
    const own = { isOwn: true, isReleased: false };
    if (this.moves !== 'keys' || this.player) return { ...own, isOwn: false };
    if (isWay(key)) this.keys.add(key);
    else if (key === ' ') {
      if (!isRepeat) this.held = { ...this.held, on: !this.held.on };
      return { isOwn: true, isReleased: !isRepeat && !this.held.on };
    } else if (key === '+' || key === '-') this.far(key === '+' ? 1 : -1);
    else return { ...own, isOwn: false };
    return own;
  }
  keyUp(key: string): void {
    this.keys.delete(key);
  }
  keysUp(): void {
    this.keys.clear();
  }

  /** A frame. @returns the cells whose film changed since the last one */
  step(ms: number): Patch | null {
    const seconds = Math.min(LONGEST_S, (ms - this.last) / 1000);
    this.last = ms;
    if (this.player) this.stepPlayer(this.player, ms);
    else {
      if (this.moves === 'steadied')
        this.held = { ...steadied(this.held, this.wanted, seconds, this.gun.speedCmS), on: this.wanted.on };
      if (this.moves === 'keys') this.held = keyed(this.held, this.keys, seconds, this.gun.speedCmS);
      const before = this.samples.at(-1);
      const isMoved = this.moves === 'steadied' || this.moves === 'keys';
      const isAtRest = this.began !== null && before && ms - this.began > before.t * 1000 + REST_MS;
      if (isMoved ? this.held.on || before?.on : this.held.on && isAtRest) this.note(ms);
    }
    const patch = this.pending;
    this.pending = null;
    return patch;
  }

  private stepPlayer({ of, pace, since, onEnd }: Player, ms: number): void {
    const t = of[0]!.t + ((ms - since) / 1000) * pace;
    // Every sample that was passed, so that trigger and turns lie where they were.
    while (this.samples.length < of.length && of[this.samples.length]!.t <= t) this.add(of[this.samples.length]!);
    this.held = gunAt(of, t)!;
    if (this.samples.length < of.length) return;
    this.player = null;
    this.held = { ...this.held, on: false };
    this.wanted = this.held;
    onEnd();
  }

  /** Notes where the gun is now. */
  private note(ms: number): void {
    if (this.began === null) {
      if (!this.held.on) return;
      this.began = ms;
    }
    const before = this.samples.at(-1);
    // Events and frames have one clock, but not one order.
    const t = Math.max((ms - this.began) / 1000, before ? before.t + 1e-4 : 0);
    const { x, y, d, on } = this.held;
    this.add({ t, x, y, d, on });
  }

  private add(sample: GunSample): void {
    const before = this.samples.at(-1);
    this.samples.push(sample);
    const laid = before?.on ? laySegment(this.sheet, this.gun, before, sample) : null;
    if (laid) this.pending = this.pending ? union(this.pending, laid) : laid;
  }
}
