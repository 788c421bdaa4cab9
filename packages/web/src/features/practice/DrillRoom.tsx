import { Box, Button, Typography, useTheme } from '@mui/material';
import { drillOf, isRight, type Drill } from '@steady-gleam/core/practice';
import { cupFor } from '@steady-gleam/core/mixing';
import { STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { useState } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { CupPicture } from '../../shared/CupPicture';
import { Field } from '../../ui/Field';
import { useTypedForm } from '../../ui/useTypedForm';
import { numberIn } from '../../shared/numberIn';
import { useProducts } from '../../shared/useShop';
import { keepScore, readPractised } from '../../shared/practised';

/** Questions of a round. */
const ROUND = 10;
const KIND = { ratio: 'Ratio', mark: 'Cup mark', scale: 'Running weight' } as const;

/** Ratio, cup mark and running weight from the shop's own products, ten at a time. */
export function DrillRoom() {
  const { data } = useProducts();
  const products = data?.length ? data.map((p) => p.product) : STARTING_PRODUCTS;
  const [seed, setSeed] = useState(() => Date.now() % 1_000_000);
  const [answers, setAnswers] = useState<readonly { readonly drill: Drill; readonly said: number }[]>([]);
  const drill = answers.length < ROUND ? drillOf(products, seed, answers.length) : null;
  const right = answers.filter((a) => isRight(a.drill, a.said)).length;
  const take = (said: number) => {
    const next = [...answers, { drill: drill!, said }];
    if (next.length === ROUND) keepScore('mix', next.filter((a) => isRight(a.drill, a.said)).length);
    setAnswers(next);
  };
  const scores = readPractised().scores.mix ?? [];
  return (
    <Bench
      standalone
      side={
        <>
          <Typography variant="h2">
            {right} of {answers.length} right
          </Typography>
          <Answers answers={answers} />
          {scores.length ? (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Rounds on this device: {scores.slice(-6).join(', ')} of {ROUND}.
            </Typography>
          ) : null}
        </>
      }
    >
      {drill ? (
        <DrillForm key={`${seed}/${answers.length}`} drill={drill} number={answers.length + 1} onAnswer={take} />
      ) : answers.length ? (
        <>
          <Answer
            why={
              right === ROUND
                ? 'Every cup would have been right.'
                : 'What was off stands on the right, with its working.'
            }
          >
            {right} of {ROUND} right.
          </Answer>
          <Button
            variant="contained"
            sx={{ alignSelf: 'flex-start' }}
            onClick={() => {
              setSeed(seed + 1);
              setAnswers([]);
            }}
          >
            Ten more
          </Button>
        </>
      ) : (
        <Answer why="Put a product with a ratio on the shelf under Products, and its drills stand here.">
          Nothing on the shelf is mixed by parts.
        </Answer>
      )}
    </Bench>
  );
}

function DrillForm({ drill, number, onAnswer }: { drill: Drill; number: number; onAnswer: (said: number) => void }) {
  const form = useTypedForm<{ answer: string }, number>({
    start: { answer: '' },
    check: ({ answer }) => {
      const said = numberIn(answer);
      return Number.isFinite(said) && said >= 0
        ? { ok: true, value: said }
        : { ok: false, faults: { answer: `Write a number of ${drill.unit}, for instance 120.` } };
    },
    keep: async (said) => onAnswer(said),
  });
  return (
    <Box component="form" noValidate onSubmit={form.onSubmit}>
      <Answer why={`${KIND[drill.kind]}, question ${number} of ${ROUND}. Within 2 % is right.`}>
        {drill.question}
      </Answer>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-start' }}>
        <Box sx={{ width: 180 }}>
          <Field label={`Answer, ${drill.unit}`} {...form.text('answer')} decimal autoFocus />
        </Box>
        <Button type="submit" variant="contained" sx={{ mt: '26px' }}>
          That much
        </Button>
      </Box>
      <Box sx={{ width: 340, mt: 3 }}>
        <CupPicture
          parts={drill.stands}
          cup={cupFor(drill.totalMl) ?? drill.totalMl}
          ml={drill.stands.at(-1)?.mark ?? 0}
        />
      </Box>
    </Box>
  );
}

/** What was answered, the newest first, with the working. */
function Answers({ answers }: { answers: readonly { readonly drill: Drill; readonly said: number }[] }) {
  const { tones } = useTheme();
  return (
    <Box component="ol" aria-label="Answers" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {answers
        .map(({ drill, said }, i) => ({ drill, said, i, good: isRight(drill, said) }))
        .reverse()
        .map(({ drill, said, i, good }) => (
          <Box
            component="li"
            key={i}
            sx={{
              py: 1,
              borderBottom: `1px solid ${tones.hairline}`,
              borderLeft: `4px solid ${good ? 'transparent' : tones.danger}`,
              pl: 1,
            }}
          >
            <b>
              {i + 1}. {good ? 'Right' : 'Off'}: {said} {drill.unit}
              {good ? '' : `, it is ${drill.answer.toFixed(drill.answer < 20 ? 1 : 0)} ${drill.unit}`}
            </b>
            <Typography variant="body2">{drill.how}</Typography>
          </Box>
        ))}
    </Box>
  );
}
