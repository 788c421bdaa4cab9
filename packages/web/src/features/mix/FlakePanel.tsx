import { Box, Button, ToggleButton, Typography, useTheme } from '@mui/material';
import type { Mixing } from '@steady-gleam/contracts';
import {
  clearToBury,
  de2000,
  findPigment,
  flakeDose,
  groundShows,
  M2_PER_FT2,
  wantedCover,
  type CoverAdvice,
  type FlakeDose,
  type FlakeLayer,
  type FlakeSize,
  type GroundMaterial,
  type Lab,
  type Product,
} from '@steady-gleam/core';
import { hashKey } from '@tanstack/react-query';
import { useState } from 'react';
import { FIGURES } from '../../app/theme';
import { numberIn } from '../../shared/numberIn';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { MeasureField } from '../../shared/MeasureField';
import { useLibrary } from '../../shared/library';
import { NOMINAL_PX_PER_MM, ScreenScale, useScreenScale } from '../../shared/screenScale';
import { useGroundColours } from '../../shared/useGroundColours';
import { useUnits } from '../../shared/units';
import { useCompute } from '../../worker/useCompute';
import { FlakePicture } from './FlakePicture';

/** Sizes flake is sold in, um: .004, .008, .015 and .024 inch. Common practice (no source). */
const SIZES = [100, 200, 400, 600] as const;
const COMPARED = [0.25, 0.5, 0.75, 0.95] as const;
/** What is typed before anything was kept. */
const START = {
  pigmentId: 'silver-flake-100',
  parts: { 100: '3', 200: '2', 400: '0', 600: '0' } as Record<number, string>,
  cover: '',
  sand: '30',
  keep: '40',
  film: '35',
};
type Form = typeof START;

const keyOf = (jobId: string) => `steady-gleam.flake.${jobId}`;
/** What is being typed in this window, else what is kept with the job. */
function formOf(jobId: string, kept: Mixing['flake']): Form {
  const stored: Form = kept
    ? {
        pigmentId: kept.pigmentId,
        parts: Object.fromEntries(SIZES.map((s) => [s, String(kept.parts.find((p) => p.sizeUm === s)?.parts ?? 0)])),
        cover: kept.cover === null ? '' : String(Number((kept.cover * 100).toFixed(1))),
        sand: String(kept.sandUm),
        keep: String(kept.keepUm),
        film: String(kept.filmUm),
      }
    : START;
  try {
    return { ...stored, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<Form>) };
  } catch {
    return stored;
  }
}

/** Of the five angles: between face and flop. */
const MIDDLE = 2;

const WHY: Record<CoverAdvice['why'], string> = {
  silver: 'Over silver a partial cover is enough.',
  alike: 'Over the flake’s own colour a partial cover is enough.',
  black: 'Over black the cover must be full, or the black shows between the flakes.',
  unlike: 'This ground is unlike the flake: the cover must be full, or it shows between the flakes.',
};

/** A dose as it goes into the job. */
export interface FlakeUse {
  readonly flake: NonNullable<Mixing['flake']>;
  readonly dose: FlakeDose;
  readonly filmUm: number;
  readonly mix: readonly FlakeSize[];
  readonly name: string;
}

/** How much flake for this ground, how the stick and the panel will look, and the clear that buries it. */
export function FlakePanel({
  jobId,
  kept,
  found,
  carrier,
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
  areaM2: number;
  tabs: React.ReactNode;
  using: { readonly busy: boolean; readonly fault: string | null };
  /** Takes it into cup, layers and plan. */
  onUse: (use: FlakeUse) => void;
}) {
  const { ground } = found;
  const { tones } = useTheme();
  const units = useUnits();
  const { library } = useLibrary();
  const [zoom, setZoom] = useState<1 | 5>(1);
  const [form, setForm] = useState(() => formOf(jobId, kept));
  const scale = useScreenScale();
  const [measuring, setMeasuring] = useState(false);
  const pxPerMm = scale ?? NOMINAL_PX_PER_MM;
  const groundLab: Lab = useGroundColours()(ground.id);
  const change = (more: Partial<typeof form>) => {
    const next = { ...form, ...more };
    setForm(next);
    sessionStorage.setItem(keyOf(jobId), JSON.stringify(next));
  };
  const flakes = library.pigments.filter((p) => p.kind === 'metal-flake');
  const pigment = flakes.find((p) => p.id === form.pigmentId) ?? findPigment('silver-flake-100');
  const { value: look } = useCompute(`flake/${pigment.id}`, (c) => c.pigmentLook(pigment.id, 0.97));
  const wanted = wantedCover(ground, look ? de2000(groundLab, look.black[MIDDLE]!) : 0);
  const faults: Record<string, string> = {};
  const mix: FlakeSize[] = SIZES.map((sizeUm) => {
    const parts = numberIn(form.parts[sizeUm] ?? '0');
    if (!(parts >= 0 && parts <= 1000)) faults[`parts.${sizeUm}`] = '0 or more.';
    return { sizeUm, parts, thicknessUm: pigment.thicknessUm, density: pigment.densityGPerCm3 };
  });
  if (!Object.keys(faults).length && mix.every((f) => f.parts === 0)) faults['parts.100'] = 'Some of one size.';
  const percent = form.cover.trim() ? numberIn(form.cover) : wanted.cover * 100;
  if (!(percent >= 5 && percent <= 99)) faults['cover'] = 'Between 5 and 99 %.';
  const within = (name: 'sand' | 'keep' | 'film', lo: number, hi: number) => {
    const v = numberIn(form[name]);
    if (!(v >= lo && v <= hi)) faults[name] = `Between ${lo} µm and ${hi} µm.`;
    return v;
  };
  const bury = { sandUm: within('sand', 0, 200), keepUm: within('keep', 10, 200), filmUm: within('film', 5, 150) };
  const good = !Object.keys(faults).length;
  const cover = percent / 100;
  const [filmUm, volumeSolids] = carrier ? [carrier.filmUm, carrier.volumeSolids] : [20, 0.2];
  const dose = good ? flakeDose({ mix, cover, filmUm, volumeSolids }) : null;
  const plan = good ? clearToBury({ mix, cover, tilt: pigment.tilt, ...bury }) : null;
  const flake: Mixing['flake'] = plan && {
    pigmentId: pigment.id,
    parts: mix.map(({ sizeUm, parts }) => ({ sizeUm, parts })),
    cover: form.cover.trim() ? cover : null,
    ...bury,
    buryCoats: plan.coats,
  };
  // Told from what is kept with the job, so that it is true whatever was pressed, here or elsewhere.
  const isIn = dose !== null && found.layer.coats === dose.coats && hashKey([kept]) === hashKey([flake]);
  const labs = look ? [...look.black].reverse() : [];
  const picture = (c: number, w: number, h: number, label: string, seed = 11) =>
    good && look ? (
      <FlakePicture
        mix={mix}
        cover={c}
        zoom={zoom}
        pxPerMm={pxPerMm}
        ground={groundLab}
        flake={labs}
        width={w}
        height={h}
        seed={seed}
        label={label}
      />
    ) : (
      <Box sx={{ width: w * pxPerMm, height: h * pxPerMm, background: tones.panel }} />
    );
  const coats = dose ? `${dose.coats} ${dose.coats === 1 ? 'coat' : 'coats'}` : '';
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Bury it</Typography>
          <Typography variant="body2">Over {ground.name.toLowerCase()}, as the layers are kept.</Typography>
          {plan ? (
            <Typography>
              {plan.coats} coats of clear. The flakes stand about {units.say('film', plan.riseUm)} high; after sanding{' '}
              {units.say('film', plan.leftUm)} is left above them.
            </Typography>
          ) : null}
          <MeasureField
            measure="film"
            label="Clear, film of a coat"
            value={form.film}
            onValue={(film) => change({ film })}
            error={faults['film']}
          />
          <MeasureField
            measure="film"
            label="Sanding takes off"
            value={form.sand}
            onValue={(sand) => change({ sand })}
            error={faults['sand']}
          />
          <MeasureField
            measure="film"
            label="Left above at least"
            value={form.keep}
            onValue={(keep) => change({ keep })}
            error={faults['keep']}
          />
          {dose && flake ? (
            <Button
              variant="contained"
              disabled={using.busy}
              onClick={() =>
                onUse({
                  flake,
                  dose,
                  filmUm,
                  mix: mix.filter((f) => f.parts > 0),
                  name: pigment.name.replace(/ \d.*$/, '').toLowerCase(),
                })
              }
            >
              Take it into the job
            </Button>
          ) : null}
          {isIn ? (
            <Typography role="status">
              In the cup, the layers and the plan: {coats} of flake, {plan?.coats} clears before it is sanded flat.
            </Typography>
          ) : null}
          {using.fault ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {using.fault}
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Flake dust is not to be breathed, and aluminium dust burns: pour it gently, away from sparks, mask on. Dry
            sanding the buried film: dust mask, and no flake may show. The product’s sheet and your local rules come
            first.
          </Typography>
        </>
      }
    >
      <Answer
        why={
          dose
            ? `That lays ${units.system === 'us' ? units.say('mass', dose.gramsPerM2 * M2_PER_FT2) : `${dose.gramsPerM2.toFixed(0)} g`} on a square ${units.system === 'us' ? 'foot' : 'metre'}: ${Math.round(cover * 100)} % covered. ${WHY[wanted.why]} For ${units.say('area', areaM2)}: ${units.say('mass', dose.gramsPerM2 * areaM2, 0)} on the piece, before what flies past it.`
            : 'Something below is not a figure yet.'
        }
      >
        {dose ? `${units.say('dose', dose.gramsPerLitre, 0)} of flake, in ${coats}.` : 'Say how much of each size.'}
      </Answer>
      {tabs}
      {good && groundShows(wanted, cover) ? (
        <Typography role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25, mb: 1 }}>
          {Math.round(100 - cover * 100)} % of {ground.name.toLowerCase()} would show between the flakes.{' '}
          {WHY[wanted.why]}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, alignItems: 'flex-start', mt: 1 }}>
        <Box>
          <Typography variant="h3" component="div">
            The stick
          </Typography>
          {picture(
            dose?.stickCover ?? 0.5,
            9,
            62,
            `Stirring stick, ${Math.round((dose?.stickCover ?? 0) * 100)} % covered`,
            5,
          )}
          <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
            {dose ? `${Math.round(dose.stickCover * 100)} %` : ''}
          </Typography>
        </Box>
        <Box sx={{ width: 'min-content' }}>
          <Typography variant="h3" component="div">
            The panel after {coats},{' '}
            {zoom === 1 ? (scale === null ? 'about as large as life' : 'as large as life') : 'five times as large'}
          </Typography>
          {picture(cover, 100, 62, `Panel, ${Math.round(cover * 100)} % covered`)}
          <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
            {dose ? dose.covers.map((c, i) => `${i + 1}:\u00a0${Math.round(c * 100)}\u00a0%`).join('   ') : ''}
          </Typography>
        </Box>
        <Box>
          <Typography variant="h3" component="div">
            For the eye
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'auto auto' }}>
            {COMPARED.map((c) => (
              <Box key={c}>
                {picture(c, 26, 25, `${c * 100} % covered`, 3)}
                <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
                  {c * 100} %
                </Typography>
              </Box>
            ))}
          </Box>
        </Box>
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: {
            xs: 'repeat(auto-fill, minmax(132px, 1fr))',
            lg: 'minmax(140px, 1.3fr) repeat(5, minmax(90px, 1fr))',
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
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Carried by {carrier?.name ?? 'a usual flake carrier'}, {units.say('film', filmUm)} a coat. Parts are by weight;
        keep it moving while it is sprayed. Flakes are {units.say('film', pigment.thicknessUm, 1)} thick.
      </Typography>
    </Bench>
  );
}
