import { useTheme } from '@mui/material';
import type { BoothAir, BoothArea, worstOverspray } from '@steady-gleam/core/booth';
import { useRef, useState, type PointerEvent } from 'react';
import { FIGURES } from '../../app/theme';

/** Booth drawn, m. */
export const [WIDE, DEEP] = [6, 4];

/** The booth from above: areas where they stand, their order, the air, and the pair that suffers; areas are dragged. */
export function BoothPicture({
  order,
  air,
  worst,
  standing,
  onMove,
}: {
  order: readonly BoothArea[];
  air: BoothAir;
  worst: ReturnType<typeof worstOverspray>;
  /** Areas that hang on a stand. */
  standing: readonly string[];
  onMove: (id: string, to: { x: number; y: number }) => void;
}) {
  const { tones } = useTheme();
  const svg = useRef<SVGSVGElement>(null);
  const [moving, setMoving] = useState<{ id: string; x: number; y: number } | null>(null);
  const at = (e: PointerEvent): { x: number; y: number } => {
    const box = svg.current!.getBoundingClientRect();
    const clamp = (v: number, hi: number) => Math.round(Math.min(hi - 0.2, Math.max(0.2, v)) * 10) / 10;
    return {
      x: clamp(((e.clientX - box.left) / box.width) * WIDE, WIDE),
      y: clamp(((e.clientY - box.top) / box.height) * DEEP, DEEP),
    };
  };
  const placed = (p: BoothArea) => (moving?.id === p.id ? moving : p);
  const angle = (air.towards * Math.PI) / 180;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDE * 100} ${DEEP * 100}`}
      width="100%"
      style={{ maxHeight: 440, background: tones.panel, touchAction: 'none' }}
      role="img"
      aria-label={`Booth: ${order.map((p, i) => `${i + 1} ${p.name}`).join(', ')}; air towards ${air.towards}°`}
      onPointerMove={(e) => moving && setMoving({ id: moving.id, ...at(e) })}
      onPointerUp={() => {
        if (moving) onMove(moving.id, { x: moving.x, y: moving.y });
        setMoving(null);
      }}
    >
      <rect x="1" y="1" width={WIDE * 100 - 2} height={DEEP * 100 - 2} fill="none" stroke={tones.ink} strokeWidth="2" />
      {Array.from({ length: 24 }, (_, i) => {
        const [x, y] = [60 + (i % 6) * 96, 50 + Math.floor(i / 6) * 98];
        const [dx, dy] = [26 * Math.cos(angle), 26 * Math.sin(angle)];
        return (
          <path
            key={i}
            d={`M${x - dx} ${y - dy}L${x + dx} ${y + dy}M${x + dx - 0.4 * dx - 0.22 * dy} ${y + dy - 0.4 * dy + 0.22 * dx}L${x + dx} ${y + dy}L${x + dx - 0.4 * dx + 0.22 * dy} ${y + dy - 0.4 * dy - 0.22 * dx}`}
            stroke={tones.hairline}
            strokeWidth="2.5"
            fill="none"
          />
        );
      })}
      <path
        d={order.map((p, i) => `${i ? 'L' : 'M'}${placed(p).x * 100} ${placed(p).y * 100}`).join('')}
        fill="none"
        stroke={tones.ink}
        strokeWidth="2"
        strokeDasharray="3 6"
      />
      {worst ? (
        <line
          x1={worst.from.x * 100}
          y1={worst.from.y * 100}
          x2={worst.onto.x * 100}
          y2={worst.onto.y * 100}
          stroke={tones.danger}
          strokeWidth="5"
          opacity="0.8"
        />
      ) : null}
      {order.map((p, i) => {
        const r = 20 + 13 * Math.sqrt(p.areaM2);
        const { x, y } = placed(p);
        return (
          <g
            key={p.id}
            transform={`translate(${x * 100} ${y * 100})`}
            style={{ cursor: 'grab' }}
            onPointerDown={(e) => {
              svg.current!.setPointerCapture(e.pointerId);
              setMoving({ id: p.id, x: p.x, y: p.y });
            }}
          >
            {standing.includes(p.id) ? (
              <rect
                x={-r}
                y={-r * 0.7}
                width={2 * r}
                height={1.4 * r}
                fill={tones.raised}
                stroke={tones.ink}
                strokeWidth="2"
              />
            ) : (
              <circle r={r} fill={tones.raised} stroke={tones.ink} strokeWidth="2" />
            )}
            <text textAnchor="middle" y="6" fontSize="21" fontWeight="700" fontFamily={FIGURES} fill={tones.ink}>
              {i + 1}
            </text>
            <text textAnchor="middle" y={r + 16} fontSize="14.5" fill={tones.ink}>
              {p.name}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
