import { build } from 'esbuild';

await build({
  entryPoints: ['src/main.ts'],
  outfile: 'dist/main.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  // Workspace sources are bundled; packages stay outside.
  plugins: [
    {
      name: 'packages-external',
      setup(b) {
        b.onResolve({ filter: /^[^./]/ }, (args) =>
          args.path.startsWith('@steady-gleam/') || args.kind === 'entry-point'
            ? undefined
            : { path: args.path, external: true },
        );
      },
    },
  ],
});
