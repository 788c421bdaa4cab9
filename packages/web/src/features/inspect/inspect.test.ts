import { describe, expect, it } from '@jest/globals';
import { FAMILIES, FAMILY_IDS } from '@steady-gleam/core/finishes';
import { START_AREAS, workOfJob, type SeenSpot } from '@steady-gleam/core/jobs';
import { VERDICTS, type LiveState, type SpotState } from '@steady-gleam/core/letdown';
import { libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import fc from 'fast-check';
import { looksAt, placesOf, sayInspect, sayOff, sayRead, sayVerdict, suggestedPlaces, VIEWS } from './inspectModel';

const look = (spot: string, more: Partial<SeenSpot> = {}): SeenSpot => ({
  ...{ spot, coats: 3, view: 'sun face', verdict: 'match', hue: null, patch: null },
  ...{ against: null, photos: [], areaIds: ['side'], at: 1, ...more },
});
const spot = (name: string, zone: SpotState['zone'], film = 0): SpotState => ({
  ...{ spot: name, film: 3, sd: 0.1, left: film, spray: 0, chances: null, zone, byEye: true },
  wanted: { film, sd: 0.1, rate: 1, window: [-0.3, 0.3] },
});
const live = (...spots: SpotState[]): LiveState => ({ session: 1, sessionSd: 0.1, spots });
const area = (id: string, name: string, more: object = {}) => ({ ...START_AREAS[0]!, id, name, ...more });
const { plan } = workOfJob({
  job: {
    ...{ piece: 'Coach', mixId: 'lagoon-pearl', stacks: null, objects: null, mixing: null, plan: null },
    pick: { groundId: 'aqua-pastel', coats: 3, style: 'wet', strength: 1, controlCoats: 0 },
    areas: [area('side', 'Side'), area('lid', 'Lid', { mounting: 'stand' })],
  },
  ...{ card: null, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS },
})!;
const ids = ['side', 'lid'];

describe('places to inspect', () => {
  it('are the areas and whatever else was looked at, each once', () => {
    const seen = [look('nose'), look('Side'), look('nose', { view: 'shade' }), look('all over', { areaIds: [] })];
    const places = placesOf(plan, ids, seen);
    expect(places.map((p) => p.name)).toEqual(['Side', 'Lid', 'nose', 'all over']);
    expect(places.find((p) => p.name === 'nose')!.areaIds).toEqual(['side']);
    expect(places.find((p) => p.name === 'all over')!.areaIds).toEqual(ids);
  });

  it('that are easily missed are offered until they are there: edges, and where loose parts meet', () => {
    const places = placesOf(plan, ids, []);
    const offered = suggestedPlaces(plan, ids, places).map((p) => p.name);
    expect(offered).toEqual(expect.arrayContaining(['front edge', 'edges', 'where Lid meets']));
    const after = suggestedPlaces(plan, ids, placesOf(plan, ids, [look('front edge')]));
    expect(after.map((p) => p.name)).not.toContain('front edge');
  });

  it('count only what was said of what is on now', () => {
    const place = { name: 'nose', areaIds: ['side'] };
    const seen = [look('nose', { coats: 2 }), look('nose'), look('Side')];
    expect(looksAt(seen, place, 3)).toEqual([seen[1]]);
  });
});

describe('what inspection says', () => {
  it('in the family’s own words: every verdict of every family is marked, and only a match is none', () => {
    for (const family of FAMILY_IDS)
      for (const verdict of VERDICTS) {
        const said = sayVerdict(family, verdict);
        expect(said.off).toBe(verdict !== 'match');
        if (said.off) expect([FAMILIES[family].byEye.less, FAMILIES[family].byEye.more]).toContain(said.word);
        expect(said.mark.length).toBe(verdict.startsWith('much') ? 2 : 1);
      }
  });

  it('names what is off, from where, against what, and nothing that matches', () => {
    expect(sayOff('pearl', [look('a'), look('a', { view: 'low light', verdict: 'much lighter' })])).toBe(
      'clearly lighter at dusk',
    );
    expect(sayOff('pearl', [look('a', { hue: 'redder' })])).toBe('redder at the face in the sun');
    expect(sayOff('pearl', [look('a', { verdict: 'darker', against: 'Lid' })])).toBe(
      'darker than Lid at the face in the sun',
    );
    expect(sayOff('pearl', [look('a')])).toBe('');
  });

  const ask = (q: Partial<Parameters<typeof sayInspect>[0]>) =>
    sayInspect({ family: 'pearl', moment: 'last chance', live: live(), places: [], unseen: undefined, ...q });

  it('a place that was only read is said by its readings, and one that was judged by its word', () => {
    expect(sayRead({ ...spot('nose', 'short'), byEye: false })).toBe('short by its readings');
    expect(sayRead({ ...spot('nose', 'matched'), byEye: false })).toBe('');
    expect(sayRead(spot('nose', 'short'))).toBe('');
    const read = live({ ...spot('nose', 'short', 0.4), byEye: false });
    const said = ask({ live: read, places: [{ name: 'nose', areaIds: ['side'], looks: [] }] });
    expect(said.answer).toBe('Nose is about 0.4 coats short. It can be mended.');
    expect(said.why).toContain('Nose: short by its readings.');
    expect(placesOf(plan, ids, [], ['nose', 'Side']).map((p) => p.name)).toEqual(['Side', 'Lid', 'nose']);
  });

  it('leads with the worst: over before short, short by how much, and what is missing before it is called matched', () => {
    const both = live(spot('nose', 'short', 0.4), spot('Lid', 'over', -0.6));
    expect(ask({ live: both }).answer).toBe('Lid is about 0.6 coats over. No coat there takes it back.');
    expect(ask({ live: live(spot('nose', 'short', 0.4)) }).answer).toBe(
      'Nose is about 0.4 coats short. It can be mended.',
    );
    expect(ask({ moment: 'finished', live: live(spot('nose', 'short', 0.4)) }).answer).toContain('through the clear');
    const unseen = { objectId: 'o', name: 'o', missing: ['in low light' as const] };
    const places = [{ name: 'nose', areaIds: ['side'], looks: [look('nose')] }];
    expect(ask({ live: live(spot('nose', 'matched')), places, unseen }).answer).toContain(
      'Not to be called matched yet',
    );
    expect(ask({ live: live(spot('nose', 'matched')), places }).answer).toContain('It matches from everywhere');
    expect(ask({ moment: null }).answer).toContain('Nothing of the effect is on yet');
  });

  it('never calls matched what was called off anywhere', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...VIEWS), fc.constantFrom(...VERDICTS)), { minLength: 1, maxLength: 5 }),
        fc.constantFrom<SpotState['zone']>('matched', 'short', 'over', 'unlike', 'again'),
        (said, zone) => {
          const looks = said.map(([view, verdict]) => look('nose', { view, verdict }));
          const off = said.some(([, v]) => v !== 'match');
          const { answer } = ask({
            live: live(spot('nose', zone, zone === 'over' ? -0.5 : 0.5)),
            places: [{ name: 'nose', areaIds: ['side'], looks }],
          });
          if (off || zone === 'over' || zone === 'unlike') expect(answer).not.toContain('It matches from everywhere');
        },
      ),
    );
  });
});
