import { Button, type ButtonProps } from '@mui/material';
import { useRef } from 'react';

/** A button that asks for a file, by keyboard too. The same file can be chosen again. */
export function FileButton({
  label,
  accept,
  capture,
  onFile,
  ...button
}: Omit<ButtonProps, 'onClick'> & {
  /** Name of the file field. */
  readonly label: string;
  readonly accept: string;
  /** A tablet opens its camera. */
  readonly capture?: 'environment';
  readonly onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        hidden
        type="file"
        accept={accept}
        capture={capture}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
