// Everything that checks the project, in the order that finds mistakes soonest. Last line: "N passed, N failed".
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';

const bin = (name) => `node_modules/.bin/${name}`;
let passed = 0;
let failed = 0;

function say(line) {
  process.stdout.write(`${line}\n`);
}

function run(command, args) {
  return spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } }).status === 0;
}

/** One check; what it says comes in one piece when it ends, so that two may run side by side. */
async function step(name, command, args) {
  const said = [];
  const child = spawn(command, args, { env: { ...process.env, FORCE_COLOR: '0' } });
  child.stdout.on('data', (chunk) => said.push(chunk));
  child.stderr.on('data', (chunk) => said.push(chunk));
  const ok = await new Promise((done) => {
    child.on('close', (code) => done(code === 0));
    child.on('error', (error) => {
      said.push(Buffer.from(`${error.message}\n`));
      done(false);
    });
  });
  if (ok) passed += 1;
  else failed += 1;
  say(`\n== ${name}`);
  process.stdout.write(Buffer.concat(said));
  say(ok ? `${name}: passed` : `${name}: FAILED`);
  return ok;
}

/** A runner's own count is added; if it left none behind, its exit code stands as one. */
function counted(name, command, args, read) {
  say(`\n== ${name}`);
  const ok = run(command, args);
  let counts = { passed: 0, failed: 0 };
  try {
    counts = read();
  } catch {
    counts = { passed: 0, failed: 1 };
  }
  if (!ok && counts.failed === 0) counts = { ...counts, failed: 1 };
  if (ok && counts.passed === 0) counts = { passed: 0, failed: 1 };
  passed += counts.passed;
  failed += counts.failed;
  say(`${name}: ${counts.passed} passed, ${counts.failed} failed`);
}

const json = (file) => JSON.parse(readFileSync(file, 'utf8'));

mkdirSync('.state', { recursive: true });
rmSync('.state/unit.json', { force: true });
rmSync('.state/browser.json', { force: true });
rmSync('.state/browser-data', { recursive: true, force: true });

await step('route types', bin('next'), ['typegen']);
const [built] = await Promise.all([
  (async () => {
    await step('lint', bin('eslint'), ['src', 'tests', 'scripts', '--max-warnings', '0']);
    return step('build', 'bin/sostegno', ['build']);
  })(),
  (async () => {
    await step('types', bin('tsc'), ['--noEmit']);
    await step('dependency rules', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']);
    await step('drying kernel is current', 'node', ['scripts/build-kernel.mjs', '--check']);
    await step('generated docs are current', bin('tsx'), ['scripts/write-schema.ts', '--check']);
    await step('licences are current', 'node', ['scripts/write-licences.mjs', '--check']);
    await step('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  })(),
]);
counted('unit', bin('jest'), ['--ci', '--json', '--outputFile=.state/unit.json', '--silent'], () => {
  const r = json('.state/unit.json');
  return { passed: r.numPassedTests, failed: r.numFailedTests + r.numRuntimeErrorTestSuites };
});
if (built) {
  counted('browser', bin('playwright'), ['test'], () => {
    const { stats } = json('.state/browser.json');
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
  });
} else failed += 1;

say('');
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
