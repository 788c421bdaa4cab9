import { styled } from '@mui/material/styles';

interface SlideProps {
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly value: number;
  readonly onChange: (value: number) => void;
  /** Steps with a tick below; those with a word have it there. */
  readonly marks?: readonly { readonly value: number; readonly said: string }[];
  readonly 'aria-label'?: string;
  readonly 'aria-labelledby'?: string;
}

/** px; the handle's width: a value's place on the track is off by half of it at either end. */
const HANDLE = 14;

const Track = styled('input')(({ theme: { tones } }) => {
  const handle = {
    appearance: 'none',
    boxSizing: 'border-box',
    width: HANDLE,
    height: 28,
    border: `2px solid ${tones.page}`,
    borderRadius: 3,
    background: tones.ink,
  } as const;
  const groove = {
    height: 4,
    background: `linear-gradient(90deg, ${tones.ink} var(--at), ${tones.inkSoft} var(--at))`,
  } as const;
  return {
    appearance: 'none',
    display: 'block',
    width: '100%',
    height: 44,
    margin: 0,
    background: 'none',
    cursor: 'ew-resize',
    '&::-webkit-slider-runnable-track': groove,
    '&::-moz-range-track': groove,
    '&::-webkit-slider-thumb': { ...handle, marginTop: -12 },
    '&::-moz-range-thumb': handle,
    '&:focus-visible': { outline: 'none' },
    '&:focus-visible::-webkit-slider-thumb': { outline: `3px solid ${tones.ink}`, outlineOffset: 1 },
    '&:focus-visible::-moz-range-thumb': { outline: `3px solid ${tones.ink}`, outlineOffset: 1 },
    // Where a system paints its own colours the groove and the handle have to be its own too.
    '@media (forced-colors: active)': { appearance: 'auto', '&::-webkit-slider-thumb': { appearance: 'auto' } },
  };
});

const Marks = styled('div')(({ theme: { tones } }) => ({
  position: 'relative',
  height: 20,
  margin: `-12px ${HANDLE / 2}px 0`,
  fontSize: 14,
  color: tones.ink,
  fontVariantNumeric: 'tabular-nums',
  '& > span': { position: 'absolute', transform: 'translateX(-50%)', paddingTop: 5, whiteSpace: 'nowrap' },
  '& > span::before': {
    content: '""',
    position: 'absolute',
    left: '50%',
    top: 0,
    width: 1,
    height: 5,
    background: tones.inkSoft,
  },
}));

/** Something that is moved until it looks right; the browser's own range, so that keys and readers know it. */
export function Slide({ value, onChange, marks, min, max, step = 1, ...named }: SlideProps) {
  const place = (v: number) => ((v - min) / (max - min)) * 100;
  const style: Record<`--${string}`, string> = { '--at': `${place(value)}%` };
  return (
    <div style={FILLS}>
      <Track
        {...named}
        type="range"
        min={min}
        max={max}
        step={step}
        value={value}
        style={style}
        onChange={(e) => onChange(e.currentTarget.valueAsNumber)}
      />
      {marks ? (
        <Marks aria-hidden>
          {marks.map((m) => (
            <span key={m.value} style={{ left: `${place(m.value)}%` }}>
              {m.said}
            </span>
          ))}
        </Marks>
      ) : null}
    </div>
  );
}

const FILLS = { flex: 1, width: '100%', minWidth: 0 } as const;
