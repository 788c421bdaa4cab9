import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { findCarrier, findSystem, rescueOverpour, STYLES } from '@steady-gleam/core';
import { useEffect, useState } from 'react';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { choiceOf, countCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useJob } from '../../shared/useJob';
import { CupPicture } from './CupPicture';
import { batchFor, faultsOf, partsAt, SHAPE_FIELDS, SHAPE_NAMES, START, type MixForm } from './mixModel';

const keyOf = (jobId: string) => `steady-gleam.mix.${jobId}`;

function keptForm(jobId: string): MixForm {
  try {
    return { ...START, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<MixForm>) };
  } catch {
    return START;
  }
}

/** One batch on one page: how much for the piece, what to pour to which mark, and what the scale shows. */
export function MixPage() {
  const { job } = useJob();
  const { tones } = useTheme();
  const { library } = useLibrary();
  const [form, setForm] = useState(() => keptForm(job.id));
  const [over, setOver] = useState<{ index: number; text: string } | null>(null);
  useEffect(() => sessionStorage.setItem(keyOf(job.id), JSON.stringify(form)), [job.id, form]);

  const choice = choiceOf(job);
  const system = findSystem(job.systemId, library.systems);
  const carrier = findCarrier(system.carrierId, library.carriers);
  const film = choice.coats * STYLES[choice.style].film + (choice.controlCoat ? STYLES.control.film : 0);
  const faults = faultsOf(form);
  const batch = batchFor(form, system, carrier.volumeSolids, { filmCoats: film, strength: choice.strength });
  const parts = partsAt(system, choice.strength);
  const byWeight = parts.every((p) => p.density !== undefined);
  const overPart = over && batch ? batch.parts[over.index] : undefined;
  const poured = over ? Number(over.text.replace(',', '.')) : NaN;
  const pouredMl = byWeight && over ? poured / (parts[over.index]?.density ?? 1) : poured;
  const saved = batch && over && overPart ? rescueOverpour(parts, batch.ml, over.index, pouredMl) : null;
  const unit = byWeight ? 'g' : 'ml';

  const field = (name: string, label: string, value: string, set: (v: string) => void) => (
    <Field key={name} label={label} value={value} onChange={(e) => set(e.target.value)} error={faults[name]} decimal />
  );
  const cell = {
    padding: '9px 0',
    borderTop: `1px solid ${tones.hairline}`,
    fontFamily: FIGURES,
    textAlign: 'right' as const,
    fontSize: 22,
  };
  const head = { fontWeight: 400, textAlign: 'right' as const, fontSize: 14, padding: '4px 0' };

  return (
    <Bench
      side={
        <>
          <Typography variant="h2">In the cup</Typography>
          {batch?.cup ? (
            <CupPicture parts={batch.parts} cup={batch.cup} ml={batch.ml} />
          ) : batch ? (
            <Typography>
              No cup here holds {batch.ml} ml. Mix it in parts of at most 2180 ml; pour them together before the last
              coat, so that they are one colour.
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Gloves and air-fed respirator where hardener is poured; solvents away from sparks; metallic and flake dust
            is not to be breathed. The product’s sheet and your local rules come first.
          </Typography>
        </>
      }
    >
      <Answer
        why={
          batch
            ? `${countCoats(choice.coats)}${choice.controlCoat ? ' and a control coat' : ''} on ${batch.area.toFixed(2)} m² take about ${batch.needed.toFixed(0)} ml; between ${batch.low.toFixed(0)} and ${batch.high.toFixed(0)}, by how much really lands. One batch for all coats keeps them one colour.`
            : 'Something below is not a figure yet.'
        }
      >
        {batch ? `Mix ${batch.ml} ml of ${system.name.toLowerCase()}.` : 'Say how large the piece is.'}
      </Answer>
      {batch ? (
        <table aria-label="Batch" style={{ borderCollapse: 'collapse', width: '100%', maxWidth: 760 }}>
          <thead>
            <tr>
              <th scope="col" style={{ ...head, textAlign: 'left' }}>
                pour
              </th>
              <th scope="col" style={head}>
                parts
              </th>
              <th scope="col" style={head}>
                ml
              </th>
              <th scope="col" style={head}>
                to mark, ml
              </th>
              <th scope="col" style={head}>
                g
              </th>
              <th scope="col" style={head}>
                scale shows, g
              </th>
            </tr>
          </thead>
          <tbody>
            {batch.parts.map((p, i) => (
              <tr key={p.name}>
                <td style={{ ...cell, textAlign: 'left', fontFamily: 'inherit', fontSize: 19, fontWeight: 600 }}>
                  {p.name}
                </td>
                <td style={cell}>{Number(parts[i]!.parts.toFixed(2))}</td>
                <td style={cell}>{p.ml.toFixed(0)}</td>
                <td style={{ ...cell, fontWeight: 700 }}>{p.mark.toFixed(0)}</td>
                <td style={cell}>{p.grams === null ? '–' : p.grams.toFixed(1)}</td>
                <td style={{ ...cell, fontWeight: 700 }}>
                  {p.runningGrams === null ? '–' : p.runningGrams.toFixed(1)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {byWeight ? null : (
        <Typography variant="body2" sx={{ mt: 1 }}>
          A density is missing, so this is by volume only.
        </Typography>
      )}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Stir the pearl or flake up from the bottom before it is poured, strain the dye, and stir again before every
        coat.
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'end', flexWrap: 'wrap', gap: 1, mt: 1.5 }}>
        <Box>
          <Typography variant="h3" component="div" sx={{ mb: 0.5 }}>
            Too much went in?
          </Typography>
          <Box role="group" aria-label="Part that was overpoured" sx={{ display: 'flex', gap: 0.75 }}>
            {parts.map((p, i) => (
              <ToggleButton
                key={p.name}
                value={i}
                selected={over?.index === i}
                onChange={() => setOver(over?.index === i ? null : { index: i, text: '' })}
              >
                {p.name}
              </ToggleButton>
            ))}
          </Box>
        </Box>
        {over ? (
          <Box sx={{ width: 190 }}>
            <Field
              label={`Really poured, ${unit}`}
              value={over.text}
              onChange={(e) => setOver({ ...over, text: e.target.value })}
              decimal
            />
          </Box>
        ) : null}
      </Box>
      {over && overPart && over.text.trim() !== '' ? (
        <Typography role="status" sx={{ mt: 1, maxWidth: '70ch' }} data-testid="rescue">
          {!(poured > 0)
            ? `Say how many ${unit} of ${overPart.name} went in.`
            : saved
              ? `You poured ${poured} ${unit} of ${(byWeight ? overPart.grams! : overPart.ml).toFixed(1)}. Bring the others to: ${saved.parts
                  .filter((p) => p.more > 0)
                  .map((p) => `${p.name} ${(byWeight ? p.grams! : p.ml).toFixed(1)} ${unit} in all`)
                  .join(', ')}. The batch is then ${saved.ml.toFixed(0)} ml.`
              : `That is not more than the ${(byWeight ? overPart.grams! : overPart.ml).toFixed(1)} ${unit} meant; pour the rest of it.`}
        </Typography>
      ) : null}
      <Typography variant="h2" sx={{ mt: 2.5, mb: 1 }}>
        The piece
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={form.shape}
        aria-label="Shape of the piece"
        onChange={(_, v: MixForm['shape'] | null) => v && setForm({ ...form, shape: v })}
        sx={{ flexWrap: 'wrap' }}
      >
        {(Object.keys(SHAPE_NAMES) as MixForm['shape'][]).map((s) => (
          <ToggleButton key={s} value={s} sx={{ px: 1.25 }}>
            {SHAPE_NAMES[s]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
          gap: 1.5,
          mt: 1.25,
          maxWidth: 760,
        }}
      >
        {SHAPE_FIELDS[form.shape].map(({ name, label }) =>
          field(name, label, form.values[name] ?? '', (v) =>
            setForm({ ...form, values: { ...form.values, [name]: v } }),
          ),
        )}
        {field('pieces', 'Pieces alike', form.pieces, (pieces) => setForm({ ...form, pieces }))}
        {field('transfer', 'Lands on it, %', form.transfer, (transfer) => setForm({ ...form, transfer }))}
        {field('loss', 'Left in cup and gun, ml', form.loss, (loss) => setForm({ ...form, loss }))}
      </Box>
      <Box sx={{ mt: 1.5 }}>
        <Button variant="text" color="inherit" onClick={() => setForm(START)} sx={{ px: 0.5 }}>
          Start these figures again
        </Button>
      </Box>
    </Bench>
  );
}
