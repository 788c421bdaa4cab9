import { beforeEach, describe, expect, it } from '@jest/globals';
import { de2000 } from '@steady-gleam/core/colour';
import { findGround, findMix, prepareLibrary } from '@steady-gleam/core/materials';
import {
  armRows,
  firstHabit,
  layAll,
  lessonOf,
  lessonSheet,
  ownWay,
  reviewCoat,
  samplesEvery,
  samplesOf,
} from '@steady-gleam/core/practice';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import { passFilm, type PassSetup } from '@steady-gleam/core/spraying';
import { layersOf } from '@steady-gleam/core/finishes';
import { createCompute } from '../../worker/compute';
import { forgetPractised, keepCoat, keepScore, practisedHand, readPractised } from '../../shared/practised';
import { coatsOf, sayRound, sayScore } from './countModel';
import { keyed, steadied } from './gunPosition';
import { GunRun } from './gunRun';
import { filmColours } from './panelPaint';
import { figureRows, MOST_FILM, practiceGun, practiceGuns, sayCoatSoFar, stacksOf, stripesSeen } from './practiceModel';

const lesson = lessonOf('overlap');
const gun = practiceGun(STARTING_GUNS[0]!);
const sum = (f: Float64Array) => f.reduce((a, b) => a + b, 0);

describe('a coat under a pointer', () => {
  /** Moves along a line in frames of 60 a second, as the page is told of it. */
  const along = (run: GunRun, from: number, to: number, y: number, began: number, seconds: number): number => {
    const frames = Math.round(seconds * 60);
    run.press({ x: from, y }, began);
    for (let i = 1; i <= frames; i++) {
      const ms = began + (i * 1000) / 60;
      run.move({ x: from + ((to - from) * i) / frames, y }, ms - 4);
      run.step(ms);
    }
    const end = began + seconds * 1000;
    run.release(end);
    run.step(end + 16);
    return end;
  };
  it('lays what its samples lay, and tells the cells that changed', () => {
    const run = new GunRun(lesson, gun);
    run.step(1000);
    let touched = 0;
    run.press({ x: -5, y: 30 }, 1000);
    for (let i = 1; i <= 60; i++) {
      run.move({ x: -5 + 2 * i, y: 30 }, 1000 + i * 16);
      const patch = run.step(1001 + i * 16);
      if (patch) touched = Math.max(touched, patch.right);
    }
    expect(run.release(2000)).toBe(true);
    expect(run.release(2001)).toBe(false);
    expect(sum(run.sheet.film)).toBeCloseTo(sum(layAll(lessonSheet(lesson), gun, run.samples).film), 9);
    expect(touched).toBeGreaterThan(200);
    expect(reviewCoat(run.samples, gun, lesson).rows).toHaveLength(1);
  });
  it('a gun that rests with the trigger on goes on laying', () => {
    const run = new GunRun(lesson, gun);
    run.press({ x: 60, y: 35 }, 0);
    for (let ms = 16; ms <= 1000; ms += 16) run.step(ms);
    const once = sum(run.sheet.film);
    for (let ms = 1016; ms <= 2000; ms += 16) run.step(ms);
    expect(sum(run.sheet.film) / once).toBeCloseTo(2, 1);
    run.wipe();
    expect(sum(run.sheet.film)).toBe(0);
    expect(run.samples).toEqual([]);
  });
  it('shows in its own time what was laid, and ends where it ended', () => {
    const run = new GunRun(lesson, gun);
    const samples = samplesEvery(samplesOf(armRows(gun, lesson, ownWay(gun, 5)), lesson), 1 / 60);
    let ended = 0;
    run.play(samples, 4, 0, () => ended++);
    run.step(500);
    const half = sum(run.sheet.film);
    expect(half).toBeGreaterThan(0);
    run.press({ x: 0, y: 0 }, 501);
    run.step(60_000);
    expect(ended).toBe(1);
    expect(run.isPlaying).toBe(false);
    expect(sum(run.sheet.film)).toBeCloseTo(sum(layAll(lessonSheet(lesson), gun, samples).film), 9);
    expect(sum(run.sheet.film)).toBeGreaterThan(half);
    // And after it a hand lays as before.
    run.wipe();
    along(run, -10, 130, 30, 61_000, 3);
    expect(sum(run.sheet.film)).toBeGreaterThan(1000);
  });
  it('is moved by keys at the gun’s own speed, with the space bar for a trigger', () => {
    const run = new GunRun(lesson, gun);
    expect(run.keyDown('ArrowRight', false).isOwn).toBe(false);
    run.moveBy('keys');
    run.step(0);
    expect(run.keyDown('x', false).isOwn).toBe(false);
    run.keyDown('ArrowRight', false);
    run.keyDown(' ', false);
    for (let ms = 16; ms <= 1600; ms += 16) run.step(ms);
    run.keyUp('ArrowRight');
    expect(run.keyDown(' ', true).isReleased).toBe(false);
    expect(run.keyDown(' ', false).isReleased).toBe(true);
    run.step(1616);
    const [row] = reviewCoat(run.samples, gun, lesson).rows;
    expect(row!.speed / gun.speedCmS).toBeCloseTo(1, 1);
    run.keyDown('+', false);
    expect(run.held.d).toBe(gun.distanceCm + 1);
  });
  it('steadied, follows softly and no faster than it should', () => {
    let held = { x: 0, y: 0, d: 15, on: true };
    const wanted = { x: 100, y: 20, d: 15, on: true };
    for (let i = 0; i < 60; i++) held = steadied(held, wanted, 1 / 60, 45);
    expect(held.x).toBeLessThanOrEqual(45.01);
    expect(held.y).toBeGreaterThan(15);
    expect(keyed(held, new Set(['ArrowUp', 'q']), 1, 45).y).toBeCloseTo(held.y - 15, 6);
  });
  it('half the pace of the hand is twice the film', () => {
    const film = (seconds: number) => {
      const run = new GunRun(lesson, gun);
      along(run, -10, 130, 30, 0, seconds);
      return sum(run.sheet.film);
    };
    expect(film(6) / film(3)).toBeCloseTo(2, 1);
  });
});

describe('what the panel shows', () => {
  const compute = createCompute();
  const library = prepareLibrary().library;
  const [stack] = stacksOf(library);
  const look = compute.practiceLook(stack!.mixId, stack!.groundId, MOST_FILM);
  it('candy stands first: there stripes are seen best', () => {
    expect(findMix(stack!.mixId, library.systems).family).toBe('candy');
  });
  /** The same passes as a picture of passes has them: there a coat of any overlap is one coat, here the gun moves as it moves. */
  const setupOf = (overlap: number, marginCm: number): PassSetup => ({
    ...{ profile: 'bell', fanCm: gun.fanCm, overlap, coats: [(1 - gun.overlap) / (1 - overlap)] },
    ...{ shift: 0, cross: false, marginCm, panels: [120], walk: true, heightCm: 70 },
    ...{ speedSd: 0, distanceSd: 0, aimSdCm: 0, seed: 1 },
  });
  const seenHere = (overlap: number, marginCm: number) => {
    const rows = armRows(gun, lesson, { ...ownWay(gun, marginCm), overlap });
    return stripesSeen(layAll(lessonSheet(lesson), gun, samplesOf(rows, lesson)).film, look, MOST_FILM);
  };
  it('is as far apart from crest to trough as the same passes laid by that model, place by place, within 0.3 dE00', () => {
    const { columns, rows } = lessonSheet(lesson);
    for (const overlap of [0.15, 0.3, 0.5, 0.6, 0.75])
      for (const marginCm of [-4, 0, 3, 8]) {
        const { film } = passFilm(setupOf(overlap, marginCm), columns, rows);
        const there = stripesSeen(film, look, MOST_FILM);
        const here = seenHere(overlap, marginCm);
        expect(Math.abs(here.face - there.face)).toBeLessThan(0.3);
        expect(Math.abs(here.flop - there.flop)).toBeLessThan(0.3);
      }
  });
  it('is what the room of pictures says where the trigger goes past the edge, within 0.3 dE00', () => {
    const layers = layersOf(findGround(stack!.groundId), findMix(stack!.mixId), {
      ...{ mixId: stack!.mixId, strength: 1, style: 'wet', controlCoats: 0, groundId: stack!.groundId, coats: 1 },
    });
    for (const overlap of [0.15, 0.3, 0.5, 0.6]) {
      const there = compute.stripes(layers, stack!.mixId, setupOf(overlap, 5), 'effect');
      const here = seenHere(overlap, 5);
      expect(Math.abs(here.face - there.face)).toBeLessThan(0.3);
      expect(Math.abs(here.flop - there.flop)).toBeLessThan(0.3);
    }
  });
  it('has a colour for every film, from bare to the most, opaque', () => {
    const { pixels } = filmColours(look, 2, MOST_FILM);
    expect([...pixels].every((p) => p >>> 24 === 255)).toBe(true);
    const red = (p: number) => p & 255;
    expect(red(pixels.at(-1)!)).toBeLessThan(red(pixels[0]!));
    expect(de2000(look[0]![2]!, look.at(-1)![2]!)).toBeGreaterThan(20);
  });
});

describe('what is said', () => {
  const review = (more: object) =>
    reviewCoat(samplesOf(armRows(gun, lesson, { ...ownWay(gun, 5), ...more }), lesson), gun, lesson);
  it('of a coat, before it, and of the next', () => {
    expect(sayCoatSoFar(lesson, null, null, null)).toBe('Lay one even coat, edge to edge.');
    const bad = review({ overlap: 0.15 });
    const habit = firstHabit(bad, gun, lesson);
    expect(sayCoatSoFar(lesson, bad, habit, null)).toMatch(/^Overlap 1\d %, too little/);
    expect(sayCoatSoFar(lesson, null, null, habit)).toMatch(/^This time: overlap/);
    expect(sayCoatSoFar(lesson, review({}), null, habit)).toBe('That is the goal: an even coat.');
    const rows = figureRows(bad, { face: 3.24, flop: 1 });
    expect(rows.find(([name]) => name.startsWith('seen'))![1]).toBe('dE 3.2 / 1.0');
    expect(rows.some(([name]) => name === 'at the break')).toBe(false);
  });
  it('of a card: before the stop nothing of the truth, after it all', () => {
    const round = createCompute().practiceCard(4);
    const open = sayRound(round, { rung: 1.5, said: null, advice: null, mix: 'Cinder candy' });
    expect(open.answer).toBe('1½ coats of Cinder candy: lighter than what is wanted, there, or darker?');
    expect(open.why).not.toMatch(/\d\.\d/);
    const over = sayRound(round, { rung: 6, said: 6, advice: round.best, mix: 'Cinder candy' });
    expect(over.answer).toBe('You stopped at 6: past it.');
    expect(over.why).toContain('inside the window');
    expect([coatsOf(0.5), coatsOf(2)]).toEqual(['½ coat', '2 coats']);
    expect([sayScore([]), sayScore([1, 0, 1])]).toEqual(['', 'Stopped inside: 2 of the last 3.']);
  });
  it('guns with a fan too small for a panel are left out, and there is always one', () => {
    expect(practiceGuns(undefined).every((g) => g.fanCm >= 10)).toBe(true);
    const small = STARTING_GUNS.filter((g) => g.fanCm < 10);
    expect(practiceGuns(small).length).toBeGreaterThan(0);
    expect(practiceGuns(STARTING_GUNS.slice(0, 1))).toHaveLength(1);
  });
});

describe('what stays on this device', () => {
  beforeEach(() => {
    const kept = new Map<string, string>();
    globalThis.localStorage = {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
      removeItem: (k: string) => void kept.delete(k),
    } as Storage;
  });
  const hand = { overlap: 0.42, speedSd: 0.08, distanceSd: 0.6, aimSdCm: 1.2, passes: 6 };
  it('are scores, the newest coat of a lesson and the hand it shows', () => {
    const samples = samplesOf(armRows(gun, lesson, ownWay(gun, 5)), lesson);
    keepScore('overlap', 41);
    keepScore('overlap', 77);
    keepCoat('overlap', samples, hand);
    keepCoat('side', samples.slice(0, 4), null);
    const back = readPractised();
    expect(back.scores.overlap).toEqual([41, 77]);
    expect(back.hand).toEqual(hand);
    expect(back.coats.side).toHaveLength(4);
    back.coats.overlap!.forEach((s, i) => {
      expect(s.x).toBeCloseTo(samples[i]!.x, 1);
      expect(s.t).toBeCloseTo(samples[i]!.t, 2);
      expect(s.on).toBe(samples[i]!.on);
    });
    forgetPractised();
    expect(readPractised()).toEqual({ scores: {}, coats: {}, hand: null });
  });
  it('what can’t be read counts as none', () => {
    for (const bad of [
      '{',
      '[]',
      '{"hand":{"overlap":"x"}}',
      '{"scores":{"count":["a"]}}',
      '{"coats":{"side":[[1]]}}',
    ]) {
      localStorage.setItem('steady-gleam.practice', bad);
      expect(readPractised().hand).toBeNull();
    }
    keepScore('mix', 9);
    expect(readPractised().scores.mix).toEqual([9]);
  });
  it('is a first guess for pictures of passes, within what they take', () => {
    expect(practisedHand(null)).toBeNull();
    expect(practisedHand({ ...hand, overlap: 0.05 })).toEqual({
      ...{ overlap: 0.2, speedSd: 0.08, distanceSd: 0.5, aimSdCm: 1.2 },
    });
  });
});
