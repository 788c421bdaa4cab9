// The benchmark uses one function of this untyped package.
declare module 'culori' {
  export function converter(mode: 'lab65'): (c: { mode: string; x: number; y: number; z: number }) => unknown;
}
