import { build } from 'esbuild';

await build({
  // The program, the two commands that copy a shop and bring it back, and the threads that draw papers and trace try-outs.
  entryPoints: [
    'src/main.ts',
    'src/backup.ts',
    'src/restore.ts',
    'src/printing/pdfWorker.ts',
    'src/tryOut/benchWorker.ts',
  ],
  outdir: 'dist',
  entryNames: '[name]',
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
