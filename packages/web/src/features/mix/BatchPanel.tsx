import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
  useTheme,
} from '@mui/material';
import type { Batch, Mixing } from '@steady-gleam/contracts';
import { potState, type Need, type Product } from '@steady-gleam/core';
import { useState, type ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import { sayClock } from '../../app/PotClocks';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { countCoats } from '../../shared/jobModel';
import { MeasureField } from '../../shared/MeasureField';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import { BatchRow, BatchTakenOut } from './BatchHistory';
import { CupPicture } from './CupPicture';
import { OverPanel } from './OverPanel';
import type { BatchPlan, MixGroup, MixSettings, Pours } from './mixModel';
import { tableStyles } from './tableStyles';

type Habit = 'cup' | 'scale';
const HABIT = 'steady-gleam.mix-habit';

/** What is typed beside a batch before it is mixed. */
export interface BatchNotes {
  /** By layer and part. */
  readonly lots: Readonly<Record<string, string>>;
  readonly note: string;
  readonly onCard: boolean;
}

export interface BatchPanelProps {
  readonly group: MixGroup;
  readonly work: {
    readonly product: Product | null;
    readonly pours: Pours;
    readonly need: Need;
    readonly plan: BatchPlan | null;
    readonly faults: Readonly<Record<string, string>>;
  };
  readonly settings: MixSettings;
  readonly onSettings: (more: Partial<MixSettings>) => void;
  readonly mixing: Mixing;
  readonly onMixing: (more: (now: Mixing) => Partial<Mixing>) => void;
  readonly shelf: readonly Product[];
  /** How much of the spray lands, as a sentence without its stop. */
  readonly lands: string;
  /** What the card says this hand lays of a nominal coat of this mix; null when it says nothing of it. */
  readonly hand: string | null;
  /** Cups of this layer that were mixed for the job, newest first. */
  readonly mixed: readonly Batch[];
  /** Takes out what a nudge or a flake dose put in. */
  readonly onDropNudge: () => void;
  readonly notes: BatchNotes;
  readonly onNotes: (more: Partial<BatchNotes>) => void;
  readonly tabs: ReactNode;
  readonly weatherFields: ReactNode;
  /** It is in the cup. */
  readonly onMixed: () => void;
  readonly keeping: boolean;
  readonly keepFault: string | null;
  readonly failure: string | null;
}

/** One cup: what to pour to which mark, what the scale shows, and what was mixed before. */
export function BatchPanel(props: BatchPanelProps) {
  const { group, settings, onSettings, mixing, shelf, mixed, notes } = props;
  const { product, pours, need, plan, faults } = props.work;
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow(10_000);
  const [habit, setHabit] = useState<Habit>(() => (localStorage.getItem(HABIT) === 'scale' ? 'scale' : 'cup'));
  const [over, setOver] = useState<number | null>(null);
  const [takenOut, setTakenOut] = useState<Batch | null>(null);

  const byWeight = pours.pours.every((p) => p.density !== undefined);
  const inUse = mixed.find((b) => b.endedAt === null);
  const pot = inUse ? potState(new Date(inUse.mixedAt).getTime(), inUse.potMinutes, now) : null;
  const blocked = pot?.state === 'over';
  const digits = units.system === 'us' ? 2 : 0;
  const { cell, head } = tableStyles(tones.hairline);
  const why: ReactNode = blocked
    ? `It was mixed ${Math.round((now - new Date(inUse!.mixedAt).getTime()) / 60_000)} min ago and sets after ${Math.round(inUse!.potMinutes!)}. Empty the cup, clean the gun, say below what was left, then mix fresh; thinning it does not bring it back.`
    : plan
      ? `${countCoats(group.coats)} on ${units.say('area', group.areaM2)} ${group.coats > 1 ? 'take' : 'takes'} about ${units.within('volume', need.ml, need.low, need.high)}: ${props.lands}.${props.hand ? ` Your card says you lay ${props.hand} of a nominal coat.` : ''}${group.coats > 1 ? ' One batch for all coats keeps them one colour.' : ''}`
      : 'Something below is not a figure yet.';
  const additives = (role: 'hardener' | 'reducer') => {
    if (!pours.pours.some((p) => p.role === role)) return null;
    const own = (product?.additives ?? []).filter((a) => a.role === role);
    const now_ = pours.pours.find((p) => p.role === role);
    return (
      <Field
        label={role === 'hardener' ? 'Hardener' : 'Reducer'}
        select
        value={settings[role]}
        onChange={(e) => onSettings({ [role]: e.target.value })}
        hint={now_?.advice ? now_.advice.why : own.length ? '' : `no ${role} stands with this product`}
      >
        <option value="">{now_?.advice && !settings[role] ? now_.name : 'as advised'}</option>
        {own.map((a) => (
          <option key={a.name} value={a.name}>
            {a.name}, {units.range('temperature', a.fromC, a.toC)}
          </option>
        ))}
      </Field>
    );
  };
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">In the cup</Typography>
          {plan?.cup ? (
            <CupPicture parts={plan.parts} cup={plan.cup} ml={plan.ml} />
          ) : plan ? (
            <Typography>
              No cup here holds {units.say('volume', plan.ml)}. Mix it in parts, and pour them together before the last
              coat, so that they are one colour.
            </Typography>
          ) : null}
          {plan ? (
            <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '1fr auto', m: 0, rowGap: 0.25 }}>
              {[
                [
                  'pot life',
                  plan.potMinutes === null
                    ? 'does not set'
                    : `${sayClock(plan.potMinutes)} h at ${units.say('temperature', mixing.temperatureC)}`,
                ],
                ['VOC of the mix', plan.voc ? units.say('voc', plan.voc.actual) : 'not known'],
                ['less water, exempt', plan.voc ? units.say('voc', plan.voc.coating) : 'not known'],
                ['material', plan.cost === null ? 'not known' : plan.cost.toFixed(1)],
              ].map(([name, value]) => (
                <Box key={name} sx={{ display: 'contents' }}>
                  <Box component="dt" sx={{ borderTop: `1px solid ${tones.hairline}`, py: 0.25 }}>
                    {name}
                  </Box>
                  <Box
                    component="dd"
                    sx={{
                      m: 0,
                      borderTop: `1px solid ${tones.hairline}`,
                      py: 0.25,
                      fontFamily: FIGURES,
                      textAlign: 'right',
                    }}
                  >
                    {value}
                  </Box>
                </Box>
              ))}
            </Box>
          ) : null}
          <FormControlLabel
            control={<Checkbox checked={notes.onCard} onChange={(e) => props.onNotes({ onCard: e.target.checked })} />}
            label="Also for the let-down card"
            sx={{ minHeight: 44 }}
          />
          <Button
            variant={inUse && !blocked ? 'outlined' : 'contained'}
            sx={{ minHeight: 56 }}
            disabled={!plan || !!pours.ratioFault || blocked || props.keeping}
            onClick={props.onMixed}
          >
            {inUse && !blocked ? 'Another cup is mixed' : 'Mixed: start its clock'}
          </Button>
          {props.keepFault ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {props.keepFault}
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {pours.pours.some((p) => p.role === 'hardener')
              ? 'Hardener holds isocyanates: air-fed respirator, gloves and goggles while it is poured. '
              : ''}
            Solvents away from sparks, cans bonded, air moving. The product’s sheet and your local rules come first.
          </Typography>
        </>
      }
    >
      <Answer why={why}>
        {blocked
          ? `The pot life of ${group.name} is over: do not spray it.`
          : plan
            ? inUse
              ? `${group.name.charAt(0).toUpperCase()}${group.name.slice(1)} is mixed${pot!.minutesLeft === null ? '' : `, ${sayClock(pot!.minutesLeft)} left`}.`
              : `Mix ${units.say('volume', plan.ml)} of ${group.kind === 'effect' || group.kind === 'ground' ? group.name : group.name.toLowerCase()}.`
            : 'One figure needs changing.'}
      </Answer>
      {props.tabs}
      {plan ? (
        <table aria-label="Batch" style={{ borderCollapse: 'collapse', width: '100%', maxWidth: 820 }}>
          <thead>
            <tr>
              <th scope="col" style={{ ...head, textAlign: 'left', paddingLeft: 0 }}>
                <ToggleButtonGroup
                  exclusive
                  size="small"
                  value={habit}
                  aria-label="Poured by"
                  onChange={(_, v: Habit | null) => {
                    if (!v) return;
                    localStorage.setItem(HABIT, v);
                    setHabit(v);
                  }}
                >
                  <ToggleButton value="cup">by cup</ToggleButton>
                  <ToggleButton value="scale" disabled={!byWeight}>
                    by scale
                  </ToggleButton>
                </ToggleButtonGroup>
              </th>
              {[
                'parts',
                units.name('volume'),
                `to mark, ${units.name('volume')}`,
                units.name('mass'),
                `scale shows, ${units.name('mass')}`,
              ].map((name) => (
                <th key={name} scope="col" style={head}>
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plan.parts.map((p, i) => {
              const big = (on: boolean) => ({ ...cell, fontSize: on ? 28 : 19, fontWeight: on ? 700 : 400 });
              return (
                <tr key={p.name}>
                  <td
                    style={{
                      ...cell,
                      textAlign: 'left',
                      padding: '3px 0',
                      fontFamily: 'inherit',
                      whiteSpace: 'normal',
                    }}
                  >
                    <Button
                      variant="text"
                      color="inherit"
                      aria-pressed={over === i}
                      title="Too much went in, or too little is there"
                      onClick={() => setOver(over === i ? null : i)}
                      sx={{
                        px: 0.5,
                        fontSize: 19,
                        fontWeight: 640,
                        textAlign: 'left',
                        justifyContent: 'flex-start',
                        lineHeight: 1.15,
                        background: over === i ? tones.raised : 'none',
                      }}
                    >
                      {p.name}
                    </Button>
                  </td>
                  <td style={big(false)}>{Number(pours.pours[i]!.parts.toFixed(2))}</td>
                  <td style={big(false)}>{units.figure('volume', p.ml, digits)}</td>
                  <td style={big(habit === 'cup' || !byWeight)}>{units.figure('volume', p.mark, digits)}</td>
                  <td style={big(false)}>{p.grams === null ? '–' : units.figure('mass', p.grams)}</td>
                  <td style={big(habit === 'scale' && byWeight)}>
                    {p.runningGrams === null ? '–' : units.figure('mass', p.runningGrams)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : null}
      {byWeight ? null : (
        <Typography variant="body2" sx={{ mt: 1 }}>
          A density is missing, so this is by volume only. It can be entered with the product.
        </Typography>
      )}
      {pours.pours.some((p) => p.added) ? (
        <Typography role="status" sx={{ mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.25 }}>
          Added to the sheet’s parts: {pours.pours.flatMap((p) => (p.added ? [p.name] : [])).join(', ')}.{' '}
          <Button
            variant="text"
            color="inherit"
            onClick={props.onDropNudge}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            Take that out
          </Button>
        </Typography>
      ) : null}
      {pours.warnings.map((w) => (
        <Typography key={w} role="status" sx={{ mt: 1, borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          {units.sentence(w)}
        </Typography>
      ))}
      {/* A shorter ratio may have left the part out. */}
      {over !== null && plan?.parts[over] ? (
        <OverPanel
          key={over}
          pours={pours.pours}
          plan={plan}
          need={need.ml}
          index={over}
          byWeight={byWeight && habit === 'scale'}
          onScale={(ml) => {
            onSettings({ amount: String(ml) });
            setOver(null);
          }}
        />
      ) : null}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        {group.kind === 'effect'
          ? 'Stir the pearl or flake up from the bottom before it is poured, strain the dye, and stir again before every coat.'
          : group.kind === 'ground'
            ? 'Stir it up, strain it into the cup, and keep enough for the blend.'
            : 'Stir the tin, strain into the cup, stir two minutes after the hardener.'}{' '}
        Tap a part when too much went in or too little is there.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(250px, 1fr))',
          columnGap: 2,
          rowGap: 1,
          mt: 1.5,
          maxWidth: 820,
        }}
      >
        <Field
          label="Product"
          select
          value={mixing.products[group.id] ?? ''}
          onChange={(e) => {
            const { value } = e.target;
            props.onMixing((now) => {
              const others = Object.entries(now.products).filter(([layer]) => layer !== group.id);
              return { products: Object.fromEntries(value ? [...others, [group.id, value]] : others) };
            });
          }}
          hint={product ? '' : `no ${group.productKind} on the shelf; common figures are used`}
        >
          <option value="">{product && !mixing.products[group.id] ? product.name : 'first of its kind'}</option>
          {shelf.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </Field>
        <Field
          label="Ratio, as on the sheet"
          value={settings.ratio || product?.ratio || ''}
          onChange={(e) => onSettings({ ratio: e.target.value })}
          error={pours.ratioFault ?? undefined}
        />
        {additives('hardener')}
        {additives('reducer')}
        {props.weatherFields}
        <MeasureField
          measure="volume"
          label="Mix instead"
          value={settings.amount}
          onValue={(amount) => onSettings({ amount })}
          error={faults['amount']}
          hint={`needed: ${Math.round(need.ml)} ml`}
        />
        <MeasureField
          measure="volume"
          label="Cup"
          value={settings.cup}
          onValue={(cup) => onSettings({ cup })}
          error={faults['cup']}
          hint="empty: the smallest that holds it"
        />
      </Box>
      {props.failure ? (
        <Typography role="alert" sx={{ color: 'error.main', mt: 1 }}>
          {props.failure}
        </Typography>
      ) : null}
      <Box component="details" sx={{ mt: 1.5, maxWidth: 820 }}>
        <Box component="summary" sx={{ minHeight: 44, py: 1.25, cursor: 'pointer', typography: 'h3' }}>
          Lot numbers and a note
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(182px, 1fr))', gap: 1.5 }}>
          {pours.pours.map((p) => (
            <Field
              key={p.name}
              label={`Lot, ${p.name}`}
              value={notes.lots[`${group.id}/${p.name}`] ?? ''}
              onChange={(e) =>
                props.onNotes({ lots: { ...notes.lots, [`${group.id}/${p.name}`]: e.target.value.slice(0, 40) } })
              }
            />
          ))}
          <Field
            label="Note"
            value={notes.note}
            onChange={(e) => props.onNotes({ note: e.target.value.slice(0, 400) })}
          />
        </Box>
      </Box>
      {mixed.length ? (
        <>
          <Typography variant="h2" sx={{ mt: 1.5 }}>
            Mixed for this job
          </Typography>
          <Box component="ul" aria-label="Batches" sx={{ listStyle: 'none', p: 0, m: 0, maxWidth: 820 }}>
            {mixed.map((b) => (
              <BatchRow key={b.id} batch={b} onTaken={setTakenOut} />
            ))}
          </Box>
        </>
      ) : null}
      {takenOut ? <BatchTakenOut batch={takenOut} onBack={() => setTakenOut(null)} /> : null}
    </Bench>
  );
}
