import { Navigate, useParams, useSearchParams } from 'react-router';
import { createSteadyTheme } from '../../app/theme';
import { Notice } from '../../shared/Notice';
import { useJobDetail } from '../../shared/useJob';
import { BoothRun } from './BoothRun';
import { FullScreen } from './FullScreen';
import { useBooth } from './useBooth';

const dim = createSteadyTheme('dim');

/** The run of a finish's card: the same booth, for its rungs. An address without the finish means the job's first. */
export function CardBoothPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const finishId = params.get('finish');
  const { data, error } = useJobDetail(id);
  if (finishId) return <BoothScreen id={id} finishId={finishId} />;
  if (data) return <Navigate to={`/jobs/${id}/card/booth?finish=${data.job.finishId}`} replace />;
  return <Notice title={error ? 'The booth could not be opened.' : 'Opening the booth …'} text={error?.message} />;
}

/** The booth of a job. */
export function BoothPage() {
  const { id = '' } = useParams();
  return <BoothScreen id={id} finishId={null} />;
}

/** The booth: full screen, dim, one step and one clock; works while the server is away. */
function BoothScreen({ id, finishId }: { id: string; finishId: string | null }) {
  const ofCard = finishId !== null;
  const booth = useBooth(id, finishId);
  return (
    <FullScreen theme={dim} booth={booth} name="The booth">
      {(snapshot) => (
        <BoothRun
          jobId={id}
          ofCard={ofCard}
          log={booth.log}
          snapshot={snapshot}
          failure={booth.failure}
          reload={booth.reload}
        />
      )}
    </FullScreen>
  );
}
