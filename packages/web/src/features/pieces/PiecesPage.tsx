import { Alert, Box, Button, Typography, useTheme } from '@mui/material';
import { areasOf, type Area, type JobObjectRow } from '@steady-gleam/contracts';
import { objectsOf } from '@steady-gleam/core/jobs';
import { areaOf } from '@steady-gleam/core/mixing';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { useTypedForm, type TypedForm } from '../../ui/useTypedForm';
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
  meantBy,
  type Pieces,
  typedOf,
  withLikeObject,
  type TypedPieces,
  type TypedArea,
} from './piecesModel';

/** What is sprayed: objects, each looked at as one, and their areas; kept with the job. */
export function PiecesPage() {
  const { job } = useJob();
  const change = useChangeJob(job.id);
  return (
    <PiecesForm
      jobId={job.id}
      objects={objectsOf(job)}
      named={job.objects !== null}
      areas={areasOf(job)}
      finishes={useStacks(job, pickOf(job))}
      onKeep={(next) => change.mutateAsync({ version: job.version, ...next })}
    />
  );
}

function PiecesForm({
  jobId,
  objects,
  named,
  areas,
  finishes,
  onKeep,
}: {
  jobId: string;
  objects: readonly JobObjectRow[];
  /** Its objects have names of their own; a single one that has none is called as the piece is. */
  named: boolean;
  areas: readonly Area[];
  finishes: readonly { readonly id: string; readonly name: string }[];
  onKeep: (next: Partial<Pieces>) => Promise<unknown>;
}) {
  const units = useUnits();
  const form = useTypedForm<TypedPieces, Pieces>({
    start: { objects, areas: areas.map(typedOf) },
    meant: (pieces) => meantBy(pieces, named),
    check: checkedPieces,
    keep: (next) => onKeep(named || next.objects.length > 1 ? next : { areas: next.areas }),
  });
  const typed = form.values;
  const several = typed.objects.length > 1;
  const own = typed.areas.filter((t) => t.area.on === null).map(areaTyped);
  const m2 = areaOf(own);
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
      <Box component="form" noValidate onSubmit={form.onSubmit} aria-label="Objects and areas">
        {typed.objects.map((object, i) => (
          <ObjectAreas key={object.id} object={object} i={i} several={several} form={form} finishes={finishes} />
        ))}
        {form.failure ? (
          <Alert severity="error" variant="outlined" sx={{ color: 'text.primary', my: 1 }}>
            {form.failure}
          </Alert>
        ) : null}
        <Button
          type="submit"
          variant={form.changed ? 'contained' : 'outlined'}
          disabled={!form.changed || form.busy}
          sx={{ alignSelf: 'flex-start' }}
        >
          Keep these areas
        </Button>
      </Box>
    </Bench>
  );
}

type PiecesTyped = Pick<TypedForm<TypedPieces>, 'values' | 'text' | 'fault' | 'setAll'>;

interface ObjectHeadProps {
  readonly several: boolean;
  readonly object: JobObjectRow;
  readonly form: PiecesTyped;
  readonly i: number;
}

/** The name of an object, and the way to take it out. */
function ObjectHead({ several, object, form, i }: ObjectHeadProps) {
  const typed = form.values;
  return several ? (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'end', mb: 0.5 }}>
      <Box sx={{ width: 320 }}>
        <Field label="Object" {...form.text(`objects.${i}.name`)} />
      </Box>
      <Button
        variant="text"
        color="inherit"
        sx={{ px: 1, fontSize: 14 }}
        onClick={() =>
          form.setAll({
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
  readonly form: PiecesTyped;
  readonly finishes: readonly { readonly id: string; readonly name: string }[];
}

/** An object and its areas. */
function ObjectAreas({ object, i, several, form, finishes }: ObjectAreasProps) {
  const typed = form.values;
  const setAreas = (next: readonly TypedArea[]) => form.setAll({ ...typed, areas: [...next] });
  const { tones } = useTheme();
  return (
    <Box component="section" aria-label={object.name || `Object ${i + 1}`} sx={{ mb: 2 }}>
      <ObjectHead several={several} object={object} form={form} i={i} />
      {typed.areas.map((t, k) =>
        t.area.objectId === object.id ? (
          <AreaRow
            key={t.area.id}
            typed={t}
            path={`areas.${k}`}
            fault={form.fault}
            finishes={finishes}
            below={typed.areas.flatMap(({ area: b }) =>
              b.objectId === object.id && b.id !== t.area.id && b.on === null ? [b] : [],
            )}
            last={typed.areas.length === 1}
            onChange={(next) => setAreas(typed.areas.map((o) => (o.area.id === t.area.id ? next : o)))}
            onOut={() => setAreas(typed.areas.filter((o) => o.area.id !== t.area.id))}
          />
        ) : null,
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, borderTop: `1px solid ${tones.hairline}`, pt: 1 }}>
        <Button
          variant="outlined"
          disabled={typed.areas.length >= 40}
          onClick={() => setAreas([...typed.areas, blankArea(newId(), object.id)])}
        >
          Add an area{several ? ` of ${object.name || 'it'}` : ''}
        </Button>
        <Button
          variant="outlined"
          disabled={typed.areas.length >= 30 || typed.objects.length >= 12}
          onClick={() => form.setAll(withLikeObject(typed, object.id, newId))}
        >
          Add another like {several ? object.name || 'it' : 'it'}
        </Button>
      </Box>
    </Box>
  );
}
