import { describe, expect, it } from '@jest/globals';
import { cardSchema, labelPath } from './cards';
import { cellEditSchema, coatEditSchema, sprayPlanSchema, START_PLAN } from './plan';
import { isOfJob, newReadingSetSchema, READING_SOURCES } from './readings';
import { said } from './testdata/said';

const ID = '00000000-0000-4000-8000-000000000001';
const card = { id: ID, rungs: [1, 2, 3], gun: 'Gun 1', pressureBar: 1.4, onStand: true };

describe('a card', () => {
  const of = (more: object) => said(cardSchema, { ...card, ...more });

  it('needs rungs, each with a count of its own, and the gun', () => {
    expect(of({})).toEqual({});
    expect(of({ rungs: [] })).toEqual({ rungs: 'Plan at least one rung.' });
    expect(of({ rungs: [1, 1] })).toEqual({ rungs: 'Each rung needs its own coat count.' });
    expect(of({ rungs: [0.25] })).toEqual({ 'rungs[0]': 'A rung has half a coat or more.' });
    expect(of({ rungs: [1, 2, 3, 4, 5, 6, 7, 8, 9] })).toEqual({ rungs: 'Eight rungs fit on a card.' });
    expect(of({ gun: ' ' })).toEqual({ gun: 'Say which gun, so that the card can be trusted next time.' });
  });

  it('“clearly” starts above “a little”', () => {
    const cuts = (eyeLittle: number, eyeClear: number) => of({ settings: { eyeLittle, eyeClear } });
    expect(cuts(1, 3)).toEqual({});
    expect(cuts(3, 3)).toEqual({ 'settings.eyeClear': '“Clearly” starts above “a little”.' });
  });

  it('says nothing of a set-up where nothing was said', () => {
    const { settings } = cardSchema.validateSync(card);
    expect(settings).toMatchObject({ distanceCm: null, tipMm: null, overlap: null, turns: null, temperatureC: null });
    expect(of({ settings: { overlap: 95 } })).toEqual({ 'settings.overlap': 'At most 90 %.' });
  });

  it('has a label in the painter’s units and time', () => {
    expect(labelPath('j', 'a6', 'us', 'Europe/Paris')).toBe(
      '/api/jobs/j/card/label.pdf?size=a6&units=us&zone=Europe%2FParis',
    );
  });
});

describe('a layer on one area, as it was changed', () => {
  const of = (reach: object | null) => said(cellEditSchema, { areaId: 'a', layerId: 'effect', coats: 2, reach });

  it('asks of each way to reach just what belongs to it', () => {
    expect([of(null), of({ kind: 'all' }), of({ kind: 'none' }), of({ kind: 'spot', m2: 0.1 })]).toEqual([
      {},
      {},
      {},
      {},
    ]);
    expect(Object.keys(of({ kind: 'spot' }))).toEqual(['reach.m2']);
    expect(Object.keys(of({ kind: 'blend' })).sort()).toEqual([
      'reach.endCm',
      'reach.fadeCm',
      'reach.from',
      'reach.stepCm',
    ]);
    expect(of({ kind: 'blend', endCm: 40, fadeCm: 15, stepCm: 10, from: '' })).toEqual({});
    expect(of({ kind: 'half' })).not.toEqual({});
  });

  it('keeps a coat’s settings within what a hand and a gun do', () => {
    expect(said(coatEditSchema, {})).toEqual({});
    expect(said(coatEditSchema, { speedCmS: 45, overlap: 0.75 })).toEqual({});
    expect(said(coatEditSchema, { speedCmS: 1 })).toEqual({ speedCmS: 'The speed can’t be below 3 cm/s.' });
    expect(said(coatEditSchema, { colour: 1 })).not.toEqual({});
  });
});

describe('how a job is sprayed', () => {
  it('begins as it may be kept', () => {
    expect(sprayPlanSchema.validateSync(START_PLAN)).toEqual(START_PLAN);
  });

  it('names the edit that can’t be by its coat', () => {
    const edits = { 'effect/wet/1': { overlap: 2 }, 'clear/wet/1': { overlap: 0.5 } };
    expect(Object.keys(said(sprayPlanSchema, { ...START_PLAN, edits }))).toEqual(['edits.effect/wet/1.overlap']);
    expect(said(sprayPlanSchema, { ...START_PLAN, airTowards: 400 })).toEqual({
      airTowards: 'The air can’t be above 360°.',
    });
  });
});

describe('readings', () => {
  const reading = { spot: '1', incidence: 45, aspecular: 45, l: 50, a: 1, b: 2 };
  const set = {
    ...{ id: ID, kind: 'target', rungCoats: null, source: 'typed', takenAt: '2026-11-20T09:00:00.000Z' },
    readings: [reading],
  };
  const of = (more: object) => said(newReadingSetSchema, { ...set, ...more });

  it('of a rung or a place have coats, of anything else none', () => {
    expect(of({})).toEqual({});
    expect(of({ kind: 'rung', rungCoats: 2 })).toEqual({});
    expect(of({ kind: 'rung' })).toEqual({ rungCoats: 'Say how many coats are there.' });
    expect(of({ rungCoats: 2 })).toEqual({ rungCoats: 'Only a rung or a place on the job has coats.' });
    expect(of({ kind: 'spot', rungCoats: 2 })).toEqual({
      label: 'Give it a name, for instance “standard” or “left door”.',
    });
    expect(of({ kind: 'chip', label: 'standard' })).toEqual({});
  });

  it('are each there once, and there at all', () => {
    expect(of({ readings: [reading, reading] })).toEqual({ readings: 'The same spot and angle is given twice.' });
    expect(of({ readings: [reading, { ...reading, spot: '2' }, { ...reading, incidence: 25 }] })).toEqual({});
    expect(of({ readings: [] })).toEqual({ readings: 'Enter at least one angle.' });
    expect(of({ readings: [{ ...reading, l: 900 }] })['readings[0].l']).toMatch(/L\* can't be above/);
  });

  it('come from somewhere there is', () => {
    for (const source of READING_SOURCES) expect(of({ source })).toEqual({});
    expect(of({ source: 'guess' })).not.toEqual({});
  });

  it('of a place, or of one object, are the job’s; others are the finish’s', () => {
    expect(isOfJob({ kind: 'spot', objectId: null })).toBe(true);
    expect(isOfJob({ kind: 'target', objectId: 'lid' })).toBe(true);
    expect(isOfJob({ kind: 'target', objectId: null })).toBe(false);
    expect(isOfJob({ kind: 'rung', objectId: 'lid' })).toBe(false);
  });
});
