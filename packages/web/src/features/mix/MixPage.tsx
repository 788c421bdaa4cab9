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
import {
  mixingSchema,
  shopApi,
  START_MIXING,
  START_PIECES,
  type Batch,
  type Mixing,
  type NewBatch,
} from '@steady-gleam/contracts';
import {
  areaOf,
  findGround,
  potState,
  sprayMinutes,
  STARTING_GUNS,
  TRANSFER_SD,
  USUAL_TRANSFER,
  type Product,
} from '@steady-gleam/core';
import { useEffect, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { FIGURES } from '../../app/theme';
import { sayClock } from '../../app/PotClocks';
import { numberIn } from '../../shared/numberIn';
import { Answer } from '../../shared/Answer';
import { call } from '../../shared/apiClient';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { useStacks } from '../../shared/FilmSection';
import { choiceOf, countCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { MeasureField } from '../../shared/MeasureField';
import { Notice } from '../../shared/Notice';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import { useChangeJob, useJob } from '../../shared/useJob';
import { transferOf, useBatches, useGuns, useProducts, useShopChange } from '../../shared/useShop';
import { CardCoats } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';
import { BatchRow } from './BatchHistory';
import { CupPicture } from './CupPicture';
import { FlakePanel } from './FlakePanel';
import { OverPanel } from './OverPanel';
import {
  batchOf,
  groupsOf,
  hardenerInClears,
  needFor,
  planBatch,
  poursOf,
  productOf,
  solidsOf,
  START_SETTINGS,
  USUAL_LOSS_ML,
  type MixGroup,
  type MixSettings,
} from './mixModel';
import { ShadePanel } from './ShadePanel';
import { WholeJobPanel } from './WholeJobPanel';

interface Kept {
  readonly settings: Readonly<Record<string, MixSettings>>;
  readonly lots: Readonly<Record<string, string>>;
  readonly note: string;
  readonly onCard: boolean;
  readonly leftover: string;
}
const EMPTY: Kept = { settings: {}, lots: {}, note: '', onCard: false, leftover: '' };
const keyOf = (jobId: string) => `steady-gleam.mix.${jobId}`;
function kept(jobId: string): Kept {
  try {
    return { ...EMPTY, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<Kept>) };
  } catch {
    return EMPTY;
  }
}

type Habit = 'cup' | 'scale';
const HABIT = 'steady-gleam.mix-habit';

const NO_PRODUCTS: readonly Product[] = [];
const NO_BATCHES: readonly Batch[] = [];

/** One batch on one page for every product of the job: what to pour to which mark, and what the scale shows. */
export function MixPage() {
  const detail = useJob();
  const { job } = detail;
  const { tones } = useTheme();
  const { library } = useLibrary();
  const units = useUnits();
  const now = useNow(10_000);
  const [params, setParams] = useSearchParams();
  const products = useProducts();
  const guns = useGuns();
  const batches = useBatches();
  const change = useChangeJob(job.id);
  const [state, setState] = useState(() => kept(job.id));
  const [habit, setHabit] = useState<Habit>(() => (localStorage.getItem(HABIT) === 'scale' ? 'scale' : 'cup'));
  const [mixingFaults, setMixingFaults] = useState<Record<string, string>>({});
  const [weather, setWeather] = useState<{ temperatureC?: string; humidity?: string }>({});
  const [over, setOver] = useState<{ layer: string; index: number } | null>(null);
  const [batchId, setBatchId] = useState(() => crypto.randomUUID());
  useEffect(() => sessionStorage.setItem(keyOf(job.id), JSON.stringify(state)), [job.id, state]);
  const add = useShopChange('batches', (body: NewBatch) => call(shopApi.addBatch, { body }));

  const stacks = useStacks(job, choiceOf(job));
  const count = useCardCount(detail);
  const hand = count.assessment?.calibration ? { systemId: job.systemId, film: count.assessment.hand.film } : null;
  const shelf = products.data?.map((p) => p.product) ?? NO_PRODUCTS;
  const rack = guns.data ?? [];
  const mixed = batches.data ?? NO_BATCHES;
  // Amounts follow from the hand: none is shown before the card is read.
  const readsCard =
    count.readings.length > 0 && count.target.length > 0 && job.choice && !count.assessment && !count.error;
  if (products.isPending || guns.isPending || batches.isPending || readsCard)
    return <Notice title="Opening the mix room …" />;
  const failed = products.error ?? guns.error ?? batches.error;
  if (failed)
    return (
      <Notice title="The mix room could not be opened." text={failed.message}>
        <Button
          variant="contained"
          onClick={() => void Promise.all([products.refetch(), guns.refetch(), batches.refetch()])}
        >
          Try again
        </Button>
      </Notice>
    );

  const mixing = job.mixing ?? START_MIXING;
  const pieces = job.pieces ?? START_PIECES;
  const area = areaOf(pieces);
  const groups = groupsOf(
    stacks.flatMap((s) => s.layers),
    library,
    hand,
  );
  const gun = rack.find((g) => g.gun.id === mixing.gunId)?.gun ?? null;
  const transfer = gun ? transferOf(gun, mixed) : { mean: USUAL_TRANSFER, sd: TRANSFER_SD, lessons: 0 };
  const sprayer = gun ?? STARTING_GUNS[0]!;
  const lossMl = gun?.lossMl ?? USUAL_LOSS_ML;
  const ownBatches = mixed.filter((b) => b.jobId === job.id);
  const settingsOf = (g: MixGroup): MixSettings => state.settings[g.id] ?? START_SETTINGS;
  const open = params.get('layer');
  const tool = open === 'job' || open === 'flake' || open === 'shade' ? open : null;
  const group =
    groups.find((g) => g.id === open) ?? groups.find((g) => g.materialId === job.systemId) ?? groups[0] ?? null;

  const plainPours = (g: MixGroup, sameHardener: string | null) =>
    poursOf({
      group: g,
      product: productOf(g, library, shelf, mixing),
      library,
      settings: settingsOf(g),
      temperatureC: mixing.temperatureC,
      areaM2: area,
      sameHardener,
    });
  const worked = (g: MixGroup) => {
    const product = productOf(g, library, shelf, mixing);
    const same = hardenerInClears(g, groups, ownBatches, (other) => plainPours(other, null).pours);
    const pours = plainPours(g, same);
    const solids = solidsOf(g, product, library);
    const need = needFor(g, area, solids, { lossMl }, transfer);
    return {
      product,
      pours,
      solids,
      need,
      ...planBatch(pours.pours, need, settingsOf(g), product, mixing.temperatureC),
    };
  };

  const setSettings = (g: MixGroup, more: Partial<MixSettings>) =>
    setState((old) => ({
      ...old,
      settings: { ...old.settings, [g.id]: { ...(old.settings[g.id] ?? START_SETTINGS), ...more } },
    }));
  const setMixing = (more: Partial<Mixing>) => {
    try {
      const next = mixingSchema.validateSync({ ...mixing, ...more }, { abortEarly: false });
      setMixingFaults({});
      if (JSON.stringify(next) !== JSON.stringify(mixing)) change.mutate({ version: job.version, mixing: next });
    } catch (error) {
      const { inner } = error as { inner: { path?: string; message: string }[] };
      setMixingFaults(Object.fromEntries(inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  const show = (id: string) => {
    setOver(null);
    setParams({ layer: id }, { replace: true });
  };

  const switches = (
    <ToggleButtonGroup
      exclusive
      value={tool ?? group?.id ?? ''}
      aria-label="What is mixed"
      onChange={(_, v: string | null) => v && show(v)}
      sx={{ flexWrap: 'wrap', mb: 1 }}
    >
      {groups.map((g) => (
        <ToggleButton key={g.id} value={g.id} sx={{ px: 1.5, textTransform: 'none' }}>
          {g.name}
        </ToggleButton>
      ))}
      <ToggleButton value="job" sx={{ px: 1.5, fontWeight: 700 }}>
        Whole job
      </ToggleButton>
      <ToggleButton value="shade" sx={{ px: 1.5 }}>
        Sealer shade
      </ToggleButton>
      <ToggleButton value="flake" sx={{ px: 1.5 }}>
        Flake
      </ToggleButton>
    </ToggleButtonGroup>
  );
  const tabs = (
    <>
      {switches}
      {tool === 'job' || (!tool && group?.materialId === job.systemId) ? (
        <CardCoats detail={detail} count={count} />
      ) : null}
    </>
  );

  if (tool === 'flake') {
    const ground = findGround(choiceOf(job).groundId, library.grounds);
    return (
      <FlakePanel
        jobId={job.id}
        ground={ground}
        carrier={shelf.find((p) => p.kind === 'flake carrier') ?? null}
        areaM2={area}
        tabs={tabs}
      />
    );
  }
  const sealer = groups.find((g) => g.kind === 'sealer');
  if (tool === 'shade')
    return (
      <ShadePanel
        tabs={tabs}
        shade={sealer ? settingsOf(sealer).shade : []}
        onUse={(shade) => {
          if (sealer) {
            setSettings(sealer, { shade });
            show(sealer.id);
          }
        }}
      />
    );

  const weatherFields = (
    <>
      <MeasureField
        measure="temperature"
        label="In the booth"
        value={weather.temperatureC ?? String(mixing.temperatureC)}
        onValue={(v) => setWeather({ ...weather, temperatureC: v })}
        onBlur={() => weather.temperatureC !== undefined && setMixing({ temperatureC: numberIn(weather.temperatureC) })}
        error={mixingFaults['temperatureC']}
      />
      <Field
        label="Gun"
        select
        value={mixing.gunId ?? ''}
        onChange={(e) => setMixing({ gunId: e.target.value || null })}
      >
        <option value="">not said</option>
        {rack.map((g) => (
          <option key={g.gun.id} value={g.gun.id}>
            {g.gun.name}
          </option>
        ))}
      </Field>
    </>
  );
  const lands = `${Math.round(transfer.mean * 100)} % lands${gun ? ` with ${gun.name}` : ''}${transfer.lessons ? `, learned from ${transfer.lessons} ${transfer.lessons === 1 ? 'batch' : 'batches'}` : ''}`;
  const cell = {
    padding: '9px 0 9px 10px',
    borderTop: `1px solid ${tones.hairline}`,
    fontFamily: FIGURES,
    textAlign: 'right' as const,
    whiteSpace: 'nowrap' as const,
  };
  const head = { fontWeight: 400, textAlign: 'right' as const, fontSize: 14, padding: '4px 0 4px 10px' };

  if (tool === 'job')
    return (
      <WholeJobPanel
        all={groups.map((g) => ({ group: g, ...worked(g) }))}
        area={area}
        transferMean={transfer.mean}
        coatMinutes={sprayMinutes(area, sprayer, { speedCmS: sprayer.speedCmS, overlap: 0.75 })}
        lands={lands}
        tabs={tabs}
        weatherFields={weatherFields}
        humidity={weather.humidity ?? String(Math.round(mixing.humidity * 100))}
        onHumidity={(humidity) => setWeather({ ...weather, humidity })}
        onHumidityDone={() =>
          weather.humidity !== undefined && setMixing({ humidity: numberIn(weather.humidity) / 100 })
        }
        humidityFault={mixingFaults['humidity']}
        leftover={state.leftover}
        onLeftover={(leftover) => setState({ ...state, leftover })}
        pieces={pieces}
        onPieces={(next) => change.mutate({ version: job.version, pieces: next })}
        failure={change.error?.message ?? null}
        onShow={show}
      />
    );

  if (!group) return <Notice title="Nothing is laid yet." text="Add layers first; the mix room pours for them." />;
  const { product, pours, need, plan, faults, solids } = worked(group);
  const settings = settingsOf(group);
  const byWeight = pours.pours.every((p) => p.density !== undefined);
  const unit = byWeight && habit === 'scale' ? 'g' : 'ml';
  const overHere = over?.layer === group.id ? over : null;
  const inUse = ownBatches.find((b) => b.layerId === group.id && b.endedAt === null);
  const pot = inUse ? potState(new Date(inUse.mixedAt).getTime(), inUse.potMinutes, now) : null;
  const blocked = pot?.state === 'over';
  const digits = units.system === 'us' ? 2 : 0;
  const needText = units.range('volume', need.low, need.high);
  const handHere =
    hand && group.materialId === hand.systemId && Math.abs(hand.film - 1) > 0.03 ? hand.film.toFixed(2) : null;
  const why: ReactNode = blocked
    ? `It was mixed ${Math.round((now - new Date(inUse!.mixedAt).getTime()) / 60_000)} min ago and sets after ${Math.round(inUse!.potMinutes!)}. Empty the cup, clean the gun, say below what was left, then mix fresh; thinning it does not bring it back.`
    : plan
      ? `${countCoats(group.coats)} on ${units.say('area', area)} take about ${units.say('volume', need.ml)}, ${needText}: ${lands}.${handHere ? ` Your card says you lay ${handHere} of a nominal coat.` : ''}${group.coats > 1 ? ' One batch for all coats keeps them one colour.' : ''}`
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
        onChange={(e) => setSettings(group, { [role]: e.target.value })}
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
  const keep = () => {
    if (!plan) return;
    add.mutate(
      batchOf(
        {
          id: batchId,
          jobId: job.id,
          group,
          product,
          gun,
          plan,
          pours: pours.pours,
          lots: pours.pours.map((p) => state.lots[`${group.id}/${p.name}`] ?? ''),
          temperatureC: mixing.temperatureC,
          areaM2: area,
          solids,
          onCard: state.onCard,
          note: state.note,
        },
        new Date().toISOString(),
      ),
      {
        onSuccess: () => {
          setBatchId(crypto.randomUUID());
          setState((old) => ({ ...old, note: '', onCard: false }));
        },
      },
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
            control={
              <Checkbox checked={state.onCard} onChange={(e) => setState({ ...state, onCard: e.target.checked })} />
            }
            label="Also for the let-down card"
            sx={{ minHeight: 44 }}
          />
          <Button
            variant={inUse && !blocked ? 'outlined' : 'contained'}
            sx={{ minHeight: 56 }}
            disabled={!plan || !!pours.ratioFault || blocked || add.isPending}
            onClick={keep}
          >
            {inUse && !blocked ? 'Another cup is mixed' : 'Mixed: start its clock'}
          </Button>
          {add.error ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {add.error.message}
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
      {tabs}
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
                  <td style={{ ...cell, textAlign: 'left', padding: '3px 0', fontFamily: 'inherit' }}>
                    <Button
                      variant="text"
                      color="inherit"
                      aria-pressed={overHere?.index === i}
                      title="Too much went in, or too little is there"
                      onClick={() => setOver(overHere?.index === i ? null : { layer: group.id, index: i })}
                      sx={{
                        px: 0.5,
                        fontSize: 19,
                        fontWeight: 640,
                        textAlign: 'left',
                        justifyContent: 'flex-start',
                        lineHeight: 1.15,
                        background: overHere?.index === i ? tones.raised : 'none',
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
      {pours.warnings.map((w) => (
        <Typography key={w} role="status" sx={{ mt: 1, borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          {units.sentence(w)}
        </Typography>
      ))}
      {overHere && plan ? (
        <OverPanel
          key={`${group.id}/${overHere.index}`}
          pours={pours.pours}
          plan={plan}
          need={need.ml}
          index={overHere.index}
          byWeight={unit === 'g'}
          onScale={(ml) => {
            setSettings(group, { amount: String(ml) });
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
            const others = Object.entries(mixing.products).filter(([layer]) => layer !== group.id);
            setMixing({
              products: Object.fromEntries(e.target.value ? [...others, [group.id, e.target.value]] : others),
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
          onChange={(e) => setSettings(group, { ratio: e.target.value })}
          error={pours.ratioFault ?? undefined}
        />
        {additives('hardener')}
        {additives('reducer')}
        {weatherFields}
        <MeasureField
          measure="volume"
          label="Mix instead"
          value={settings.amount}
          onValue={(amount) => setSettings(group, { amount })}
          error={faults['amount']}
          hint={`needed: ${Math.round(need.ml)} ml`}
        />
        <MeasureField
          measure="volume"
          label="Cup"
          value={settings.cup}
          onValue={(cup) => setSettings(group, { cup })}
          error={faults['cup']}
          hint="empty: the smallest that holds it"
        />
      </Box>
      {change.error ? (
        <Typography role="alert" sx={{ color: 'error.main', mt: 1 }}>
          {change.error.message}
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
              value={state.lots[`${group.id}/${p.name}`] ?? ''}
              onChange={(e) =>
                setState({ ...state, lots: { ...state.lots, [`${group.id}/${p.name}`]: e.target.value.slice(0, 40) } })
              }
            />
          ))}
          <Field
            label="Note"
            value={state.note}
            onChange={(e) => setState({ ...state, note: e.target.value.slice(0, 400) })}
          />
        </Box>
      </Box>
      {ownBatches.some((b) => b.layerId === group.id) ? (
        <>
          <Typography variant="h2" sx={{ mt: 1.5 }}>
            Mixed for this job
          </Typography>
          <Box component="ul" aria-label="Batches" sx={{ listStyle: 'none', p: 0, m: 0, maxWidth: 820 }}>
            {ownBatches
              .filter((b) => b.layerId === group.id)
              .map((b) => (
                <BatchRow key={b.id} batch={b} />
              ))}
          </Box>
        </>
      ) : null}
    </Bench>
  );
}
