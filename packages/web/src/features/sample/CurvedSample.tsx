import { Typography } from '@mui/material';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { ASPECT, paintSample, type SampleScene } from './sampleShading';
import { Slide } from '../../ui/Slide';

const GlSample = lazy(async () => ({ default: (await import('./GlSample')).GlSample }));

/** The sample on a plain canvas: for compare, for files, and where there is no WebGL. */
export function FlatSample({ scene, width, label }: { scene: SampleScene; width: number; label?: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const height = Math.round(width / ASPECT);
  useEffect(() => {
    const ink = canvas.current!.getContext('2d')!;
    ink.clearRect(0, 0, width, height);
    paintSample(ink, scene, width, height);
  }, [scene, width, height]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      style={{ width: '100%', display: 'block' }}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    />
  );
}

interface CurvedSampleProps {
  readonly scene: SampleScene;
  readonly gl: boolean;
  readonly label: string;
  readonly onLamp: (lamp: readonly [number, number]) => void;
}

const LAMP_X = 1.6;
const LAMP_Y = 1.4;

/** A body under a lamp that follows the pointer; two sliders move it from the keyboard. */
export function CurvedSample({ scene, gl, label, onLamp }: CurvedSampleProps) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(720);
  useEffect(() => {
    const observer = new ResizeObserver(() => setWidth(frame.current!.clientWidth || 720));
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, []);
  const follow = (e: React.PointerEvent) => {
    if (e.type === 'pointermove' && e.buttons === 0) return;
    const box = frame.current!.getBoundingClientRect();
    onLamp([((e.clientX - box.left) / box.width) * 2 * ASPECT - ASPECT, 1 - ((e.clientY - box.top) / box.height) * 2]);
  };
  const [x, y] = scene.lamp;
  return (
    <div>
      <div
        ref={frame}
        role="img"
        aria-label={label}
        data-drawn={gl ? 'webgl' : 'canvas'}
        onPointerDown={follow}
        onPointerMove={follow}
        style={{
          position: 'relative',
          aspectRatio: String(ASPECT),
          maxHeight: '58vh',
          margin: '0 auto',
          touchAction: 'none',
          cursor: 'crosshair',
        }}
      >
        {gl ? (
          <Suspense fallback={<FlatSample scene={scene} width={360} />}>
            <GlSample scene={scene} width={width} />
          </Suspense>
        ) : (
          <FlatSample scene={scene} width={420} />
        )}
        <svg
          viewBox={`${-ASPECT} -1 ${2 * ASPECT} 2`}
          style={{
            position: 'absolute',
            inset: 0,
            width: '100%',
            height: '100%',
            pointerEvents: 'none',
            overflow: 'visible',
          }}
          aria-hidden
        >
          <circle cx={x} cy={-y} r="0.035" fill="none" stroke="#121212" strokeWidth="0.022" />
          <circle cx={x} cy={-y} r="0.035" fill="none" stroke="#fff" strokeWidth="0.01" />
        </svg>
      </div>
      <div
        style={{
          display: 'grid',
          gridTemplateColumns: 'auto 1fr auto 1fr',
          columnGap: 16,
          alignItems: 'center',
          marginTop: 6,
        }}
      >
        <Typography variant="h3" component="span" id="lamp-x">
          Lamp, left to right
        </Typography>
        <Slide
          aria-labelledby="lamp-x"
          min={-LAMP_X}
          max={LAMP_X}
          step={0.05}
          value={x}
          onChange={(v) => onLamp([v, y])}
        />
        <Typography variant="h3" component="span" id="lamp-y">
          low to high
        </Typography>
        <Slide
          aria-labelledby="lamp-y"
          min={-LAMP_Y}
          max={LAMP_Y}
          step={0.05}
          value={y}
          onChange={(v) => onLamp([x, v])}
        />
      </div>
    </div>
  );
}
