import { describe, expect, it } from '@jest/globals';
import { ownMaterialSchema } from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY, type OwnMaterial } from '@steady-gleam/core/materials';
import { createFilm } from '@steady-gleam/core/optics';
import fc from 'fast-check';
import { copyOf, EMPTY, fieldsOf, groundLook, toCandidate, toValues, type MaterialKind } from './materialForms';
import type { FormValues } from './formField';

const library = REFERENCE_LIBRARY;
const film = createFilm();
const id = '00000000-0000-4000-8000-000000000001';
const PLAIN = ['ground', 'pigment', 'dye', 'carrier'] as const;
const candidateOf = (kind: MaterialKind, values: FormValues) =>
  toCandidate(kind, id, values, fieldsOf(kind, library, values), film);
const keptOf = (kind: MaterialKind, values: FormValues): OwnMaterial =>
  ownMaterialSchema.validateSync(candidateOf(kind, values));

describe('materials as they are typed', () => {
  it('every ground, pigment and carrier of the library that can be copied is kept as it stands there', () => {
    for (const kind of ['ground', 'pigment', 'carrier'] as const) {
      const list = { ground: library.grounds, pigment: library.pigments, carrier: library.carriers }[kind];
      const copies = list.map((m) => copyOf(kind, m.id, library)).filter((v): v is FormValues => v !== null);
      expect(copies.length).toBeGreaterThanOrEqual(3);
      for (const values of copies) {
        const kept = keptOf(kind, values);
        // And open again with what was kept.
        expect(keptOf(kind, toValues(kept))).toEqual(kept);
      }
    }
    expect(copyOf('ground', 'gone', library)).toBeNull();
    expect(copyOf('dye', library.dyes[0]!.id, library)).toBeNull();
  });

  it('what begins a new one lacks a name and what was read, and nothing else', () => {
    const faultsOf = (kind: MaterialKind): string[] => {
      try {
        ownMaterialSchema.validateSync(candidateOf(kind, EMPTY[kind]), { abortEarly: false });
        return [];
      } catch (error) {
        return [
          ...new Set((error as { inner: { path: string }[] }).inner.map((e) => e.path.replace(/\[.*/, ''))),
        ].sort();
      }
    };
    expect(faultsOf('ground')).toEqual(['lab', 'mark', 'name']);
    expect(faultsOf('pigment')).toEqual(['name']);
    expect(faultsOf('dye')).toEqual(['bare', 'dyed', 'name']);
    expect(faultsOf('carrier')).toEqual(['name']);
  });

  it('what is no number stays as it was typed, so that it is named at its field', () => {
    const candidate = candidateOf('carrier', { ...EMPTY.carrier, filmUm: 'thin', densityGPerMl: ' ' });
    expect(candidate).toMatchObject({ filmUm: 'thin', volumeSolids: 0.2, densityGPerMl: undefined });
    expect(() => ownMaterialSchema.validateSync({ ...candidate, name: 'x' }, { abortEarly: false })).toThrow();
  });

  it('never fall over, whatever is typed, and every field has a name and a label of its own', () => {
    const text = fc.oneof(fc.string(), fc.double().map(String), fc.constantFrom('', '-1', '1e9', '½', '4:2:1', '1,5'));
    fc.assert(
      fc.property(fc.constantFrom(...PLAIN), fc.nat(), text, (kind, nth, typed) => {
        const fields = fieldsOf(kind, library, EMPTY[kind]);
        expect(new Set(fields.map((f) => f.name)).size).toBe(fields.length);
        const f = fields[nth % fields.length]!;
        const values = { ...EMPTY[kind], [f.type === 'lab' ? `${f.name}/0` : f.name]: typed };
        expect(candidateOf(kind, values)).toMatchObject({ kind, id });
      }),
    );
  });
});

describe('a ground mixed by parts', () => {
  const typed = (white: string, black: string): FormValues => ({
    ...{ ...EMPTY.ground, from: 'parts', name: 'Harbour grey', mark: 'harbour' },
    ...{ 'solids/0/solidId': 'solid-white', 'solids/0/parts': white },
    ...{ 'solids/1/solidId': 'solid-black', 'solids/1/parts': black },
  });

  it('has its look and its hiding from its parts, and keeps them', () => {
    const values = typed('10', '0,5');
    const look = groundLook(film, values)!;
    const kept = keptOf('ground', values);
    expect(kept).toMatchObject({ lab: look.lab, hidesIn: look.hidesIn });
    expect(kept.kind === 'ground' && kept.solids).toEqual([
      { solidId: 'solid-white', parts: 10 },
      { solidId: 'solid-black', parts: 0.5 },
    ]);
    expect(groundLook(film, typed('10', '2'))!.lab[0]).toBeLessThan(look.lab[0]);
    expect(keptOf('ground', toValues(kept))).toEqual(kept);
  });

  it('says nothing of its look before a part is given, or where its look was read', () => {
    expect(groundLook(film, typed('', ''))).toBeNull();
    expect(groundLook(film, typed('much', '0'))).toBeNull();
    expect(groundLook(film, { ...typed('1', '1'), from: 'reading' })).toBeNull();
  });

  it('asks for a further base colour once one is chosen, and for its parts', () => {
    const names = (values: FormValues) => fieldsOf('ground', library, values).map((f) => f.name);
    expect(names({ ...EMPTY.ground, from: 'parts' })).not.toContain('solids/1/solidId');
    expect(names(typed('1', '1'))).toContain('solids/2/solidId');
    expect(names(EMPTY.ground)).toContain('lab');
    expect(names(typed('1', '1'))).not.toContain('lab');
  });
});
