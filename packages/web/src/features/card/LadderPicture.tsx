import { Box, ButtonBase, Typography, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { cardCurve, predictedLabs, type CardSaid, type RungReading } from '@steady-gleam/core/letdown';
import { scoreMatch, type TargetAngle } from '@steady-gleam/core/matching';
import { useMemo } from 'react';
import { FIGURES } from '../../app/theme';
import { exposuresByAngle } from '../../shared/screenColour';
import { sayCoats } from '../../shared/jobModel';
import { angleKey, sayAngle } from '../../shared/angles';
import { RungStrips } from './RungStrips';

interface LadderPictureProps {
  readonly card: CardSaid;
  readonly target: readonly TargetAngle[];
  readonly rungs: readonly number[];
  readonly readings: readonly RungReading[];
  readonly selected: number | null;
  readonly onSelect: (coats: number) => void;
}

/** Badness at the right edge of the curve. */
const FURTHEST = 4;
const CURVE_WIDTH = 250;

/**
 * The card as it lies on the bench: each rung over the target, touching; beside it how far off every coat count is, on the
 * same scale of coats, with the stop window across both.
 */
export function LadderPicture({ card, target, rungs, readings, selected, onSelect }: LadderPictureProps) {
  const { tones } = useTheme();
  const { card90 } = card;
  const window = card.window.inside ? card.window.counts : null;
  const curve = useMemo(() => cardCurve(card), [card]);
  const gap = rungs.length > 1 ? Math.min(...rungs.slice(1).map((n, i) => n - rungs[i]!)) : 1;
  const top = rungs[0]! - gap / 2;
  const bottom = rungs.at(-1)! + gap / 2;
  const y = (n: number) => ((n - top) / (bottom - top)) * 100;
  const edges = rungs.map(
    (n, i) =>
      [i === 0 ? top : (rungs[i - 1]! + n) / 2, i === rungs.length - 1 ? bottom : (n + rungs[i + 1]!) / 2] as const,
  );
  const readingOf = (n: number) => readings.find((r) => r.coats === n && r.labs.some(Boolean));
  const predicted = predictedLabs(card.ladder, rungs);
  const shown = rungs.map((n, i) => {
    const read = readingOf(n);
    return predicted[i]!.map((p, g): { lab: Lab; read: boolean } => {
      const lab = read?.labs[g];
      return lab ? { lab, read: true } : { lab: p, read: false };
    });
  });
  const exposures = exposuresByAngle([target.map((t) => t.lab), ...shown.map((s) => s.map((c) => c.lab))]);
  const visible = curve.filter((p) => p.coats >= top && p.coats <= bottom);
  const x = (toleranceRatio: number) => (Math.min(FURTHEST, toleranceRatio) / FURTHEST) * (CURVE_WIDTH - 16) + 4;
  const path = visible.map((p, i) => `${i ? 'L' : 'M'}${x(p.ratio).toFixed(1)} ${y(p.coats).toFixed(2)}`).join('');
  const clampY = (n: number) => Math.min(100, Math.max(0, y(n)));
  return (
    <Box
      sx={{
        flex: 1,
        minHeight: 340,
        display: 'grid',
        gridTemplateColumns: `64px minmax(0, 1fr) ${CURVE_WIDTH}px`,
        gridTemplateRows: '1fr auto',
        columnGap: 0,
      }}
    >
      <Box sx={{ position: 'relative' }}>
        <RungButtons rungs={rungs} readingOf={readingOf} selected={selected} onSelect={onSelect} y={y} edges={edges} />
      </Box>
      <Box
        sx={{ position: 'relative', minWidth: 0 }}
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          const n = top + ((e.clientY - box.top) / box.height) * (bottom - top);
          onSelect(rungs.reduce((a, b) => (Math.abs(b - n) < Math.abs(a - n) ? b : a)));
        }}
      >
        <RungStrips rungs={rungs} target={target} shown={shown} y={y} edges={edges} exposures={exposures} />
        {window && y(window[1]) > 0 && y(window[0]) < 100 ? (
          <Box
            sx={{
              position: 'absolute',
              left: -2,
              right: -CURVE_WIDTH,
              top: `${clampY(window[0])}%`,
              height: `${Math.max(0.6, clampY(window[1]) - clampY(window[0]))}%`,
              border: `3px solid ${tones.pick}`,
              pointerEvents: 'none',
              zIndex: 1,
            }}
          />
        ) : null}
      </Box>
      <Box
        sx={{ position: 'relative' }}
        role="img"
        aria-label={`How far off each coat count is. ${window ? `Window ${window[0].toFixed(1)} to ${window[1].toFixed(1)} coats` : 'No window'}; best ${card.best.toFixed(1)}, nine in ten between ${card90[0].toFixed(1)} and ${card90[1].toFixed(1)}.`}
      >
        <OffCurve x={x} clampY={clampY} card90={card90} path={path} />
        {rungs.map((n, i) => {
          const read = readingOf(n);
          if (!read) return null;
          const score = scoreMatch(
            target,
            shown[i]!.map((c) => c.lab),
          );
          return (
            <Box
              key={n}
              title={`${sayCoats(n)} as read`}
              sx={{
                position: 'absolute',
                left: x(score.toleranceRatio) - 6,
                top: `calc(${y(n)}% - 6px)`,
                width: 12,
                height: 12,
                borderRadius: '50%',
                background: tones.ink,
                border: `2px solid ${tones.page}`,
              }}
            />
          );
        })}
        {window ? <WindowWord clampY={clampY} window={window} card={card} /> : null}
      </Box>
      <Box sx={{ fontSize: 13, pt: 0.6, color: 'text.secondary' }}>coats</Box>
      <Box sx={{ display: 'flex', fontFamily: FIGURES, fontSize: 14, pt: 0.6 }} aria-hidden>
        {target.map((t) => (
          <Box key={angleKey(t)} sx={{ flex: 1, textAlign: 'center' }}>
            {sayAngle(t)}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', fontSize: 13, pt: 0.6, px: 0.5 }} aria-hidden>
        <span>every angle passes</span>
        <span>off</span>
      </Box>
    </Box>
  );
}

interface RungButtonsProps {
  readonly rungs: readonly number[];
  readonly readingOf: (n: number) => RungReading | undefined;
  readonly selected: number | null;
  readonly onSelect: (coats: number) => void;
  readonly y: (n: number) => number;
  readonly edges: (readonly [number, number])[];
}

/** Rungs by their counts; pressing one shows it. */
function RungButtons({ rungs, readingOf, selected, onSelect, y, edges }: RungButtonsProps) {
  const { tones } = useTheme();
  return rungs.map((n, i) => (
    <ButtonBase
      key={n}
      aria-label={`Rung of ${sayCoats(n)} coats${readingOf(n) ? ', read' : ', not read yet: enter'}`}
      aria-pressed={selected === n}
      onClick={() => onSelect(n)}
      sx={{
        position: 'absolute',
        left: 0,
        right: 8,
        top: `${y(edges[i]![0])}%`,
        height: `${y(edges[i]![1]) - y(edges[i]![0])}%`,
        fontFamily: 'h1.fontFamily',
        fontSize: 27,
        fontWeight: 700,
        fontStretch: '90%',
        borderRadius: 0.5,
        flexDirection: 'column',
        background: selected === n ? tones.raised : 'none',
        '&:hover': { background: tones.panel },
      }}
    >
      {sayCoats(n)}
      <Box component="span" sx={{ fontSize: 12.5, fontWeight: 400, fontFamily: 'body1.fontFamily' }}>
        {readingOf(n) ? 'read' : 'enter'}
      </Box>
    </ButtonBase>
  ));
}

interface OffCurveProps {
  readonly x: (toleranceRatio: number) => number;
  readonly clampY: (n: number) => number;
  readonly card90: CardSaid['card90'];
  readonly path: string;
}

/** How far off each count is. */
function OffCurve({ x, clampY, card90, path }: OffCurveProps) {
  const { tones } = useTheme();
  return (
    <svg
      viewBox={`0 0 ${CURVE_WIDTH} 100`}
      preserveAspectRatio="none"
      width="100%"
      height="100%"
      style={{ position: 'absolute', inset: 0 }}
    >
      <rect x={4} width={x(1) - 4} y={0} height={100} fill={tones.raised} />
      <line
        x1={x(1)}
        x2={x(1)}
        y1={0}
        y2={100}
        stroke={tones.ink}
        strokeDasharray="3 4"
        vectorEffect="non-scaling-stroke"
      />
      <rect
        x={4}
        width={CURVE_WIDTH - 12}
        y={clampY(card90[0])}
        height={Math.max(0, clampY(card90[1]) - clampY(card90[0]))}
        fill={tones.ink}
        opacity={0.13}
      />
      <path d={path} fill="none" stroke={tones.ink} strokeWidth={2.25} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

interface WindowWordProps {
  readonly clampY: (n: number) => number;
  readonly window: readonly [number, number];
  readonly card: CardSaid;
}

/** The stop window in words, at its place. */
function WindowWord({ clampY, window, card }: WindowWordProps) {
  return (
    <Typography
      variant="body2"
      sx={{
        position: 'absolute',
        right: 10,
        top: `calc(${clampY(window[0])}% - 25px)`,
        fontWeight: 700,
        ...(clampY(window[0]) < 8 ? { top: `calc(${clampY(window[1])}% + 5px)` } : {}),
      }}
    >
      window {window[0].toFixed(1)}
      {card.window.closes ? `–${window[1].toFixed(1)}` : ' and on'}
    </Typography>
  );
}
