import { START_MIXING } from '@steady-gleam/contracts';
import { sayOn } from '@steady-gleam/core/jobs';
import { dewCheck } from '@steady-gleam/core/spraying';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { ClimateLine, mixingWith } from '../../shared/devices/ClimateLine';
import { sayMinutes } from '../../shared/timeOfDay';
import { useUnits } from '../../shared/units';
import { useChangeJob } from '../../shared/useJob';
import { useNow } from '../../shared/useNow';
import { useBatches } from '../../shared/useShop';
import type { PlanPanelProps } from './planPanel';
import { saveCalendar, timelineOf } from './timelineModel';
import { ClockTimes, TimelinePicture } from './TimelinePicture';
import { TimeSide } from './TimeSide';

/** Everything against the clock: coats on areas, cups, flash, windows, checks and bake, for one painter today. */
export function TimePanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const units = useUnits();
  const { job } = detail;
  const mixing = job.mixing ?? START_MIXING;
  const now = useNow(60_000);
  const change = useChangeJob(job.id);
  const { data: stored = [] } = useBatches(job.id);
  const { state } = work;
  const { order, rows } = work.plan;
  const coats = rows.map((r) => r.coat);
  const timeline = timelineOf(work, plan, stored, job.id, now);
  const { line, at, say } = timeline;
  const from = Math.min(0, ...line.tasks.map((t) => t.start));
  const sayTask = (id: string) => say(line.tasks.find((t) => t.id === id));
  const dew = dewCheck(mixing.temperatureC, mixing.humidity, plan.surfaceC ?? mixing.temperatureC);
  return (
    <Bench
      side={<TimeSide plan={plan} set={set} mixing={mixing} dew={dew} onSave={() => saveCalendar(timeline, job)} />}
    >
      <Answer
        why={
          line.conflicts.length
            ? line.conflicts
                .map((c) =>
                  c.kind === 'recoat'
                    ? `${sayTask(c.task)} would come ${sayMinutes(c.by)} after its recoat window: scuff it or do as its sheet says, or take fewer pieces at a time.`
                    : `${sayTask(c.task)}: the cup sets ${Math.ceil(c.by)} min too soon; mix it in two.`,
                )
                .join(' ')
            : `${state.started === null ? 'One painter' : `${sayOn(state)} The rest follows from now. One painter`}, ${order.length} ${order.length === 1 ? 'area' : 'areas'}, ${coats.length} coats at ${units.say('temperature', mixing.temperatureC)}. Longest flash ${Math.ceil(Math.max(0, ...work.plan.cells.map((c) => c.flashMinutes)))} min.`
        }
      >
        {!dew.ok
          ? 'Do not spray: the surface is too near to the dew point.'
          : line.conflicts.length
            ? `Done at ${at(line.end)}, but ${line.conflicts.length === 1 ? 'one thing does' : `${line.conflicts.length} things do`} not fit.`
            : `Start ${at(Math.min(0, from))}, done at ${at(line.end)}.`}
      </Answer>
      <ClimateLine
        job={job}
        onUse={(climate) => {
          change.mutate({ version: job.version, mixing: mixingWith(job, climate) });
          set({ surfaceC: climate.surfaceC });
        }}
      />
      {tabs}
      <TimelinePicture work={work} timeline={timeline} />
      <ClockTimes work={work} timeline={timeline} />
    </Bench>
  );
}
