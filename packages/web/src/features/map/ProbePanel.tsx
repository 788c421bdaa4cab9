import type { ProbeLook, Mix } from '@steady-gleam/core/looks';
import { Button, Typography, useTheme } from '@mui/material';
import type { Illuminant } from '@steady-gleam/core/colour';
import {
  andControl,
  FAMILIES,
  STYLES,
  laidFilmUm,
  layersOf,
  USUAL_LIMIT_UM,
  withCount,
  withRecipe,
  type FamilyRow,
} from '@steady-gleam/core/finishes';
import { describeDifference, recipeFigures, type MapCell, type TargetAngle } from '@steady-gleam/core/matching';
import { findCarrier, findGround, findMix } from '@steady-gleam/core/materials';
import { HIDDEN_FROM } from '@steady-gleam/core/optics';
import { START_PLAN, type Job } from '@steady-gleam/contracts';
import type { ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { TravelPicture } from '../../shared/TravelPicture';
import { useLibrary } from '../../shared/library';
import { useRested } from '../../shared/useRested';
import { useUnits } from '../../shared/units';
import { Table } from '../../ui/Table';
import { useCompute } from '../../worker/useCompute';
import { LIGHTS } from './MapControls';
import { angleKey, sayAngle } from '../../shared/angles';

interface ProbePanelProps {
  readonly job: Job;
  readonly mix: Mix;
  readonly cell: MapCell;
  readonly groundId: string;
  readonly target: readonly TargetAngle[];
  readonly light: Illuminant;
  /** No newer map is on its way: time for what takes the worker longer. */
  readonly settled: boolean;
  readonly note: string | null;
  readonly busy: boolean;
  readonly onUse: () => void;
  /** Nothing was read: what is picked becomes the target. */
  readonly designing: boolean;
  readonly compared: boolean;
  readonly compareFull: boolean;
  readonly onCompare: () => void;
}

/** What follows from the place under the probe. Plain styles: it is drawn again at every step of the slider. */
export function ProbePanel(props: ProbePanelProps) {
  const {
    job,
    mix,
    cell,
    groundId,
    target,
    light,
    settled,
    note,
    busy,
    onUse,
    designing,
    compared,
    compareFull,
    onCompare,
  } = props;
  const { tones } = useTheme();
  const { library } = useLibrary();
  const system = findMix(job.mixId, library.systems);
  const ground = findGround(groundId, library.grounds);
  const carrier = findCarrier(system.carrierId, library.carriers);
  const recipe = withCount(job.family, { ...mix, groundId, coats: 0 }, cell.coats);
  const figures = recipeFigures(ground, system, carrier, recipe);
  const row = FAMILIES[job.family];
  const limit = job.filmLimitUm ?? USUAL_LIMIT_UM;
  const layers = job.stacks ? withRecipe(job.stacks[0]!.layers, job.mixId, recipe) : layersOf(ground, system, recipe);
  const build = laidFilmUm(layers, job.plan ?? START_PLAN);
  const secondLight = light === 'D65' ? 'A' : light;
  // The closer look waits until the slider rests: the map goes first.
  const wanted = settled ? JSON.stringify([mix, groundId, cell.coats, target, secondLight]) : null;
  const { value: look } = useCompute(useRested(wanted, 150), (c) =>
    c.probe(mix, groundId, cell.coats, target, secondLight),
  );
  const units = useUnits();
  const rule = `1px solid ${tones.hairline}`;
  const line = (name: ReactNode, value: string, unit = '') => (
    <div style={{ display: 'flex', justifyContent: 'space-between', padding: '1.5px 0', borderBottom: rule }}>
      <span>{name}</span>
      <span style={{ fontFamily: FIGURES, whiteSpace: 'nowrap' }}>
        {value} {unit}
      </span>
    </div>
  );
  const worst = look ? look.second.differences.reduce((a, d, i, all) => (d > all[a]! ? i : a), 0) : 0;
  return (
    <>
      <div>
        <Typography variant="h2" data-testid="probe">
          At {countCoats(cell.coats)} over {ground.name.toLowerCase()}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {recipe.controlCoats && FAMILIES[job.family].controlAfter !== null
            ? `${sayCoats(recipe.coats)} ${STYLES[mix.style].name.toLowerCase()}${andControl(recipe.controlCoats)} · `
            : ''}
          {designing ? 'where you start above, this place below' : 'target above, prediction below'}
        </Typography>
      </div>
      <FlopStrip
        angles={target}
        target={target.map((t) => t.lab)}
        sample={cell.labs}
        height={80}
        label="Target over prediction, from face to flop"
      />
      {row.wanted === 'travel' ? (
        <TravelPicture target={target} sample={target.map((t, g) => ({ ...t, lab: cell.labs[g]! }))} compact />
      ) : null}
      <AngleTable target={target} cell={cell} />
      <div style={{ fontSize: 15 }}>
        {line('effect film', units.say('film', figures.effectUm))}
        {line(
          build > limit ? `✕ build, ${units.say('film', build - limit)} over limit` : 'whole build',
          units.say('film', build),
        )}
        {line(units.sentence('flash in all, 20 °C'), figures.minutes.toFixed(0), 'min')}
        {units.system === 'us'
          ? line('effect mix', units.say('perArea', figures.litresPerM2))
          : line('effect mix', (figures.litresPerM2 * 1000).toFixed(0), 'ml/m²')}
        {line('cost, demo prices', units.figure('priceByArea', figures.costPerM2), `per ${units.name('area')}`)}
        <LookLines look={look} line={line} worst={worst} target={target} row={row} />
      </div>
      <div
        style={{
          display: 'flex',
          flexDirection: 'column',
          gap: 8,
          margin: 'auto -18px -16px',
          padding: '8px 18px 16px',
          position: 'sticky',
          bottom: 0,
          background: tones.panel,
        }}
      >
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          A screen is not a proof. {note}
        </Typography>
        <Button variant="contained" onClick={onUse} disabled={busy} sx={{ minHeight: 52 }}>
          {designing ? 'This is the look: make it the target' : 'Pick this, plan the card'}
        </Button>
        <Button variant="outlined" onClick={onCompare} disabled={!compared && compareFull}>
          {compared
            ? 'Leave out of the comparison'
            : compareFull
              ? 'Four are put aside already'
              : 'Put aside to compare'}
        </Button>
      </div>
    </>
  );
}

/** How far the place is from the target, angle by angle. */
function AngleTable({ target, cell }: Pick<ProbePanelProps, 'target' | 'cell'>) {
  return (
    <Table
      label="Difference per angle"
      dense
      rows={target}
      keyOf={angleKey}
      columns={[
        { head: 'angle', draw: sayAngle },
        {
          ...{ head: 'dE00', figure: true },
          draw: (t, g) => {
            const d = cell.score.differences[g]!;
            return `${d <= t.tolerance ? '' : '✕ '}${d.toFixed(2)}`;
          },
        },
        { head: 'prediction is', draw: (t, g) => describeDifference(t.lab, cell.labs[g]!).text },
      ]}
    />
  );
}

interface LookLinesProps {
  readonly look: ProbeLook | null;
  readonly line: (name: ReactNode, value: string, unit?: string) => ReactNode;
  readonly worst: number;
  readonly target: ProbePanelProps['target'];
  readonly row: FamilyRow;
}

/** What the place is like beyond its match. */
function LookLines({ look, line, worst, target, row }: LookLinesProps) {
  return look ? (
    <>
      {line(
        `under a ${LIGHTS.find((l) => l.id === look.second.illuminant)!.name}, worst`,
        `dE ${look.second.differences[worst]!.toFixed(1)} at ${sayAngle(target[worst]!)}`,
      )}
      {line('metamerism, guessed', Math.max(...look.second.metamerism).toFixed(1))}
      {line(
        look.contrast >= HIDDEN_FROM ? 'ground hidden' : 'ground shows',
        `${Math.round(look.contrast * 100)} %`,
        'contrast',
      )}
      {line('one coat more moves it', `dE ${look.oneMore.toFixed(1)}`)}
      {row.specified ? line('contrast at an edge', `${Math.round(look.atEdge * 100)} %`) : null}
      {row.wanted === 'cover' && look.cover !== null ? line('cover', `${Math.round(look.cover * 100)} %`) : null}
      {look.sparkle === null ? null : line('sparkle index (ours)', look.sparkle.toFixed(2))}
    </>
  ) : null;
}
