import { createRandom } from '@steady-gleam/core/numeric';
import { randomUUID } from 'crypto';
import { type Sent, json, EVENTS, event } from './bodies';
import { FAMILY, JOB } from './writing';

/** Requests with something wrong in them, made from right ones. */
export function malformed(count: number, seed: number): Sent[] {
  const random = createRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const odd: readonly unknown[] = [
    ...[null, true, -1, 0, 1.5, 2 ** 31, 2 ** 53, 1e308, -1e308, '', ' ', 'x', '\0', '\ud800', 'a\udfff', '__proto__'],
    ...[
      'x'.repeat(5000),
      [],
      {},
      [[]],
      [null],
      { a: 1 },
      '2026-02-31T00:00:00.000Z',
      '9999-99-99T99:99:99Z',
      'NaN',
      '٣',
      '%',
      '1e999',
    ],
  ];
  const right = (): Sent => {
    const id = randomUUID();
    return pick([
      json('job', '/api/jobs', { id, piece: 'p', matching: 'm', family: FAMILY, mixId: 'cinder-candy' }),
      json('change', `/api/jobs/${JOB}`, { version: 1, piece: 'p' }, 'PATCH'),
      json('copy', `/api/jobs/${JOB}/copy`, { id, piece: 'p' }),
      json('event', EVENTS, { events: [event({ id })] }),
      json('readings', `/api/jobs/${JOB}/readings`, {
        ...{
          id,
          kind: 'spot',
          rungCoats: 2,
          source: 'typed',
          label: 'l',
          objectId: null,
          state: 'cleared',
          doubt: null,
        },
        ...{
          takenAt: '2026-11-20T09:00:00.000Z',
          readings: [{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 3, b: 2 }],
        },
      }),
      json('verdict', `/api/finishes/${JOB}/verdicts`, {
        id,
        coats: 2,
        view: 'face',
        verdict: 'same',
        hue: null,
        takenAt: '2026-11-20T09:00:00.000Z',
      }),
      json('batch', '/api/batches', {
        id,
        jobId: JOB,
        layerId: 'effect',
        name: 'b',
        productId: null,
        gunId: null,
        parts: [],
        ml: 10,
      }),
      json('session', '/api/session', { passcode: 'x' }),
      json('codes', '/api/shop/codes', { lookCode: 'abcdefg' }, 'PUT'),
      json('restore', '/api/shop/restore', { name: 'x', isSure: true }),
      json('nearest', '/api/bank/nearest', { angles: [], count: 5 }),
      json('gun', `/api/guns/${id}`, { version: 0, gun: { id, name: 'g' } }, 'PUT'),
      json('material', `/api/materials/${id}`, { version: 0, material: { id, kind: 'solid' } }, 'PUT'),
      json('finish', '/api/finishes', { id, name: 'n', codes: [] }),
      json('limits', `/api/limits/${FAMILY}`, { version: 0, own: [], source: '' }, 'PUT'),
      {
        what: 'photo',
        method: 'POST',
        path: `/api/jobs/${JOB}/photos?id=${id}&kind=job&takenAt=2026-11-20T09:00:00.000Z`,
        body: 'no picture',
        headers: { 'Content-Type': 'image/png' },
      },
      {
        what: 'get',
        method: 'GET',
        path: pick([
          '/api/jobs?page=0',
          `/api/jobs/${JOB}`,
          '/api/finishes?page=0',
          `/api/jobs/${JOB}/events?since=0`,
          '/api/batches',
          '/api/damaged',
          `/api/photos/${id}`,
          `/api/jobs/${JOB}/sheet.pdf`,
        ]),
        body: '',
      },
    ]);
  };
  const strain = (value: unknown): unknown => {
    if (random() < 0.25 || value === null || typeof value !== 'object') return pick(odd);
    if (Array.isArray(value))
      return value.length && random() < 0.7 ? value.map((v, i) => (i ? v : strain(v))) : pick(odd);
    const keys = Object.keys(value);
    const key = pick(keys.length ? keys : ['x']);
    const next: Record<string, unknown> = { ...(value as Record<string, unknown>) };
    if (random() < 0.15) delete next[key];
    else if (random() < 0.1) next[String(pick(odd)).slice(0, 50)] = pick(odd);
    else next[key] = strain(next[key]);
    return next;
  };
  return Array.from({ length: count }, (_, n): Sent => {
    const base = right();
    const kind = random();
    const what = `${n}: ${base.what}`;
    if (kind < 0.55 && typeof base.body === 'string' && base.body.startsWith('{'))
      return { ...base, what, body: JSON.stringify(strain(JSON.parse(base.body))) };
    if (kind < 0.7)
      return {
        ...base,
        what,
        path: base.path.replace(
          JOB,
          pick(['%', '%00', '%ff', '..%2f', 'x'.repeat(3000), '%F0%9F', JOB.toUpperCase(), randomUUID()]),
        ),
      };
    if (kind < 0.8)
      return {
        ...base,
        what,
        path: `${base.path}${base.path.includes('?') ? '&' : '?'}${pick(['page', 'words', 'since', 'sort', 'units', 'zone', 'size', 'as'])}=${pick(['%', '%00', '-1', '1e9', '%ED%A0%80', 'a'.repeat(4000), '2147483648', '[]', '..'])}`,
      };
    if (kind < 0.88) return { ...base, what, headers: { 'Content-Encoding': pick(['gzip', 'br', 'deflate', 'x']) } };
    if (kind < 0.94)
      return { ...base, what, body: String(base.body).slice(0, Math.floor(random() * String(base.body).length)) };
    return {
      ...base,
      what,
      headers: {
        'Content-Type': pick([
          'text/plain',
          'application/json; charset=utf-16',
          'image/png',
          '',
          'multipart/form-data; boundary=x',
        ]),
      },
    };
  });
}
