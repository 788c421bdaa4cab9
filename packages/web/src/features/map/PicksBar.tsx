import { ButtonBase, useTheme } from '@mui/material';
import { withCount } from '@steady-gleam/core/finishes';
import { bestCell, recipeFigures, type MapPick, type MatchMap } from '@steady-gleam/core/matching';
import { findCarrier, findGround, findMix, type Library } from '@steady-gleam/core/materials';
import { memo } from 'react';
import { countCoats } from '../../shared/jobModel';
import { useUnits } from '../../shared/units';
import type { Mix } from '@steady-gleam/core/looks';
import { markPath, samePick } from './drawMap';
import { cellOf, rowOf } from './mapModel';

interface PicksBarProps {
  readonly map: MatchMap;
  readonly mix: Mix;
  readonly library: Library;
  readonly onShow: (pick: MapPick) => void;
}

/** The three picks, each with its sentence; pressing one takes the probe there. */
export const PicksBar = memo(function PicksBar({ map, mix, library, onShow }: PicksBarProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { best, forgiving, cheapest } = map;
  const place = (p: MapPick) => `${findGround(p.groundId, library.grounds).name}, ${countCoats(p.coats)}`;
  const system = findMix(mix.mixId, library.systems);
  const carrier = findCarrier(system.carrierId, library.carriers);
  const cost = (p: MapPick) =>
    recipeFigures(
      findGround(p.groundId, library.grounds),
      system,
      carrier,
      withCount(system.family, { ...mix, coats: 0 }, p.coats),
    ).costPerM2;
  const width = (p: MapPick) => {
    const [lo, hi] = rowOf(map, p.groundId).stop.window!;
    return hi - lo;
  };
  const saidForgiving = (): string => {
    if (!forgiving) return 'No half step passes on any ground.';
    const said = `window ${width(forgiving).toFixed(1)} coats wide, ${rowOf(map, forgiving.groundId).forgiveness.toFixed(1)} times your scatter`;
    return samePick(forgiving, best) ? `The best one: ${said}.` : `${place(forgiving)}: ${said}.`;
  };
  const saidCheapest = (): string => {
    if (!cheapest) return 'Nothing passes, so there is no cheapest.';
    const said = units.say('priceByArea', cost(cheapest));
    if (samePick(cheapest, best)) return `The best one: ${said}, demo prices.`;
    return `${place(cheapest)}: ${said}, ${units.figure('priceByArea', cost(best) - cost(cheapest))} less than the best.`;
  };
  const picks = [
    {
      name: 'Best match',
      at: best,
      said: `${place(best)}: dE00 ${bestCell(rowOf(map, best.groundId)).score.rmsDe.toFixed(1)} over all angles${cellOf(map, best.groundId, best.coats).score.toleranceRatio <= 1 ? '' : ', outside'}.`,
      mark: null,
    },
    { name: 'Most forgiving', at: forgiving, said: saidForgiving(), mark: 'wide' },
    { name: 'Cheapest', at: cheapest, said: saidCheapest(), mark: 'cheap' },
  ] as const;
  return (
    <div
      role="group"
      aria-label="Picks"
      style={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 12, marginTop: 8 }}
    >
      {picks.map((p) => (
        <ButtonBase
          key={p.name}
          disabled={!p.at}
          onClick={() => p.at && onShow(p.at)}
          style={{
            display: 'grid',
            gridTemplateColumns: '26px 1fr',
            columnGap: 8,
            alignItems: 'start',
            justifyContent: 'stretch',
            textAlign: 'left',
            minHeight: 56,
            padding: '5px 4px 3px 0',
            borderTop: `1px solid ${tones.hairline}`,
            font: 'inherit',
          }}
        >
          <svg width="26" height="22" aria-hidden>
            {p.mark ? (
              <Mark kind={p.mark} />
            ) : (
              <rect x="3" y="3" width="20" height="16" fill="none" stroke={tones.pick} strokeWidth="4" />
            )}
          </svg>
          <span>
            <span
              style={{
                fontWeight: 640,
                fontSize: 15.5,
                fontFamily: '"Archivo Variable", sans-serif',
                fontStretch: '82%',
              }}
            >
              {p.name}
            </span>
            <span style={{ display: 'block', fontSize: 14, lineHeight: 1.3 }}>{p.said}</span>
          </span>
        </ButtonBase>
      ))}
    </div>
  );
});

/** The same marks as on the map, drawn by the same path. */
function Mark({ kind }: { kind: 'wide' | 'cheap' }) {
  return (
    <foreignObject width="26" height="22">
      <canvas
        width={52}
        height={44}
        style={{ width: 26, height: 22 }}
        ref={(canvas) => {
          const ink = canvas?.getContext('2d');
          if (!ink) return;
          ink.clearRect(0, 0, 52, 44);
          ink.lineWidth = 4;
          ink.strokeStyle = getComputedStyle(canvas!).color;
          ink.stroke(markPath(kind, 26, 24, 18));
        }}
      />
    </foreignObject>
  );
}
