import { Alert, Box, Button, Typography, useTheme } from '@mui/material';
import { areasOf, type Area, type JobObjectRow } from '@steady-gleam/contracts';
import { objectsOf } from '@steady-gleam/core/jobs';
import { areaOf } from '@steady-gleam/core/mixing';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { faultOf } from '../../shared/apiClient';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { useStacks } from '../../shared/film/useStacks';
import { pickOf } from '../../shared/jobModel';
import { newId } from '../../shared/newId';
import { useUnits } from '../../shared/units';
import { useChangeJob, useJob } from '../../shared/useJob';
import { AreaRow } from './AreaRow';
import {
  areaTyped,
  blankArea,
  checkedPieces,
  typedOf,
  withLikeObject,
  type TypedPieces,
  type TypedArea,
} from './piecesModel';

/** What is sprayed: objects, each looked at as one, and their areas; kept with the job. */
export function PiecesPage() {
  const { job } = useJob();
  const change = useChangeJob(job.id);
  const objects = objectsOf(job);
  const areas = areasOf(job);
  return (
    <PiecesForm
      key={JSON.stringify([objects, areas])}
      jobId={job.id}
      objects={objects}
      areas={areas}
      finishes={useStacks(job, pickOf(job))}
      failure={change.error ? faultOf(change.error) : null}
      onKeep={(next) => change.mutate({ version: job.version, ...next })}
    />
  );
}

function PiecesForm({
  jobId,
  objects,
  areas,
  finishes,
  failure,
  onKeep,
}: {
  jobId: string;
  objects: readonly JobObjectRow[];
  areas: readonly Area[];
  finishes: readonly { readonly id: string; readonly name: string }[];
  failure: string | null;
  onKeep: (next: { objects: JobObjectRow[]; areas: Area[] }) => void;
}) {
  const units = useUnits();
  const [typed, setTyped] = useState<TypedPieces>(() => ({ objects, areas: areas.map(typedOf) }));
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const keep = () => {
    const checked = checkedPieces(typed);
    setFaults(checked.ok ? {} : checked.faults);
    if (checked.ok) onKeep({ objects: checked.objects, areas: checked.areas });
  };
  const changed =
    JSON.stringify([typed.objects, typed.areas.map(areaTyped)]) !==
    JSON.stringify([objects, areas.map((a) => areaTyped(typedOf(a)))]);
  const several = typed.objects.length > 1;
  const own = typed.areas.filter((t) => t.area.on === null).map(areaTyped);
  const m2 = areaOf(own);
  const setArea = (id: string, next: TypedPieces['areas'][number]) =>
    setTyped({ ...typed, areas: typed.areas.map((t) => (t.area.id === id ? next : t)) });
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Objects and areas</Typography>
          <Typography>
            An object is what is looked at as one: it may have its own target, and so its own count. An area is what is
            sprayed in one go.
          </Typography>
          <Typography>
            A stripe or letters are an area masked on another: they get their own finish, and only their own size of it.
          </Typography>
          {finishes.length < 2 ? (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              A second tone starts as a stack of its own under{' '}
              <Link to={`/jobs/${jobId}/layers`} style={{ color: 'inherit' }}>
                Layers
              </Link>
              .
            </Typography>
          ) : null}
          <Button component={Link} to={`/jobs/${jobId}/plan`} variant="outlined" sx={{ mt: 'auto' }}>
            To the spray plan
          </Button>
        </>
      }
    >
      <Answer
        why={
          several
            ? 'One cup is mixed for all of them; each gets the count its own target asks for.'
            : 'Amounts, order and build follow from the areas.'
        }
      >
        {several ? `${typed.objects.length} objects, ` : ''}
        {typed.areas.length === 1 ? 'one area' : `${typed.areas.length} areas`}, {units.say('area', m2)} to spray.
      </Answer>
      {typed.objects.map((object, i) => (
        <ObjectAreas
          key={object.id}
          object={object}
          i={i}
          several={several}
          setTyped={setTyped}
          typed={typed}
          faults={faults}
          finishes={finishes}
          setArea={setArea}
        />
      ))}
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary', my: 1 }}>
          {failure}
        </Alert>
      ) : null}
      <Button
        variant={changed ? 'contained' : 'outlined'}
        disabled={!changed}
        onClick={keep}
        sx={{ alignSelf: 'flex-start' }}
      >
        Keep these areas
      </Button>
    </Bench>
  );
}

interface ObjectHeadProps {
  readonly several: boolean;
  readonly object: JobObjectRow;
  readonly setTyped: Dispatch<SetStateAction<TypedPieces>>;
  readonly typed: TypedPieces;
  readonly faults: Readonly<Record<string, string>>;
  readonly i: number;
}

/** The name of an object, and the way to take it out. */
function ObjectHead({ several, object, setTyped, typed, faults, i }: ObjectHeadProps) {
  return several ? (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'end', mb: 0.5 }}>
      <Box sx={{ width: 320 }}>
        <Field
          label="Object"
          value={object.name}
          onChange={(e) =>
            setTyped({
              ...typed,
              objects: typed.objects.map((o) => (o.id === object.id ? { ...o, name: e.target.value } : o)),
            })
          }
          error={faults[`objects[${i}].name`]}
        />
      </Box>
      <Button
        variant="text"
        color="inherit"
        sx={{ px: 1, fontSize: 14 }}
        onClick={() =>
          setTyped({
            objects: typed.objects.filter((o) => o.id !== object.id),
            areas: typed.areas.filter((t) => t.area.objectId !== object.id),
          })
        }
      >
        Take it out with its areas
      </Button>
    </Box>
  ) : null;
}

interface ObjectAreasProps {
  readonly object: JobObjectRow;
  readonly i: number;
  readonly several: boolean;
  readonly setTyped: Dispatch<SetStateAction<TypedPieces>>;
  readonly typed: TypedPieces;
  readonly faults: Readonly<Record<string, string>>;
  readonly finishes: readonly { readonly id: string; readonly name: string }[];
  readonly setArea: (id: string, next: TypedArea) => void;
}

/** An object and its areas. */
function ObjectAreas({ object, i, several, setTyped, typed, faults, finishes, setArea }: ObjectAreasProps) {
  const { tones } = useTheme();
  return (
    <Box component="section" aria-label={object.name || `Object ${i + 1}`} sx={{ mb: 2 }}>
      <ObjectHead several={several} object={object} setTyped={setTyped} typed={typed} faults={faults} i={i} />
      {typed.areas.map((t, k) =>
        t.area.objectId === object.id ? (
          <AreaRow
            key={t.area.id}
            typed={t}
            path={`areas[${k}]`}
            faults={faults}
            finishes={finishes}
            below={typed.areas.flatMap(({ area: b }) =>
              b.objectId === object.id && b.id !== t.area.id && b.on === null ? [b] : [],
            )}
            last={typed.areas.length === 1}
            onChange={(next) => setArea(t.area.id, next)}
            onOut={() => setTyped({ ...typed, areas: typed.areas.filter((o) => o.area.id !== t.area.id) })}
          />
        ) : null,
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, borderTop: `1px solid ${tones.hairline}`, pt: 1 }}>
        <Button
          variant="outlined"
          disabled={typed.areas.length >= 40}
          onClick={() => setTyped({ ...typed, areas: [...typed.areas, blankArea(newId(), object.id)] })}
        >
          Add an area{several ? ` of ${object.name || 'it'}` : ''}
        </Button>
        <Button
          variant="outlined"
          disabled={typed.areas.length >= 30 || typed.objects.length >= 12}
          onClick={() => setTyped(withLikeObject(typed, object.id, newId))}
        >
          Add another like {several ? object.name || 'it' : 'it'}
        </Button>
      </Box>
    </Box>
  );
}
