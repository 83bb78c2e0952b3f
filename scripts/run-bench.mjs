// Bundles the benchmark the way the application is bundled, then runs it: a transpile-on-load run would time the loader.
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { build } from 'esbuild';

mkdirSync('.state', { recursive: true });
await build({
  entryPoints: ['scripts/bench.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile: '.state/bench.mjs',
  logLevel: 'error',
  external: ['ml-matrix'],
});
process.exit(
  spawnSync(process.execPath, ['.state/bench.mjs', ...process.argv.slice(2)], { stdio: 'inherit' }).status ?? 1,
);
