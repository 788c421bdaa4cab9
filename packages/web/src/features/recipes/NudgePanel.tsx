import { Box, Button, Typography, useTheme } from '@mui/material';
import { Input } from '../../ui/Input';
import { type Job, type ReadingSet, START_MIXING } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import {
  nudgePours,
  remarkToLabs,
  weakerBy,
  type Nudge,
  type Remark,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import type { EffectMix } from '@steady-gleam/core/materials';
import { cupOf } from '@steady-gleam/core/products';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { FlopStrip } from '../../shared/FlopStrip';
import { useStacks } from '../../shared/film/useStacks';
import { pickOf, rungReadingsOf, sayCoats } from '../../shared/jobModel';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { useChangeJob } from '../../shared/useJob';
import { useBatches } from '../../shared/useShop';
import { useLibrary } from '../../shared/library';
import type { Mix } from '@steady-gleam/core/looks';
import { useCompute } from '../../worker/useCompute';
import { sayNudge } from './recipesModel';

const VIEWS: readonly Remark['view'][] = ['face', 'flop', 'all over'];
const AMOUNTS: readonly Remark['amount'][] = ['a touch', 'clearly', 'far'];
const OFFS: readonly Remark['off'][] = [
  'redder',
  'yellower',
  'greener',
  'bluer',
  'lighter',
  'darker',
  'stronger',
  'weaker',
];

/** Carrier in a cup when none stands there, ml. */
const USUAL_CUP_ML = 500;

interface NudgePanelProps {
  readonly job: Job;
  readonly mix: Mix;
  readonly groundId: string;
  readonly coats: number;
  readonly target: readonly TargetAngle[];
  readonly rungs: readonly ReadingSet[];
  readonly system: EffectMix;
}

/** A sprayed card that is off, said in words or read: which toner, how much, half first. */
export function NudgePanel({ job, mix, groundId, coats, target, rungs, system }: NudgePanelProps) {
  const { library } = useLibrary();
  const [said, setSaid] = useState<readonly Remark[]>([]);
  const [rung, setRung] = useState<number | null>(null);
  const [carrier, setCarrier] = useState('');
  /** The advice that was put into the mix, so that a later one does not look as if it were. */
  const [putIn, setPutIn] = useState<Nudge | null>(null);
  const units = useUnits();
  const { data: batches = [] } = useBatches(job.id);
  const change = useChangeJob(job.id);
  const layers = useStacks(job, pickOf(job)).flatMap((s) => s.layers);
  const effect = layers.find((l) => l.kind === 'effect' && l.materialId === job.mixId);
  const cupId = effect ? cupOf(effect, layers) : null;
  const read = rungReadingsOf(rungs, target).filter((r) => r.labs.every((lab) => lab !== null));
  const fromRung = read.find((r) => r.coats === rung);
  const card: readonly Lab[] | null = fromRung
    ? (fromRung.labs as readonly Lab[])
    : said.length
      ? remarkToLabs(target, said)
      : null;
  const count = fromRung?.coats ?? coats;
  const weaker = fromRung ? 0 : weakerBy(said);
  const { value, stale } = useCompute(card ? JSON.stringify([mix, groundId, count, target, card, weaker]) : null, (c) =>
    c.nudge(mix, groundId, count, target, card!, weaker).then((nudge) => ({ nudge })),
  );
  // The cup that stands there, or one that is typed.
  const cup = batches.find((b) => b.jobId === job.id && b.layerId === cupId && b.endedAt === null);
  const standing = cup?.parts.find((p) => p.role === 'product')?.ml ?? null;
  const typedMl = numberIn(carrier);
  const carrierMl = carrier.trim() ? typedMl : (standing ?? USUAL_CUP_ML);
  const good = carrierMl > 0 && carrierMl <= 20_000;
  const carrierName = system.parts[0]?.name ?? 'mix';
  const advice = card && value && !stale && good ? sayNudge(value.nudge, system, library, carrierMl, count) : null;
  const mixing = job.mixing ?? START_MIXING;
  const put = () => {
    if (!value?.nudge || !cupId) return;
    setPutIn(value.nudge);
    const added = nudgePours(system, value.nudge.half, library.dyes).map((p) => ({ ...p, dry: false }));
    const before = mixing.added?.[cupId] ?? [];
    change.mutate({
      version: job.version,
      mixing: { ...mixing, added: { ...mixing.added, [cupId]: [...before, ...added] } },
    });
  };
  return (
    <>
      <Box>
        <Typography variant="h2">A sprayed card is off?</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Say how it differs from the target, or take a rung you read.
        </Typography>
      </Box>
      {read.length ? <RungsRead counts={read.map((r) => r.coats)} rung={rung} setRung={setRung} /> : null}
      {fromRung ? null : (
        <RemarkForm
          onSay={(remark) => setSaid([...said.filter((s) => s.view !== remark.view || s.off !== remark.off), remark])}
        />
      )}
      {fromRung || !said.length ? null : (
        <Box component="ul" aria-label="What was said" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {said.map((s) => (
            <RemarkRow key={`${s.view}/${s.off}`} s={s} setSaid={setSaid} said={said} />
          ))}
        </Box>
      )}
      {card ? (
        <MeasureField
          measure="volume"
          label={`In the cup, ${carrierName}`}
          value={carrier}
          onValue={setCarrier}
          error={good ? undefined : 'More than zero, at most 20000 ml.'}
          hint={
            carrier.trim()
              ? ''
              : standing === null
                ? `empty: ${units.say('volume', USUAL_CUP_ML)}; no cup stands there`
                : `empty: ${units.say('volume', standing)}, the cup that stands there`
          }
        />
      ) : null}
      {advice ? (
        <Box aria-live="polite" data-testid="nudge">
          <Typography variant="h2">{advice.answer}</Typography>
          <Typography sx={{ mt: 0.5 }}>{advice.why}</Typography>
          <PutIn
            canPut={Boolean(value?.nudge && cupId)}
            isThis={putIn === value?.nudge}
            isBusy={change.isPending}
            isIn={change.isSuccess}
            error={change.error}
            put={put}
          />
        </Box>
      ) : null}
      {advice && value?.nudge ? (
        <FlopStrip
          angles={target}
          target={target.map((t) => t.lab)}
          sample={value.nudge.full.labs}
          height={84}
          label="Target over the corrected card, predicted"
        />
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 'auto' }}>
        Strengths of toners outside the mix are usual ones: weigh by your own, and spray a card before the piece. A drop
        is a twentieth of a millilitre.
      </Typography>
    </>
  );
}

interface RemarkRowProps {
  readonly s: Remark;
  readonly setSaid: Dispatch<SetStateAction<readonly Remark[]>>;
  readonly said: readonly Remark[];
}

/** A remark that was made, with the way to take it back. */
function RemarkRow({ s, setSaid, said }: RemarkRowProps) {
  const { tones } = useTheme();
  return (
    <Box
      component="li"

      sx={{
        display: 'flex',
        alignItems: 'center',
        justifyContent: 'space-between',
        borderBottom: `1px solid ${tones.hairline}`,
      }}
    >
      The card is {s.amount} {s.off}, {s.view}
      <Button variant="text" color="inherit" onClick={() => setSaid(said.filter((o) => o !== s))} sx={{ px: 1 }}>
        Unsay
      </Button>
    </Box>
  );
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly all: readonly T[];
  readonly set: (v: T) => void;
}

function Choice<T extends string>({ label, value, all, set }: ChoiceProps<T>) {
  return (
    <Input select value={value} onChange={(e) => set(e.target.value as T)} aria-label={label} style={{ fontSize: 15 }}>
      {all.map((v) => (
        <option key={v} value={v}>
          {v}
        </option>
      ))}
    </Input>
  );
}

interface RungsReadProps {
  readonly counts: readonly number[];
  readonly rung: number | null;
  readonly setRung: (rung: number | null) => void;
}

/** Rungs that were read, one of them to be taken as the card. */
function RungsRead({ counts, rung, setRung }: RungsReadProps) {
  const { tones } = useTheme();
  return (
    <Box role="group" aria-label="Rungs read" sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      {counts.map((coats) => (
        <Button
          key={coats}
          variant="outlined"
          aria-pressed={rung === coats}
          onClick={() => setRung(rung === coats ? null : coats)}
          sx={rung === coats ? { background: tones.ink, color: tones.page, '&:hover': { background: tones.ink } } : {}}
        >
          rung {sayCoats(coats)}
        </Button>
      ))}
    </Box>
  );
}

interface PutInProps {
  readonly canPut: boolean;
  /** What was put in last is this advice. */
  readonly isThis: boolean;
  readonly isBusy: boolean;
  readonly isIn: boolean;
  readonly error: Error | null;
  readonly put: () => void;
}

/** The way from the advice into the mix, and whether it is there. */
function PutIn({ canPut, isThis, isBusy, isIn, error, put }: PutInProps) {
  return (
    <>
      {canPut ? (
        <Button variant="outlined" disabled={isBusy} onClick={put} sx={{ mt: 1 }}>
          Put this half into the mix
        </Button>
      ) : null}
      {isIn && isThis ? (
        <Typography role="status" sx={{ mt: 0.5 }}>
          The mix room pours it with the rest; it can be taken out there.
        </Typography>
      ) : null}
      {error && isThis ? (
        <Typography role="alert" sx={{ color: 'error.main', mt: 0.5 }}>
          {error.message}
        </Typography>
      ) : null}
    </>
  );
}

/** How the card is off, in three words. */
function RemarkForm({ onSay }: { readonly onSay: (remark: Remark) => void }) {
  const [remark, setRemark] = useState<Remark>({ view: 'face', off: 'redder', amount: 'a touch' });
  return (
    <Box
      component="form"
      aria-label="How the card is off"
      onSubmit={(e) => {
        e.preventDefault();
        onSay(remark);
      }}
      sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}
    >
      <Choice label="How much" value={remark.amount} all={AMOUNTS} set={(amount) => setRemark({ ...remark, amount })} />
      <Choice label="Off which way" value={remark.off} all={OFFS} set={(off) => setRemark({ ...remark, off })} />
      <Choice label="Seen where" value={remark.view} all={VIEWS} set={(view) => setRemark({ ...remark, view })} />
      <Button type="submit" variant="outlined">
        Say it
      </Button>
    </Box>
  );
}
