import { Box, Button, Typography } from '@mui/material';
import { finishFilePath, passportPath, type FinishDetail, type FinishSummary } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { faultOf } from '../../shared/apiClient';
import { Answer } from '../../shared/Answer';
import { ownZone } from '../../shared/clock';
import { FlopStrip } from '../../shared/FlopStrip';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { newJobLink } from '../../shared/newJobLink';
import { Notice } from '../../shared/Notice';
import { useCopyFinish, useFinish, useRemoveFinish } from '../../shared/useFinishes';
import { useUnits } from '../../shared/units';
import { daySaid } from '../../shared/timeOfDay';
import { sayKnown, sayMade } from './bankModel';
import { CardView } from './CardView';
import { FinishPhotos } from './FinishPhotos';
import { ReadBefore } from './ReadBefore';
import { Names } from './FinishNames';
import { LookAgain } from './LookAgain';

/** One finish: its name and codes, what makes it and made it, its cards, the jobs that use it; and a card looked at again. */
export function FinishPage() {
  const { id = '' } = useParams();
  const { data, error } = useFinish(id);
  if (error)
    return (
      <Notice title="This finish could not be opened." text={error.message}>
        <Button component={Link} to="/bank" variant="contained">
          Back to the bank
        </Button>
      </Notice>
    );
  if (!data) return <Notice title="Opening the finish …" />;
  return <FinishSheet key={data.finish.id} detail={data} />;
}

function FinishSheet({ detail }: { detail: FinishDetail }) {
  const { library } = useLibrary();
  const { finish, cards, versions, target, targetBefore } = detail;
  const canSpray = finish.mixId !== null && finish.family !== null;
  const open = finish.jobs.find((j) => !j.removed) ?? null;
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer
        why={`${finish.family ? `${FAMILIES[finish.family].name}, ` : ''}${finish.matching ? `matching ${finish.matching}` : 'nothing to match yet'}; ${sayKnown(finish)}${finish.origin ? `; opened from ${finish.origin}` : ''}.`}
      >
        {finish.name}: {sayMade(finish, library)}.
      </Answer>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1.5fr) minmax(300px, 1fr)' }, gap: 4 }}
      >
        <Box sx={{ minWidth: 0, display: 'grid', gap: 2.5, alignContent: 'start' }}>
          {target ? (
            <FlopStrip
              angles={finish.strip}
              target={finish.strip.map((g) => g.lab)}
              height={84}
              label="Target, face to flop"
            />
          ) : null}
          <ReadBefore before={targetBefore} now={target ? [target] : []} what="The target" />
          {cards.length ? (
            cards.map((c) => <CardView key={c.card.id} finishId={finish.id} of={c} strip={finish.strip} />)
          ) : (
            <Typography sx={{ color: 'text.secondary' }}>No let-down card was begun for it.</Typography>
          )}
          {canSpray && cards.some((c) => c.rungs.length > 0) ? <LookAgain finish={finish} /> : null}
        </Box>
        <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
          <Names finish={finish} />
          <Uses finish={finish} canSpray={canSpray} openJobId={open?.id ?? null} />
          <FinishPhotos detail={detail} />
          <Group title="Jobs that use it" none="No job uses it now; it stays here until you take it away.">
            {finish.jobs.map((j) => (
              <li key={j.id}>
                {j.removed ? (
                  `${j.piece}, taken out of the list`
                ) : (
                  <Link to={`/jobs/${j.id}/target`} style={{ color: 'inherit' }}>
                    {j.piece}
                  </Link>
                )}
                {j.status === 'finished' ? ', finished' : j.status === 'away' ? ', put away' : ''}
                {saySprayed(j.sprayed, versions)}
              </li>
            ))}
          </Group>
          <Group
            title={`Versions; this is ${finish.version}`}
            none="None before this: it was not changed after it was sprayed, or had stood for a while."
          >
            {versions.map((v) => (
              <li key={v.to}>
                {v.from === v.to ? `Version ${v.to}` : `Versions ${v.from} to ${v.to}`}, until {daySaid(v.until)}:{' '}
                {sayMade(v, library)}
                {v.matching === finish.matching ? '' : `, matching ${v.matching || 'nothing'}`}
              </li>
            ))}
          </Group>
          <TakeAway finish={finish} />
        </Box>
      </Box>
    </Box>
  );
}

/** Which version of a finish a job sprayed; what it is now stands in none of the versions that are kept. */
function saySprayed(sprayed: number | null, versions: FinishDetail['versions']): string {
  if (sprayed === null) return '';
  const was = versions.find((v) => v.from <= sprayed && sprayed <= v.to);
  return was ? `, sprayed version ${was.to}` : ', sprayed as it is now';
}

/** What can be done with it: a job as it is, a copy as a start, papers and a file. */
function Uses({ finish, canSpray, openJobId }: { finish: FinishSummary; canSpray: boolean; openJobId: string | null }) {
  const units = useUnits();
  const navigate = useNavigate();
  const copy = useCopyFinish(finish.id);
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      {canSpray ? (
        <Button component={Link} variant="contained" {...newJobLink(finish.id, null, null)}>
          New job with it, as it is
        </Button>
      ) : null}
      <Button
        variant="outlined"
        disabled={copy.isPending}
        onClick={() =>
          copy.mutate(
            { id: newId(), name: `${finish.name.slice(0, 70)}, a start` },
            { onSuccess: (made) => void navigate(`/bank/${made.id}`) },
          )
        }
      >
        Take as a start
      </Button>
      {openJobId ? (
        <Button component={Link} to={`/jobs/${openJobId}/card`} variant="outlined">
          To its card
        </Button>
      ) : null}
      <Button component="a" href={passportPath(finish.id, units.system, ownZone())} target="_blank" variant="outlined">
        Passport
      </Button>
      <Button component="a" href={finishFilePath(finish.id)} download variant="outlined">
        Save as file
      </Button>
      {copy.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {faultOf(copy.error)}
        </Typography>
      ) : null}
    </Box>
  );
}

function TakeAway({ finish }: { finish: FinishSummary }) {
  const navigate = useNavigate();
  const remove = useRemoveFinish(finish.id);
  const [asked, setAsked] = useState(false);
  return (
    <Box>
      {asked ? (
        <Button
          color="error"
          variant="outlined"
          disabled={remove.isPending}
          onClick={() => remove.mutate(finish.version, { onSuccess: () => void navigate('/bank') })}
        >
          Take it away for good
        </Button>
      ) : (
        <Button variant="text" color="inherit" onClick={() => setAsked(true)} sx={{ px: 0.5 }}>
          Take this finish out of the bank
        </Button>
      )}
      {remove.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {faultOf(remove.error)}
        </Typography>
      ) : null}
    </Box>
  );
}

function Group({ title, none, children }: { title: string; none: string; children: ReactNode[] }) {
  return (
    <Box component="section">
      <Typography variant="h2">{title}</Typography>
      {children.length ? (
        <Box component="ul" sx={{ m: 0, pl: 2.25, lineHeight: 1.7 }}>
          {children}
        </Box>
      ) : (
        <Typography sx={{ color: 'text.secondary' }}>{none}</Typography>
      )}
    </Box>
  );
}
