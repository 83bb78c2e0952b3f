// Compiles the drying kernel into src/core/drying/kernel/sweep.wasm.ts; with --check, only says whether it is current.
import { readFileSync, writeFileSync } from 'node:fs';
import asc from 'assemblyscript/asc';

const source = 'src/core/drying/kernel/sweep.as.ts';
const target = 'src/core/drying/kernel/sweep.wasm.ts';
let bytes = null;
const { error, stderr } = await asc.main(
  [
    'sweep.as.ts',
    '-O3',
    '--runtime',
    'stub',
    '--importMemory',
    '--noAssert',
    '--enable',
    'simd',
    '--outFile',
    'sweep.wasm',
  ],
  {
    readFile: (name) => (name === 'sweep.as.ts' ? readFileSync(source, 'utf8') : null),
    writeFile: (name, contents) => {
      if (name === 'sweep.wasm') bytes = contents;
    },
    listFiles: () => [],
  },
);
if (error || !bytes) {
  process.stderr.write(`${stderr.toString()}\n${String(error)}\n`);
  process.exit(1);
}
const text = `// Made from sweep.as.ts by "npm run kernel": not edited by hand.\nexport const sweepModule =\n${Buffer.from(
  bytes,
)
  .toString('base64')
  .match(/.{1,116}/g)
  .map((line) => `  '${line}'`)
  .join(' +\n')};\n`;
if (process.argv.includes('--check')) {
  let current = '';
  try {
    current = readFileSync(target, 'utf8');
  } catch {
    // Not made yet: not current either.
  }
  if (current !== text) {
    process.stderr.write(`${target} is not current: run "npm run kernel"\n`);
    process.exit(1);
  }
} else writeFileSync(target, text);
