import { Box, Button, Typography } from '@mui/material';
import { finishesApi, type FinishSummary } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ValidationError } from 'yup';
import { ApiFailure, faultOf } from '../../shared/apiClient';
import { Answer } from '../../shared/Answer';
import { Field } from '../../shared/Field';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { useFinish, useRemoveFinish, useRenameFinish } from '../../shared/useFinishes';
import { useUnits } from '../../shared/units';
import { Swatch } from './BankPage';
import { sayKnown, sayMade } from './bankModel';

/** One finish: its name and code, what makes it, its cards, and the jobs that use it. */
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
  return <FinishSheet key={data.id} finish={data} />;
}

function FinishSheet({ finish }: { finish: FinishSummary }) {
  const { library } = useLibrary();
  const units = useUnits();
  const navigate = useNavigate();
  const remove = useRemoveFinish(finish.id);
  const [asked, setAsked] = useState(false);
  const open = finish.jobs.find((j) => !j.removed) ?? null;
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer
        why={`${finish.family ? `${FAMILIES[finish.family].name}, ` : ''}${finish.matching ? `matching ${finish.matching}` : 'nothing to match yet'}; ${sayKnown(finish)}.`}
      >
        {finish.name}: {sayMade(finish, library)}.
      </Answer>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '220px 1fr 1fr' }, gap: 3, mt: 1 }}>
        <Swatch lab={finish.lab} height={220} />
        <Box sx={{ display: 'grid', gap: 1.5, alignContent: 'start' }}>
          <Names finish={finish} />
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {finish.mixId !== null ? (
              <Button component={Link} to={`/jobs/new?finish=${finish.id}`} variant="contained">
                New job with it
              </Button>
            ) : null}
            {open ? (
              <Button component={Link} to={`/jobs/${open.id}/card`} variant="outlined">
                To its card
              </Button>
            ) : null}
          </Box>
        </Box>
        <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
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
              </li>
            ))}
          </Group>
          <Group title="Earlier cards" none="The card in force is its only one.">
            {finish.cards.map((c) => (
              <li key={c.id}>
                {c.gun}, {units.say('pressure', c.pressureBar)}, rungs {c.rungs.join(', ')}; {c.rungsRead} read
              </li>
            ))}
          </Group>
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
        </Box>
      </Box>
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

/** Name and code, kept by a button; what is wrong with them is said at the field. */
function Names({ finish }: { finish: FinishSummary }) {
  const rename = useRenameFinish(finish.id);
  const [typed, setTyped] = useState({ name: finish.name, code: finish.code });
  const [faults, setFaults] = useState<Record<string, string>>({});
  const changed = typed.name !== finish.name || typed.code !== finish.code;
  const save = () => {
    try {
      const body = finishesApi.rename.body.validateSync({ version: finish.version, ...typed }, { abortEarly: false });
      setFaults({});
      rename.mutate(body, { onError: (e) => setFaults(e instanceof ApiFailure ? e.fields : {}) });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFaults(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
      sx={{ display: 'grid', gap: 1.5 }}
    >
      <Field
        label="Name"
        value={typed.name}
        error={faults['name']}
        onChange={(e) => setTyped({ ...typed, name: e.target.value })}
      />
      <Field
        label="Code of the shop"
        value={typed.code}
        error={faults['code']}
        hint="As it stands on the rack, for instance C-12"
        onChange={(e) => setTyped({ ...typed, code: e.target.value })}
      />
      {rename.error && !Object.keys(faults).length ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {rename.error.message}
        </Typography>
      ) : null}
      <Box>
        <Button type="submit" variant="outlined" disabled={!changed || rename.isPending}>
          Keep name and code
        </Button>
      </Box>
    </Box>
  );
}
