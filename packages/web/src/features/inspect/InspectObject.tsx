import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { unseenOf, type JobPlan, type JobState, type SeenSpot } from '@steady-gleam/core/jobs';
import type { FinishFamily } from '@steady-gleam/core/finishes';
import { viewsOf, type EyeView } from '@steady-gleam/core/letdown';
import type { Library } from '@steady-gleam/core/materials';
import { momentOf } from '@steady-gleam/core/recovery';
import { useState } from 'react';
import { Link } from 'react-router';
import type { JobLog } from '../../shared/log/useLog';
import { TextLine } from '../booth/NoteBox';
import { useLive } from '../spray/useLive';
import { looksAt, placesOf, sayInspect, sayRead, suggestedPlaces, VIEW_NAMES, VIEWS, type Place } from './inspectModel';
import { LookPad } from './LookPad';
import { PlaceTable } from './PlaceTable';
import { WaysPanel } from './WaysPanel';

/** One object, place by place and from everywhere it has to be looked at, and the ways out of what is off. */
export function InspectObject({
  detail,
  plan,
  state,
  log,
  library,
  objectId,
  onRead,
}: {
  detail: JobDetail;
  plan: JobPlan;
  state: JobState;
  log: JobLog;
  library: Library;
  objectId: string;
  /** Readings were kept. */
  onRead: () => void;
}) {
  const { tones } = useTheme();
  const { job } = detail;
  const live = useLive(detail, plan, state, objectId);
  const [added, setAdded] = useState<readonly Place[]>([]);
  const [adding, setAdding] = useState(false);
  const [at, setAt] = useState<{ readonly place: string; readonly view: EyeView } | null>(null);
  const known = placesOf(plan, live.areaIds, live.seen, live.state?.spots.map((s) => s.spot) ?? []);
  const places = [...known, ...added.filter((p) => !known.some((k) => k.name === p.name))].map((p) => ({
    ...p,
    looks: looksAt(live.seen, p, live.at(p.name)),
  }));
  const moment = momentOf(plan, state, job.mixId, objectId);
  const unseen = unseenOf(plan, state).find((u) => u.objectId === objectId);
  const said = sayInspect({ family: job.family, moment, live: live.state, places, unseen });
  const worst =
    places.find((p) => live.state?.spots.some((s) => s.spot === p.name && ['over', 'unlike'].includes(s.zone))) ??
    places.find((p) => live.state?.spots.some((s) => s.spot === p.name && s.zone === 'short')) ??
    places.find((p) => p.looks.some((l) => l.verdict !== null && (l.verdict !== 'match' || l.hue)));
  const open = places.find((p) => p.name === at?.place) ?? null;
  const place = open ?? worst ?? null;
  const add = (more: Place) => {
    setAdded([...added, more]);
    setAdding(false);
    setAt({ place: more.name, view: 'sun face' });
  };
  return (
    <Box
      sx={{
        flex: 1,
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 350px' },
        gap: 2.5,
        px: 3,
        pt: 1.5,
        pb: 2,
        alignContent: { xs: 'start', md: 'stretch' },
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h1" data-testid="answer" aria-live="polite">
          {said.answer}
        </Typography>
        <Typography sx={{ fontSize: 17, mt: 0.5, mb: 1.25, maxWidth: '80ch' }}>{said.why}</Typography>
        {moment === null ? (
          <LookedAtLater jobId={job.id} family={job.family} places={known} />
        ) : (
          <>
            <PlaceTable
              {...{ places, at }}
              family={job.family}
              read={(name) => {
                const spot = live.state?.spots.find((s) => s.spot === name);
                const isRead = detail.spots.some((s) => s.label === name && s.rungCoats === live.at(name));
                return !isRead ? '' : spot?.byEye ? 'read too' : sayRead(spot) || 'matches by its readings';
              }}
              needed={unseen?.missing ?? []}
              onTap={setAt}
            />
            <Button
              variant="outlined"
              sx={{ minHeight: 48, mt: 1 }}
              aria-expanded={adding}
              onClick={() => setAdding(!adding)}
            >
              + a place
            </Button>
            {adding ? (
              <>
                <MissedPlaces plan={plan} live={live} places={places} add={add} />
                <TextLine
                  label="Place, for instance: nose"
                  act="Look there"
                  onKeep={(text) => add({ name: text.slice(0, 40), areaIds: live.areaIds })}
                />
              </>
            ) : null}
            {open && at ? (
              <LookPad
                key={JSON.stringify(at)}
                {...{ detail, live, log, places, moment, onRead }}
                place={open}
                view={at.view}
              />
            ) : null}
          </>
        )}
      </Box>
      <Box sx={{ borderLeft: { md: `2px solid ${tones.hairline}` }, pl: { md: 2 } }}>
        <WaysPanel
          key={place?.name ?? ''}
          {...{ detail, plan, state, live, log, library, place }}
          moment={place ? momentOf(plan, state, job.mixId, objectId, place.areaIds) : moment}
        />
      </Box>
    </Box>
  );
}

/** Before there is anything to look at: where it will be looked at and from where, and the way to the first coat. */
function LookedAtLater({
  jobId,
  family,
  places,
}: {
  readonly jobId: string;
  readonly family: FinishFamily;
  readonly places: readonly Place[];
}) {
  const { tones } = useTheme();
  const views = VIEWS.filter((v) => viewsOf(family).includes(v) || v === 'shop light');
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2.5 }}>
        Looked at then, each from everywhere
      </Typography>
      <Typography sx={{ fontSize: 17, mt: 0.5 }}>{views.map((v) => VIEW_NAMES[v]).join(' · ')}</Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, mt: 1, p: 0, maxWidth: 640 }}>
        {places.map((p) => (
          <Box
            component="li"
            key={p.name}
            sx={{ py: 1.25, fontSize: 17, fontWeight: 700, borderTop: `1px solid ${tones.hairline}` }}
          >
            {p.name}
          </Box>
        ))}
      </Box>
      <Button
        component={Link}
        to={`/jobs/${jobId}/booth`}
        variant="contained"
        sx={{ minHeight: 72, fontSize: 20, px: 4, mt: 2 }}
      >
        To the booth
      </Button>
    </>
  );
}

interface MissedPlacesProps {
  readonly plan: JobPlan;
  readonly live: ReturnType<typeof useLive>;
  readonly places: { looks: SeenSpot[]; name: string; areaIds: readonly string[] }[];
  readonly add: (more: Place) => void;
}

/** Places that are easily missed, to be looked at too. */
function MissedPlaces({ plan, live, places, add }: MissedPlacesProps) {
  return (
    <Box role="group" aria-label="Places easily missed" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
      {suggestedPlaces(plan, live.areaIds, places).map((p) => (
        <Button key={p.name} variant="outlined" sx={{ minHeight: 56 }} onClick={() => add(p)}>
          {p.name}
        </Button>
      ))}
    </Box>
  );
}
