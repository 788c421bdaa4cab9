// Tests and benchmarks use four functions of this untyped package.
declare module 'culori' {
  type Colour = { mode: string } & Record<string, number | string>;
  export function differenceCiede2000(): (a: Colour, b: Colour) => number;
  export function differenceCie94(): (a: Colour, b: Colour) => number;
  export function differenceCmc(l: number, c: number): (a: Colour, b: Colour) => number;
  export function converter(mode: 'rgb'): (c: Colour) => { r: number; g: number; b: number } | undefined;
  export function converter(mode: 'lab65'): (c: Colour) => { l: number; a: number; b: number } | undefined;
}
