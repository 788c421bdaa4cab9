import { styled } from '@mui/material/styles';
import type { ChangeEvent, InputHTMLAttributes, Ref } from 'react';

export type InputElement = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

export interface InputProps extends Omit<InputHTMLAttributes<InputElement>, 'onChange' | 'size'> {
  /** A list to choose from; its options are the children. */
  readonly select?: boolean | undefined;
  /** Several lines; it grows with what is typed. */
  readonly multiline?: boolean | undefined;
  readonly minRows?: number | undefined;
  readonly onChange?: ((e: ChangeEvent<HTMLInputElement>) => void) | undefined;
  readonly ref?: Ref<InputElement> | undefined;
}

/** Where something is typed or chosen: a raised field on a line of ink, 44 px high, so that a gloved finger finds it. */
const Bare = styled('input')(({ theme: { tones, typography } }) => {
  const half = (angle: string) => `linear-gradient(${angle}, transparent 50%, ${tones.ink} 50%)`;
  return {
    display: 'block',
    width: '100%',
    minWidth: 0,
    minHeight: 44,
    boxSizing: 'border-box',
    padding: '9px 12px 8px',
    font: 'inherit',
    fontFamily: typography.fontFamily,
    fontSize: 16,
    lineHeight: 1.4,
    fontVariantNumeric: 'tabular-nums',
    color: tones.ink,
    background: tones.raised,
    border: 0,
    borderBottom: `2px solid ${tones.hairline}`,
    borderRadius: '2px 2px 0 0',
    resize: 'vertical',
    '&:hover:not(:disabled)': { borderBottomColor: tones.inkSoft },
    '&:focus': { outline: `2px solid ${tones.ink}`, outlineOffset: -2, borderBottomColor: tones.ink },
    '&[aria-invalid=true]': { borderBottomColor: tones.danger },
    '&[aria-invalid=true]:focus': { outlineColor: tones.danger },
    '&:disabled': { color: tones.inkSoft, opacity: 0.75 },
    '&::placeholder': { color: tones.inkSoft, opacity: 1 },
    'textarea&': { fieldSizing: 'content' },
    'select&': {
      appearance: 'none',
      paddingRight: 30,
      textOverflow: 'ellipsis',
      backgroundImage: `${half('45deg')}, ${half('-45deg')}`,
      backgroundSize: '6px 6px',
      backgroundPosition: 'right 16px center, right 10px center',
      backgroundRepeat: 'no-repeat',
    },
    'select& option': { color: tones.ink, background: tones.raised },
  };
});

/** A bare field; `Field` puts its label above it and what is wrong below. */
export function Input({ select, multiline, minRows, ref, ...rest }: InputProps) {
  const as = select ? 'select' : multiline ? 'textarea' : 'input';
  return (
    <Bare
      as={as}
      autoComplete={select ? undefined : 'off'}
      {...(multiline ? { rows: minRows ?? 2 } : {})}
      {...rest}
      ref={ref as Ref<HTMLInputElement>}
    />
  );
}
