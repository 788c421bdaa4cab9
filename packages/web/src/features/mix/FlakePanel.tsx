import { Box, Button, ToggleButton, Typography, useTheme } from '@mui/material';
import type { Mixing } from '@steady-gleam/contracts';
import type { GroundMaterial, EffectPigment } from '@steady-gleam/core/materials';
import { groundShows, type CoverAdvice, type FlakeLayer } from '@steady-gleam/core/mixing';
import type { Product } from '@steady-gleam/core/products';
import { M2_PER_FT2 } from '@steady-gleam/core/units';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { NOMINAL_PX_PER_MM, ScreenScale, useScreenScale } from '../../shared/screenScale';
import { countCoats } from '../../shared/jobModel';
import { useUnits } from '../../shared/units';
import { FlakePictures } from './FlakePictures';
import { FlakeSide } from './FlakeSide';
import { COMPARED, SIZES, useFlakeForm, type FlakeForm, type FlakeUse } from './useFlakeForm';

const WHY: Record<CoverAdvice['why'], string> = {
  silver: 'Over silver a partial cover is enough.',
  alike: 'Over the flake’s own colour a partial cover is enough.',
  black: 'Over black the cover must be full, or the black shows between the flakes.',
  unlike: 'This ground is unlike the flake: the cover must be full, or it shows between the flakes.',
};

/** How much flake for this ground, how the stick and the panel will look, and the clear that buries it. */
export function FlakePanel({
  jobId,
  kept,
  found,
  carrier,
  carriers,
  onCarrier,
  areaM2,
  tabs,
  using,
  onUse,
}: {
  jobId: string;
  /** As it is kept with the job. */
  kept: Mixing['flake'];
  /** The flake layer of the job's layers as they are kept. */
  found: FlakeLayer & { readonly ground: GroundMaterial };
  /** Product that carries the flake; null for the usual one. */
  carrier: Product | null;
  /** Products it may lie in. */
  carriers: readonly Product[];
  onCarrier: (productId: string) => void;
  areaM2: number;
  tabs: React.ReactNode;
  using: { readonly busy: boolean; readonly fault: string | null };
  /** Takes it into cup, layers and plan. */
  onUse: (use: FlakeUse) => void;
}) {
  const { ground } = found;
  const { tones } = useTheme();
  const units = useUnits();
  const [zoom, setZoom] = useState<1 | 5>(1);
  const state = useFlakeForm(jobId, kept, found, carrier);
  const { form, change, flakes, pigment, wanted, faults, percent, cover, filmUm, dose, good } = state;
  const scale = useScreenScale();
  const [measuring, setMeasuring] = useState(false);
  const coats = dose ? countCoats(dose.coats) : '';
  return (
    <Bench side={<FlakeSide state={state} groundName={ground.name} coats={coats} using={using} onUse={onUse} />}>
      <Answer
        why={
          dose
            ? `That lays ${units.system === 'us' ? units.say('mass', dose.gramsPerM2 * M2_PER_FT2) : `${dose.gramsPerM2.toFixed(0)} g`} on a square ${units.system === 'us' ? 'foot' : 'metre'}: ${Math.round(cover * 100)} % covered. ${WHY[wanted.why]} For ${units.say('area', areaM2)}: ${units.say('mass', dose.gramsPerM2 * areaM2, 0)} on the piece, before what flies past it.`
            : 'Something below is not a figure yet.'
        }
      >
        {dose
          ? `${units.say('dose', dose.gramsPerLitre, 0)} of flake${state.inMix ? ' in the mix' : ''}, in ${coats}.`
          : 'Say how much of each size.'}
      </Answer>
      {tabs}
      {good && groundShows(wanted, cover) ? (
        <Typography role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25, mb: 1 }}>
          {Math.round(100 - cover * 100)} % of {ground.name.toLowerCase()} would show between the flakes.{' '}
          {WHY[wanted.why]}
        </Typography>
      ) : null}
      <FlakePictures
        flake={state}
        zoom={zoom}
        pxPerMm={scale ?? NOMINAL_PX_PER_MM}
        isScaled={scale !== null}
        coats={coats}
      />
      <DoseFields pigment={pigment} change={change} flakes={flakes} form={form} faults={faults} wanted={wanted} />
      <Covers form={form} percent={percent} change={change} zoom={zoom} setZoom={setZoom} />
      {scale === null || measuring ? (
        measuring ? (
          <ScreenScale onDone={() => setMeasuring(false)} />
        ) : (
          <Typography role="note" sx={{ mt: 1 }}>
            The scale of this screen is not known, so flakes may show larger or smaller than they are.{' '}
            <Button variant="outlined" onClick={() => setMeasuring(true)}>
              Measure it with a card
            </Button>
          </Typography>
        )
      ) : (
        <Button variant="text" color="inherit" onClick={() => setMeasuring(true)} sx={{ px: 0.5, mt: 0.5 }}>
          Measure this screen again
        </Button>
      )}
      <FlakeShown carriers={carriers} carrier={carrier} onCarrier={onCarrier} filmUm={filmUm} pigment={pigment} />
    </Bench>
  );
}

interface FlakeShownProps {
  readonly carriers: readonly Product[];
  readonly carrier: Product | null;
  readonly onCarrier: (productId: string) => void;
  readonly filmUm: number;
  readonly pigment: EffectPigment;
}

/** What a dose covers, drawn as large as it is. */
function FlakeShown({ carriers, carrier, onCarrier, filmUm, pigment }: FlakeShownProps) {
  const units = useUnits();
  return (
    <Box
      sx={{
        display: 'flex',
        gap: 2,
        mt: 1.5,
        maxWidth: 860,
        alignItems: 'flex-end',
      }}
    >
      {carriers.length ? (
        <Box sx={{ width: 300, flex: 'none' }}>
          <Field label="Carried by" select value={carrier?.id ?? ''} onChange={(e) => onCarrier(e.target.value)}>
            {carriers.some((p) => p.id === carrier?.id) ? null : <option value="">a usual carrier</option>}
            {carriers.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </Field>
        </Box>
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {carriers.length ? '' : 'Carried by a usual flake carrier, '}
        {units.say('film', filmUm)} a coat. Parts are by weight; keep it moving while it is sprayed. Flakes are{' '}
        {units.say('film', pigment.thicknessUm, 1)} thick.
      </Typography>
    </Box>
  );
}

interface CoversProps {
  readonly form: FlakeForm['form'];
  readonly percent: number;
  readonly change: FlakeForm['change'];
  readonly zoom: 1 | 5;
  readonly setZoom: Dispatch<SetStateAction<1 | 5>>;
}

/** Covers side by side, the wanted one among them. */
function Covers({ form, percent, change, zoom, setZoom }: CoversProps) {
  return (
    <Box role="group" aria-label="Cover" sx={{ display: 'flex', gap: 0.75, mt: 1 }}>
      {[...COMPARED, null].map((c) => (
        <ToggleButton
          key={String(c)}
          value={String(c)}
          selected={c === null ? form.cover.trim() === '' : percent === c * 100}
          onChange={() => change({ cover: c === null ? '' : String(c * 100) })}
        >
          {c === null ? 'as this ground wants' : `${c * 100} %`}
        </ToggleButton>
      ))}
      <ToggleButton value="zoom" selected={zoom > 1} onChange={() => setZoom(zoom === 1 ? 5 : 1)} sx={{ ml: 'auto' }}>
        Magnify five times
      </ToggleButton>
    </Box>
  );
}

interface DoseFieldsProps {
  readonly pigment: EffectPigment;
  readonly change: FlakeForm['change'];
  readonly flakes: EffectPigment[];
  readonly form: FlakeForm['form'];
  readonly faults: Record<string, string>;
  readonly wanted: CoverAdvice;
}

/** What the dose follows from. */
function DoseFields({ pigment, change, flakes, form, faults, wanted }: DoseFieldsProps) {
  const units = useUnits();
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: {
          xs: 'repeat(auto-fill, minmax(132px, 1fr))',
          lg: 'minmax(120px, 1.2fr) repeat(5, minmax(76px, 1fr))',
        },
        gap: 1.5,
        mt: 1.5,
        maxWidth: 860,
      }}
    >
      <Field label="Flake" select value={pigment.id} onChange={(e) => change({ pigmentId: e.target.value })}>
        {flakes.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name.replace(/ \d.*$/, '')}
          </option>
        ))}
      </Field>
      {SIZES.map((s) => (
        <Field
          key={s}
          // Sold by thousandths of an inch: .004, .008, .015 and so on.
          label={`${units.system === 'us' ? `${(s / 25_400).toFixed(3).slice(1)} in` : `${(s / 1000).toFixed(1)} mm`}, parts`}
          value={form.parts[s] ?? ''}
          onChange={(e) => change({ parts: { ...form.parts, [s]: e.target.value } })}
          error={faults[`parts.${s}`]}
          decimal
        />
      ))}
      <Field
        label="Cover, %"
        value={form.cover}
        onChange={(e) => change({ cover: e.target.value })}
        error={faults['cover']}
        hint={form.cover.trim() ? '' : `${Math.round(wanted.cover * 100)} for this ground`}
        decimal
      />
    </Box>
  );
}
