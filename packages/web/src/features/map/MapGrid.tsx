import { useTheme } from '@mui/material';
import type { MatchMap, TargetAngle } from '@steady-gleam/core/matching';
import { findGround, type GroundMaterial } from '@steady-gleam/core/materials';
import {
  memo,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
} from 'react';
import { FIGURES } from '../../app/theme';
import { cssOf } from '../../shared/screenColour';
import { useGroundColours } from '../../shared/useGroundColours';
import { useRested } from '../../shared/useRested';
import { drawMap } from './drawMap';
import { columnLabel } from './mapModel';
import type { Probe } from './useProbe';

interface MapGridProps {
  readonly map: MatchMap;
  /** Mix strength this map was computed for. */
  readonly strength: number;
  readonly grounds: readonly GroundMaterial[];
  readonly target: readonly TargetAngle[];
  /** Index of the angle shown. */
  readonly angle: number;
  readonly exposure: number;
  readonly probe: Probe;
  readonly onProbe: (p: Probe) => void;
  /** Keys that are not about the place: [ and ] step the angle, L the light. */
  readonly onStep: (step: 'angle up' | 'angle down' | 'light') => void;
}

/** A row of the map is at least this high, px: forty grounds then scroll with the page. */
const LEAST_ROW = 20;

const STRETCH: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%' };

/** Ground shades by coat counts, one picture. Pointer or arrow keys move the probe. */
export const MapGrid = memo(function MapGrid(props: MapGridProps) {
  const { map, strength, grounds, target, angle, exposure, probe, onProbe, onStep } = props;
  const { tones } = useTheme();
  const grid = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const rows = map.rows.length;
  const columns = map.counts.length;
  const atRow = Math.max(
    0,
    map.rows.findIndex((r) => r.groundId === probe.groundId),
  );
  const atColumn = Math.max(0, map.counts.indexOf(probe.coats));
  const hadKeys = useRef(false);

  useEffect(() => {
    const element = canvas.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useLayoutEffect(() => {
    const element = canvas.current!;
    const width = Math.round(size.width * devicePixelRatio);
    const height = Math.round(size.height * devicePixelRatio);
    if (!width || !height) return;
    if (element.width !== width || element.height !== height) {
      element.width = width;
      element.height = height;
    }
    const picture = { map, angle, exposure, target: target[angle]!.lab, pick: tones.pick, probe };
    drawMap(element.getContext('2d', { alpha: false })!, picture, width, height, devicePixelRatio);
  }, [map, angle, exposure, target, size, tones, probe]);

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
    const other = ({ '[': 'angle down', ']': 'angle up', l: 'light', L: 'light' } as const)[e.key];
    if (by) {
      e.preventDefault();
      hadKeys.current = true;
      move(atRow + by[0], atColumn + by[1]);
    } else if (other && !e.ctrlKey && !e.metaKey) {
      e.preventDefault();
      onStep(other);
    }
  };

  return (
    <div
      style={{
        flex: 1,
        minHeight: Math.max(300, rows * LEAST_ROW),
        display: 'grid',
        gridTemplateColumns: '88px 34px 1fr',
        gridTemplateRows: '1fr auto',
      }}
    >
      <GroundMarks map={map} grounds={grounds} at={atRow} />
      <div
        ref={grid}
        role="grid"
        aria-label="Match map: grounds by effect coats"
        data-strength={strength}
        aria-rowcount={rows}
        aria-colcount={columns}
        tabIndex={-1}
        onKeyDown={onKey}
        onClick={(e) => {
          const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
          if (cell) move(Number(cell.dataset['row']), Number(cell.dataset['column']));
        }}
        style={{ position: 'relative', cursor: 'crosshair', minWidth: 0, marginLeft: 8 }}
      >
        <canvas ref={canvas} aria-hidden style={STRETCH} />
        <Cells map={useRested(map, 150)} grounds={grounds} atRow={atRow} atColumn={atColumn} />
      </div>
      <div style={{ gridColumn: '1 / 3' }} />
      <div
        aria-hidden
        style={{
          display: 'grid',
          gridTemplateColumns: `repeat(${columns}, 1fr)`,
          marginLeft: 8,
          fontFamily: FIGURES,
          fontSize: 14,
          paddingTop: 5,
          textAlign: 'center',
        }}
      >
        {map.counts.map((n) => (
          <span key={n}>{columnLabel(n)}</span>
        ))}
      </div>
    </div>
  );
});

/** A ground's name, and what it is in words where the name is a figure. */
const sayGround = ({ name, words }: GroundMaterial): string => (words ? `${name}, ${words}` : name);

const idsOf = (map: MatchMap): string => map.rows.map((r) => r.groundId).join();

/** Names and faces of the grounds, left of their rows. */
const GroundMarks = memo(
  function GroundMarks({ map, grounds, at }: { map: MatchMap; grounds: readonly GroundMaterial[]; at: number }) {
    const colourOf = useGroundColours();
    const list: CSSProperties = { display: 'grid', gridTemplateRows: `repeat(${map.rows.length}, 1fr)`, minHeight: 0 };
    return (
      <>
        <div style={{ ...list, fontFamily: '"Archivo Variable", sans-serif', fontStretch: '80%', fontWeight: 600 }}>
          {map.rows.map((r, i) => (
            <span
              key={r.groundId}
              title={sayGround(findGround(r.groundId, grounds))}
              style={{
                alignSelf: 'center',
                fontSize: 14.5,
                lineHeight: 1.1,
                whiteSpace: 'nowrap',
                ...(i === at ? { textDecoration: 'underline', textUnderlineOffset: 3 } : {}),
              }}
            >
              {findGround(r.groundId, grounds).mark}
            </span>
          ))}
        </div>
        <div style={list} aria-hidden>
          {map.rows.map((r) => (
            <div key={r.groundId} style={{ background: cssOf(colourOf(r.groundId)) }} />
          ))}
        </div>
      </>
    );
  },
  (a, b) => a.at === b.at && a.grounds === b.grounds && idsOf(a.map) === idsOf(b.map),
);

/**
 * The same map for keyboard and screen readers: a transparent cell over every drawn one. It follows the picture when the slider
 * rests, so that dragging stays quick.
 */
const Cells = memo(function Cells({
  map,
  grounds,
  atRow,
  atColumn,
}: {
  map: MatchMap;
  grounds: readonly GroundMaterial[];
  atRow: number;
  atColumn: number;
}) {
  const columns = map.counts.length;
  return (
    <div style={{ ...STRETCH, display: 'grid', gridTemplateRows: `repeat(${map.rows.length}, 1fr)` }}>
      {map.rows.map((row, i) => {
        const name = findGround(row.groundId, grounds).name;
        return (
          <div
            role="row"
            key={row.groundId}
            style={{ display: 'grid', gridTemplateColumns: `repeat(${columns}, 1fr)`, minWidth: 0, minHeight: 0 }}
          >
            {row.cells.map((cell, c) => (
              <div
                key={cell.coats}
                role="gridcell"
                aria-label={`${name}, ${columnLabel(cell.coats)} coats, dE ${cell.score.rmsDe.toFixed(1)}${cell.score.toleranceRatio <= 1 ? ', passes' : ''}`}
                aria-selected={i === atRow && c === atColumn}
                tabIndex={i === atRow && c === atColumn ? 0 : -1}
                data-row={i}
                data-column={c}
                style={{ outlineOffset: -3 }}
              />
            ))}
          </div>
        );
      })}
    </div>
  );
});
