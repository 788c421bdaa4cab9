import { useParams } from 'react-router';
import { CountRoom } from './CountRoom';
import { DrillRoom } from './DrillRoom';
import { GunRoom } from './GunRoom';

/** A place to learn what paint costs to learn. */
export function PracticePage() {
  const { room } = useParams();
  if (room === 'count') return <CountRoom />;
  if (room === 'mix') return <DrillRoom />;
  return <GunRoom />;
}
