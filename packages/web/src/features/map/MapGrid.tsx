import { Box, useTheme } from '@mui/material';
import { findGround, type MatchMap, type TargetAngle } from '@steady-gleam/core';
import { memo, useCallback, useEffect, useRef, type KeyboardEvent } from 'react';
import { FIGURES } from '../../app/theme';
import { useLibrary } from '../../shared/library';
import { CellColours } from './CellColours';
import { cssOf, groundFace, inkOn } from '../../shared/screenColour';
import { columnAt, columnLabel } from './mapModel';
import type { Probe } from './useProbe';

interface CellProps {
  readonly ink: string;
  readonly figure: string;
  readonly label: string;
  readonly tabIndex: number;
  readonly row: number;
  readonly column: number;
  readonly selected: boolean;
}

/** The figure and the name of a cell; its two colours are on the canvas behind. */
const Cell = memo(function Cell({ ink, figure, label, tabIndex, row, column, selected }: CellProps) {
  return (
    <div
      role="gridcell"
      aria-label={label}
      aria-selected={selected}
      tabIndex={tabIndex}
      data-row={row}
      data-column={column}
      style={{
        color: ink,
        display: 'flex',
        alignItems: 'flex-end',
        justifyContent: 'flex-end',
        padding: '0 5px 2px',
        fontFamily: FIGURES,
        fontSize: 13,
        minWidth: 0,
        outlineOffset: -3,
      }}
    >
      {figure}
    </div>
  );
});

interface MapGridProps {
  readonly map: MatchMap;
  /** Mix strength this map was computed for. */
  readonly strength: number;
  readonly target: readonly TargetAngle[];
  /** Index of the angle shown. */
  readonly angle: number;
  readonly exposure: number;
  readonly probe: Probe;
  readonly onProbe: (p: Probe) => void;
  readonly onAngle: (step: 1 | -1) => void;
}

/** Figures are shown up to this rms difference. */
const SAY_UP_TO = 9.95;

/** Ground shades by coat counts. Pointer or arrow keys move the probe; [ and ] step the angle. */
export const MapGrid = memo(function MapGrid({
  map,
  strength,
  target,
  angle,
  exposure,
  probe,
  onProbe,
  onAngle,
}: MapGridProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const grid = useRef<HTMLDivElement>(null);
  const rows = map.rows.length;
  const columns = map.counts.length;
  const atRow = Math.max(
    0,
    map.rows.findIndex((r) => r.groundId === probe.groundId),
  );
  const atColumn = Math.max(0, map.counts.indexOf(probe.coats));
  const targetLab = target[angle]!.lab;
  const hadKeys = useRef(false);

  useEffect(() => {
    if (!hadKeys.current) return;
    hadKeys.current = false;
    grid.current?.querySelector<HTMLElement>(`[data-row="${atRow}"][data-column="${atColumn}"]`)?.focus();
  }, [atRow, atColumn]);

  const move = useCallback(
    (row: number, column: number) => {
      const r = Math.min(rows - 1, Math.max(0, row));
      const c = Math.min(columns - 1, Math.max(0, column));
      onProbe({ groundId: map.rows[r]!.groundId, coats: map.counts[c]! });
    },
    [map, rows, columns, onProbe],
  );

  const onKey = (e: KeyboardEvent) => {
    const step: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      Home: [0, -columns],
      End: [0, columns],
    };
    const by = step[e.key];
    if (by) {
      e.preventDefault();
      hadKeys.current = true;
      move(atRow + by[0], atColumn + by[1]);
    } else if (e.key === '[' || e.key === ']') {
      e.preventDefault();
      onAngle(e.key === ']' ? 1 : -1);
    }
  };

  const fromPointer = (element: EventTarget): void => {
    const cell = (element as HTMLElement).closest<HTMLElement>('[data-row]');
    if (cell) move(Number(cell.dataset['row']), Number(cell.dataset['column']));
  };

  return (
    <Box
      sx={{
        flex: 1,
        minHeight: 360,
        display: 'grid',
        gridTemplateColumns: '70px 34px 1fr',
        gridTemplateRows: '1fr auto',
      }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateRows: `repeat(${rows}, 1fr)`,
          fontFamily: 'h3.fontFamily',
          fontStretch: '80%',
          fontWeight: 600,
          fontSize: 14.5,
        }}
      >
        {map.rows.map((r, i) => (
          <Box
            key={r.groundId}
            sx={{
              display: 'flex',
              alignItems: 'center',
              ...(i === atRow ? { textDecoration: 'underline', textUnderlineOffset: 3 } : {}),
            }}
          >
            {findGround(r.groundId, library.grounds).mark}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateRows: `repeat(${rows}, 1fr)`, mr: 1 }} aria-hidden>
        {map.rows.map((r) => (
          <div key={r.groundId} style={{ background: cssOf(groundFace(findGround(r.groundId, library.grounds))) }} />
        ))}
      </Box>
      <Box
        ref={grid}
        role="grid"
        aria-label="Match map: grounds by effect coats"
        data-strength={strength}
        aria-rowcount={rows}
        aria-colcount={columns}
        onKeyDown={onKey}
        onClick={(e) => fromPointer(e.target)}
        sx={{
          position: 'relative',
          display: 'grid',
          gridTemplateRows: `repeat(${rows}, 1fr)`,
          cursor: 'crosshair',
          minWidth: 0,
        }}
      >
        <CellColours map={map} angle={angle} exposure={exposure} target={targetLab} />
        {map.rows.map((row, i) => (
          <Box
            role="row"
            key={row.groundId}
            sx={{ position: 'relative', display: 'grid', gridTemplateColumns: `repeat(${columns}, 1fr)`, minWidth: 0 }}
          >
            {row.cells.map((cell, c) => {
              return (
                <Cell
                  key={cell.coats}
                  row={i}
                  column={c}
                  ink={inkOn(targetLab, exposure)}
                  figure={cell.score.meanDe <= SAY_UP_TO ? cell.score.meanDe.toFixed(1) : ''}
                  label={`${findGround(row.groundId, library.grounds).name}, ${columnLabel(cell.coats)} coats, dE ${cell.score.meanDe.toFixed(1)}${cell.score.badness <= 1 ? ', passes' : ''}`}
                  tabIndex={i === atRow && c === atColumn ? 0 : -1}
                  selected={i === atRow && c === atColumn}
                />
              );
            })}
          </Box>
        ))}
        <svg
          viewBox={`0 0 ${columns} ${rows}`}
          preserveAspectRatio="none"
          width="100%"
          height="100%"
          style={{ position: 'absolute', inset: 0, pointerEvents: 'none', overflow: 'visible' }}
          aria-hidden
        >
          {map.rows.map((row, i) => {
            if (!row.stop.window) return null;
            const x0 = columnAt(row.stop.window[0], columns);
            const x1 = columnAt(row.stop.window[1], columns);
            return (
              <g key={row.groundId} fill="none" vectorEffect="non-scaling-stroke">
                <rect
                  x={x0}
                  y={i + 0.1}
                  width={Math.max(0.03, x1 - x0)}
                  height={0.8}
                  stroke="#f4f4f4"
                  strokeWidth="4"
                  vectorEffect="non-scaling-stroke"
                />
                <rect
                  x={x0}
                  y={i + 0.1}
                  width={Math.max(0.03, x1 - x0)}
                  height={0.8}
                  stroke="#101010"
                  strokeWidth="1.75"
                  vectorEffect="non-scaling-stroke"
                />
              </g>
            );
          })}
          <Ring map={map} at={map.best} colour={tones.pick} width={5} />
          {probe.groundId === map.best.groundId && probe.coats === map.best.coats ? null : (
            <Ring map={map} at={probe} colour="#101010" width={2} dashed />
          )}
        </svg>
      </Box>
      <Box />
      <Box />
      <Box>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: `repeat(${columns}, 1fr)`,
            fontFamily: FIGURES,
            fontSize: 14,
            pt: 0.6,
          }}
          aria-hidden
        >
          {map.counts.map((n) => (
            <Box key={n} sx={{ textAlign: 'center' }}>
              {columnLabel(n)}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
});

function Ring({
  map,
  at,
  colour,
  width,
  dashed,
}: {
  map: MatchMap;
  at: Probe;
  colour: string;
  width: number;
  dashed?: boolean;
}) {
  const row = map.rows.findIndex((r) => r.groundId === at.groundId);
  const column = map.counts.indexOf(at.coats);
  if (row < 0 || column < 0) return null;
  return (
    <>
      {dashed ? (
        <rect
          x={column}
          y={row}
          width={1}
          height={1}
          fill="none"
          stroke="#f4f4f4"
          strokeWidth={width}
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
      <rect
        x={column}
        y={row}
        width={1}
        height={1}
        fill="none"
        stroke={colour}
        strokeWidth={width}
        vectorEffect="non-scaling-stroke"
        {...(dashed ? { strokeDasharray: '5 4' } : {})}
      />
    </>
  );
}
