// Everything that checks the project, in the order that finds mistakes soonest. Last line: "N passed, N failed".
import { spawnSync } from 'node:child_process';
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

function step(name, command, args) {
  say(`\n== ${name}`);
  const ok = run(command, args);
  if (ok) passed += 1;
  else failed += 1;
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

step('route types', bin('next'), ['typegen']);
step('lint', bin('eslint'), ['src', 'tests', 'scripts', '--max-warnings', '0']);
step('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
step('types', bin('tsc'), ['--noEmit']);
step('dependency rules', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']);
step('drying kernel is current', 'node', ['scripts/build-kernel.mjs', '--check']);
step('generated docs are current', bin('tsx'), ['scripts/write-schema.ts', '--check']);
counted('unit', bin('jest'), ['--ci', '--json', '--outputFile=.state/unit.json', '--silent'], () => {
  const r = json('.state/unit.json');
  return { passed: r.numPassedTests, failed: r.numFailedTests + r.numRuntimeErrorTestSuites };
});
if (step('build', 'bin/sostegno', ['build'])) {
  counted('browser', bin('playwright'), ['test'], () => {
    const { stats } = json('.state/browser.json');
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
  });
} else failed += 1;

say('');
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
