import { Alert, Box, Button, useTheme } from '@mui/material';
import { piecesSchema, type Piece } from '@steady-gleam/contracts';
import { pieceArea, type Measure } from '@steady-gleam/core';
import { useState } from 'react';
import { ValidationError } from 'yup';
import { FIGURES } from '../../app/theme';
import { numberIn } from '../../shared/numberIn';
import { Field } from '../../shared/Field';
import { MeasureField } from '../../shared/MeasureField';
import { useUnits } from '../../shared/units';
import { newId } from '../../shared/newId';

type MeasureName = keyof Piece['measures'];

/** The measures of each shape, in the order they are asked. */
const SHAPES: Record<
  Piece['shape'],
  { readonly name: string; readonly asks: readonly (readonly [MeasureName, string, Measure])[] }
> = {
  area: { name: 'Area', asks: [['area', 'Area', 'area']] },
  panel: {
    name: 'Panel',
    asks: [
      ['width', 'Width', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  cylinder: {
    name: 'Cylinder',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  dome: {
    name: 'Dome',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  tub: {
    name: 'Tub',
    asks: [
      ['top', 'Top', 'length'],
      ['bottom', 'Floor', 'length'],
      ['height', 'Height', 'length'],
    ],
  },
  tube: {
    name: 'Tube frame',
    asks: [
      ['diameter', 'Diameter', 'length'],
      ['length', 'Length', 'length'],
    ],
  },
};

interface TypedPiece {
  readonly piece: Piece;
  readonly count: string;
  readonly measures: Partial<Record<MeasureName, string>>;
}

const typedOf = (piece: Piece): TypedPiece => ({
  piece,
  count: String(piece.count),
  measures: Object.fromEntries(
    Object.entries(piece.measures).flatMap(([k, v]) => (v === undefined ? [] : [[k, String(v)]])),
  ),
});

const pieceOf = (t: TypedPiece): Piece => ({
  ...t.piece,
  count: numberIn(t.count),
  measures: Object.fromEntries(SHAPES[t.piece.shape].asks.map(([name]) => [name, numberIn(t.measures[name])])),
});

/** What is to be sprayed: pieces by area or by simple shapes; kept with the job. */
export function PiecesPanel({
  pieces,
  onKeep,
  failure,
}: {
  pieces: readonly Piece[];
  onKeep: (pieces: Piece[]) => void;
  failure: string | null;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const [typed, setTyped] = useState(() => pieces.map(typedOf));
  const [faults, setFaults] = useState<Record<string, string>>({});
  const change = (i: number, next: TypedPiece) => setTyped((old) => old.map((t, k) => (k === i ? next : t)));
  const keep = () => {
    try {
      const checked = piecesSchema.validateSync(typed.map(pieceOf), { abortEarly: false });
      setFaults({});
      onKeep(checked as Piece[]);
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const found: Record<string, string> = {};
      for (const e of error.inner) found[e.path ?? ''] ??= e.message;
      setFaults(found);
    }
  };
  const changed = JSON.stringify(typed.map(pieceOf)) !== JSON.stringify(pieces.map((p) => pieceOf(typedOf(p))));
  return (
    <Box component="section" aria-label="Pieces">
      {typed.map((t, i) => {
        const area = pieceArea(pieceOf(t));
        return (
          <Box
            key={t.piece.id}
            role="group"
            aria-label={t.piece.name || `Piece ${i + 1}`}
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                // On a tablet name and shape stand above the figures.
                xs: 'repeat(3, minmax(76px, 1fr)) 56px 86px 74px',
                lg: 'minmax(150px, 1.5fr) 130px repeat(3, minmax(76px, 1fr)) 56px 82px 74px',
              },
              '& > div:nth-of-type(-n+2)': { gridColumn: { xs: 'span 3', lg: 'auto' } },
              gap: 1,
              alignItems: 'start',
              borderTop: `1px solid ${tones.hairline}`,
              py: 0.75,
            }}
          >
            <Field
              label="Piece"
              value={t.piece.name}
              onChange={(e) => change(i, { ...t, piece: { ...t.piece, name: e.target.value } })}
              error={faults[`[${i}].name`]}
            />
            <Field
              label="Shape"
              select
              value={t.piece.shape}
              onChange={(e) => change(i, { ...t, piece: { ...t.piece, shape: e.target.value as Piece['shape'] } })}
            >
              {Object.entries(SHAPES).map(([id, s]) => (
                <option key={id} value={id}>
                  {s.name}
                </option>
              ))}
            </Field>
            {SHAPES[t.piece.shape].asks.map(([name, label, measure]) => (
              <MeasureField
                key={name}
                measure={measure}
                label={label}
                value={t.measures[name] ?? ''}
                onValue={(v) => change(i, { ...t, measures: { ...t.measures, [name]: v } })}
                error={faults[`[${i}].measures.${name}`]}
              />
            ))}
            {Array.from({ length: 3 - SHAPES[t.piece.shape].asks.length }, (_, k) => (
              <span key={k} />
            ))}
            <Field
              label="Alike"
              value={t.count}
              onChange={(e) => change(i, { ...t, count: e.target.value })}
              error={faults[`[${i}].count`]}
              decimal
            />
            <Box sx={{ fontFamily: FIGURES, textAlign: 'right', pt: '36px', whiteSpace: 'nowrap' }}>
              {area === null ? '–' : units.say('area', area)}
            </Box>
            <Button
              variant="text"
              color="inherit"
              disabled={typed.length === 1}
              aria-label={`Take out ${t.piece.name}`}
              onClick={() => setTyped(typed.filter((_, k) => k !== i))}
              sx={{ px: 0.5, mt: '26px', fontSize: 14 }}
            >
              Take out
            </Button>
          </Box>
        );
      })}
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary', my: 1 }}>
          {failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
        <Button
          variant="outlined"
          disabled={typed.length >= 40}
          onClick={() =>
            setTyped([
              ...typed,
              typedOf({
                id: newId(),
                name: '',
                shape: 'panel',
                measures: {},
                count: 1,
                x: null,
                y: null,
                mounting: 'object',
                first: false,
              }),
            ])
          }
        >
          Add a piece
        </Button>
        <Button variant={changed ? 'contained' : 'outlined'} disabled={!changed} onClick={keep}>
          Keep these pieces
        </Button>
      </Box>
    </Box>
  );
}
