import { Box, Button } from '@mui/material';
import {
  armRows,
  ownWay,
  samplesEvery,
  samplesOf,
  type GunSample,
  type Lesson,
  type PracticeGun,
} from '@steady-gleam/core/practice';
import { useState } from 'react';
import { MeasureField } from '../../ui/MeasureField';
import { Field } from '../../ui/Field';
import { numberIn } from '../../shared/numberIn';

/** What an arm is asked, with the bounds in which it moves. */
const ASKED = {
  overlap: { name: 'The overlap', from: 5, to: 85, unit: '%' },
  speedCmS: { name: 'The speed', from: 10, to: 150, unit: 'cm/s' },
  marginCm: { name: 'The trigger', from: -20, to: 15, unit: 'cm' },
} as const;
type Asked = keyof typeof ASKED;
const FRAME_S = 1 / 60;

/** An arm for those who can't draw: it lays the coat as it is set, and shows what that does. */
export function ArmFields({
  gun,
  lesson,
  onStart,
}: {
  gun: PracticeGun;
  lesson: Lesson;
  onStart: (samples: readonly GunSample[]) => void;
}) {
  const [typed, setTyped] = useState<Record<Asked, string>>({
    overlap: String(Math.round(100 * gun.overlap)),
    speedCmS: String(gun.speedCmS),
    marginCm: String(lesson.marginCm),
  });
  const [apart, setApart] = useState(false);
  const fault = (of: Asked): string | undefined => {
    const { name, from, to, unit } = ASKED[of];
    const v = numberIn(typed[of]);
    return v >= from && v <= to ? undefined : `${name} is between ${from} and ${to} ${unit}.`;
  };
  const set = (of: Asked) => (v: string) => setTyped({ ...typed, [of]: v });
  const isFine = (Object.keys(ASKED) as Asked[]).every((k) => !fault(k));
  const start = () => {
    const rows = armRows(gun, lesson, {
      ...ownWay(gun, numberIn(typed.marginCm)),
      overlap: numberIn(typed.overlap) / 100,
      speedCmS: numberIn(typed.speedCmS),
      apart,
    });
    onStart(samplesEvery(samplesOf(rows, lesson), FRAME_S));
  };
  return (
    <Box sx={{ display: 'flex', gap: 1.5, mt: 1.25, alignItems: 'flex-start' }}>
      <Box sx={{ width: 110 }}>
        <Field
          label="Overlap, %"
          value={typed.overlap}
          onChange={(e) => set('overlap')(e.target.value)}
          error={fault('overlap')}
          decimal
        />
      </Box>
      <Box sx={{ width: 130 }}>
        <Field
          label="Speed, cm/s"
          value={typed.speedCmS}
          onChange={(e) => set('speedCmS')(e.target.value)}
          error={fault('speedCmS')}
          decimal
        />
      </Box>
      <Box sx={{ width: 170 }}>
        <MeasureField
          measure="distance"
          label="Trigger past edge"
          value={typed.marginCm}
          onValue={set('marginCm')}
          error={fault('marginCm')}
        />
      </Box>
      {lesson.panels.length > 1 ? (
        <Button variant="outlined" aria-pressed={apart} onClick={() => setApart(!apart)} sx={{ mt: '26px' }}>
          {apart ? 'Panel by panel' : 'Walks the side'}
        </Button>
      ) : null}
      <Button variant="outlined" disabled={!isFine} onClick={start} sx={{ mt: '26px' }}>
        Let it spray
      </Button>
    </Box>
  );
}
