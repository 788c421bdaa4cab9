import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { STYLES } from '../finishes/styles';
import { eventOf, jobState, namedOf, type JobEvent, type JobState } from '../jobs';
import type { EyeView, Verdict } from '../letdown/eyeWords';
import { FIVE_ANGLES } from '../optics/geometry';
import { coatSteps, costOf, mendLayers, mendTold, momentOf, spotReaches, type Moment } from '.';
import { planned, runTo, atCheck, put, waysFor, everywhere, MIX, seenAs, colours } from '../testdata/mends';

describe('a mend in the run', () => {
  const plan = planned();
  const before = runTo(plan, atCheck('lamp'));
  const { effect, ground, clear } = mendLayers(plan, jobState(plan, before), 'left');

  it('goes right on what lies there, before what was to follow, and is looked at before anything else', () => {
    const steps = coatSteps(plan, {
      layerId: effect!,
      style: 'light',
      coats: 0.5,
      reach: spotReaches(20, true, 'nose').effect,
    });
    const mend = { way: 'faded' as const, spot: 'nose', off: 'lighter', views: ['low light' as const], steps };
    let events = put(before, mendTold(jobState(plan, before), ['left'], mend, 'Fade a light coat in'));
    let state = jobState(plan, events);
    expect(state.next?.is === 'cell' && state.next.state.cell.areaId).toBe('left');
    expect(state.next?.is === 'cell' && state.next.state.cell.reach.kind).toBe('fan');
    expect(state.total).toBe(jobState(plan, before).total + 1);
    events = runTo(plan, (s) => s.next?.is === 'check', events);
    state = jobState(plan, events);
    expect(state.next?.is === 'check' && state.next.state.check.views).toEqual(['low light']);
    // The lamp before clear is asked again behind it, and clear waits for both.
    events = runTo(plan, atCheck('lamp'), events);
    expect(atCheck('lamp')(jobState(plan, events))).toBe(true);
    const end = jobState(
      plan,
      runTo(plan, () => false, events),
    );
    expect(end.next).toBeNull();
    expect(end.done).toBe(end.total);
    // On one place only: the side itself still counts its three.
    const coats = (events: readonly JobEvent[]) =>
      jobState(plan, events)
        .areas.find((a) => a.areaId === 'left')!
        .layers.find((l) => l.layerId === effect)!.coats;
    const all = runTo(plan, () => false, events);
    expect(coats(all)).toBe(3);
    // Whatever passes a log on keeps the place; where one has lost it, the plan knows.
    expect(all.flatMap((e) => e.cells.map(namedOf))).toEqual(all.flatMap((e) => e.cells));
    expect(all.some((e) => e.cells.some((c) => 'spot' in c && c.spot === 'nose'))).toBe(true);
    const lost = all.map((e) => ({ ...e, cells: e.cells.map((c) => ({ ...c, spot: undefined })) }));
    expect(coats(lost)).toBe(3);
  });

  it('that makes ground anew counts the colour from there, and leaves the other areas alone', () => {
    const steps = [
      ...coatSteps(plan, { layerId: ground!, style: 'wet', coats: 2, reach: { kind: 'all' }, anew: true }),
      ...coatSteps(plan, { layerId: effect!, style: 'wet', coats: 2, reach: { kind: 'all' } }),
    ];
    const told = mendTold(
      jobState(plan, before),
      ['left'],
      { way: 'reground', spot: 'Left side', off: 'darker', views: [], steps },
      'x',
    );
    const coats = (events: readonly JobEvent[], id: string) =>
      jobState(plan, events)
        .areas.find((a) => a.areaId === id)!
        .layers.find((l) => l.layerId === effect)!.coats;
    let events = put(before, told);
    expect(coats(events, 'left')).toBe(3);
    events = runTo(plan, (s) => s.next?.is === 'cell' && s.next.state.cell.layerId === effect, events);
    expect(coats(events, 'left')).toBe(0);
    events = runTo(plan, atCheck('lamp'), events);
    expect(coats(events, 'left')).toBe(2);
    expect(coats(events, 'right')).toBe(3);
    const film = (id: string) => jobState(plan, events).areas.find((a) => a.areaId === id)!.filmUm;
    expect(film('left')).toBeGreaterThan(film('right'));
  });

  it('through the clear is looked at before it is cleared again, and stands before clear until then', () => {
    const done = runTo(plan, () => false);
    const id = plan.objects[0]!.id;
    const way = waysFor(done, plan, { nose: everywhere('lighter'), 'Left side': everywhere('match') }).find(
      (w) => w.kind === 'sand-effect',
    )!;
    const mend = {
      way: 'sand-effect' as const,
      spot: 'nose',
      off: 'lighter',
      views: ['low light' as const],
      steps: way.steps,
    };
    const begun = put(done, mendTold(jobState(plan, done), ['left'], mend, way.name));
    const events = runTo(plan, (s) => s.next?.is === 'check' && !!s.next.state.check.views, begun);
    const state = jobState(plan, events);
    // At the look the mended side has effect on top, the other is still cleared.
    expect(momentOf(plan, state, MIX, id, ['left'])).not.toBe('finished');
    expect(momentOf(plan, state, MIX, id, ['right'])).toBe('finished');
    const clears = state.cells.filter((s) => s.cell.coatId.startsWith('mend/') && s.cell.coat.kind === 'clear');
    expect(clears.length).toBeGreaterThan(0);
    expect(clears.every((s) => !s.open && s.sprayedAt === null)).toBe(true);
    expect(
      jobState(
        plan,
        runTo(plan, () => false, events),
      ).next,
    ).toBeNull();
  });

  it('again at the same place is looked at once, behind the last of it and still before what follows', () => {
    const steps = coatSteps(plan, {
      ...{ layerId: effect!, style: 'light' as const, coats: 0.4 },
      reach: spotReaches(20, true, 'nose').effect,
    });
    const mend = { way: 'faded' as const, spot: 'nose', off: 'lighter', views: ['sun flop' as const], steps };
    const looks = (e: readonly JobEvent[]) => jobState(plan, e).checks.filter((c) => c.check.views);
    const once = put(before, mendTold(jobState(plan, before), ['left'], mend, 'x'));
    const atLook = runTo(plan, (s) => s.next?.is === 'check', once);
    const twice = put(atLook, mendTold(jobState(plan, atLook), ['left'], mend, 'x'));
    expect(looks(twice)).toHaveLength(1);
    expect(looks(twice)[0]!.due).toBe(false);
    expect(jobState(plan, twice).next?.is).toBe('cell');
    const end = runTo(plan, () => false, twice);
    expect(jobState(plan, end).next).toBeNull();
    expect(looks(end)[0]!.is).toBe('passed');
    // A look that is over stays; the next mend gets its own.
    const passed = runTo(plan, atCheck('lamp'), once);
    expect(looks(put(passed, mendTold(jobState(plan, passed), ['left'], mend, 'x')))).toHaveLength(2);
  });

  it('is the same for events in any order, and gone when it is taken back', () => {
    const steps = coatSteps(plan, { layerId: clear!, style: 'wet', coats: 1, reach: { kind: 'all' } });
    const events = runTo(
      plan,
      () => false,
      put(
        before,
        mendTold(
          jobState(plan, before),
          ['left', 'lid'],
          { way: 'fault', spot: 's', off: 'o', views: ['lamp'], steps },
          'x',
        ),
      ),
    );
    const said = (s: JobState) => JSON.stringify([s.cells, s.checks, s.areas, s.next]);
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (mixed) => {
        expect(said(jobState(plan, mixed))).toBe(said(jobState(plan, events)));
      }),
      { numRuns: 12 },
    );
    const mend = events.find((e) => e.kind === 'mend')!;
    const undone = [...before, mend, eventOf({ id: 'u', at: 1e12, kind: 'undo', text: mend.id })];
    expect(said(jobState(plan, undone))).toBe(said(jobState(plan, before)));
  });

  it('of any coats adds just their film, and asks for them once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('light' as const, 'wet' as const, 'control' as const),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        (style, coats) => {
          const steps = coatSteps(plan, { layerId: effect!, style, coats, reach: { kind: 'all' } });
          const film = steps.reduce((s, c) => s + (c.is === 'coat' ? c.share * STYLES[c.style].film : 0), 0);
          expect(Math.abs(film - coats)).toBeLessThan(0.01 * steps.length);
          const events = put(
            before,
            mendTold(jobState(plan, before), ['left'], { way: 'all', spot: '', off: '', views: [], steps }, 'x'),
          );
          const state = jobState(plan, events);
          expect(state.total).toBe(jobState(plan, before).total + steps.length);
          expect(costOf(plan, ['left'], '', steps).coats).toBe(steps.length);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('ways out', () => {
  const plan = planned();
  const moments: Readonly<Record<Moment, JobEvent[]>> = {
    'under way': runTo(
      plan,
      (s) => s.next?.is === 'cell' && s.next.state.cell.coat.kind === 'effect' && s.next.state.cell.coat.number === 3,
    ),
    'last chance': runTo(plan, atCheck('lamp')),
    finished: runTo(plan, () => false),
  };

  it('are told apart by the moment: through the clear only when it is on', () => {
    for (const [name, events] of Object.entries(moments))
      expect(momentOf(plan, jobState(plan, events), MIX, plan.objects[0]!.id)).toBe(name);
    const short = { nose: everywhere('lighter'), 'Left side': everywhere('match') };
    const kinds = (m: Moment) => waysFor(moments[m], plan, short).map((w) => w.kind);
    expect(kinds('last chance')).toEqual(expect.arrayContaining(['faded', 'leave', 'reground']));
    expect(kinds('finished')).toEqual(expect.arrayContaining(['sand-effect', 'leave', 'reground']));
    expect(kinds('finished')).not.toContain('faded');
    const through = waysFor(moments.finished, plan, short).find((w) => w.kind === 'sand-effect')!;
    const layers = through.steps.map((s) =>
      s.is === 'work' ? s.kind : plan.layers.find((l) => l.id === s.layerId)!.kind,
    );
    expect(layers.slice(0, 2)).toEqual(['dry', 'sand']);
    expect(layers.at(-1)).toBe('clear');
  });

  it('never lay a coat on a place that is darker than wanted, unless it is ground again first', () => {
    const verdict = fc.constantFrom<Verdict>('much lighter', 'lighter', 'match', 'darker', 'much darker');
    const view = fc.constantFrom<EyeView>('sun face', 'sun flop', 'shade', 'low light', 'lamp');
    fc.assert(
      fc.property(
        fc.constantFrom<Moment>('under way', 'last chance', 'finished'),
        fc.uniqueArray(fc.tuple(view, verdict), { selector: ([v]) => v, minLength: 1 }),
        fc.uniqueArray(fc.tuple(view, verdict), { selector: ([v]) => v, minLength: 1 }),
        (moment, own, others) => {
          const said = { 'Left side': own, 'Right side': others };
          const [spot] = seenAs(3, said);
          for (const w of waysFor(moments[moment], plan, said)) {
            const anew = w.steps.findIndex((s) => s.is === 'coat' && s.anew);
            if (spot!.zone !== 'over' || !w.areaIds.includes('left')) continue;
            // A coat of effect on it comes only behind ground that begins anew.
            w.steps.forEach((s, i) => {
              if (s.is === 'coat' && plan.layers.find((l) => l.id === s.layerId)!.kind === 'effect')
                expect(anew >= 0 && anew < i).toBe(true);
            });
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  it('richen only what is not over itself, and only before clear', () => {
    const said = { 'Left side': everywhere('much darker'), 'Right side': everywhere('match') };
    const ways = waysFor(moments['last chance'], plan, said);
    const richen = ways.find((w) => w.kind === 'richen')!;
    expect(richen.promise).toBe('even');
    expect(richen.areaIds).not.toContain('left');
    expect(colours(plan, richen).length).toBeGreaterThan(0);
    expect(waysFor(moments.finished, plan, said).some((w) => w.kind === 'richen')).toBe(false);
  });

  it('lay nothing over all of an area that has another place on it which is over, however that is called', () => {
    const said = {
      'Left side': everywhere('much darker'),
      nose: everywhere('darker'),
      'Right side': everywhere('match'),
    };
    const lies = { nose: ['lid'], 'Right side': ['right'] };
    const richen = waysFor(moments['last chance'], plan, said, ['left'], lies).find((w) => w.kind === 'richen')!;
    expect(richen.areaIds).toEqual(['right']);
    const unlike = [
      ['sun face', 'lighter'],
      ['sun flop', 'darker'],
    ] as const;
    const kinds = (nose: Verdict) =>
      waysFor(moments['last chance'], plan, { 'Left side': unlike, nose: everywhere(nose) }, ['left'], {
        nose: ['left'],
      }).map((w) => w.kind);
    expect(kinds('match')).toContain('control');
    expect(kinds('darker')).not.toContain('control');
  });

  it('over a whole area that is short: a coat over all of it, unless a place on it is not short', () => {
    const all = (nose: Verdict) =>
      waysFor(moments['last chance'], plan, { 'Left side': everywhere('lighter'), nose: everywhere(nose) }, ['left'], {
        nose: ['left'],
      });
    const way = all('lighter').find((w) => w.kind === 'all')!;
    expect(way.areaIds).toEqual(['left']);
    expect(way.steps.every((s) => s.is === 'coat' && s.reach.kind === 'all')).toBe(true);
    expect(all('lighter').some((w) => w.kind === 'faded')).toBe(false);
    expect(all('match').some((w) => w.kind === 'all')).toBe(false);
  });

  it('say what each comes to: chances that sum to one, a strip per angle, and what it costs', () => {
    for (const said of [{ nose: everywhere('lighter') }, { nose: everywhere('much darker') }] as const)
      for (const events of Object.values(moments))
        for (const w of waysFor(events, plan, said)) {
          if (w.chances) expect(w.chances.under + w.chances.in + w.chances.over).toBeCloseTo(1, 6);
          expect(w.labs).toHaveLength(FIVE_ANGLES.length);
          expect(w.differences).toHaveLength(FIVE_ANGLES.length);
          if (w.kind === 'leave') expect(w.cost.coats).toBe(0);
          else {
            expect(w.cost.ml).toBeGreaterThan(0);
            expect(w.cost.minutes).toBeGreaterThan(0);
            expect(w.risk && w.back).toBeTruthy();
          }
        }
  });
});
