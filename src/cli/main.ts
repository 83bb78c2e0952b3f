import { readFileSync, statSync } from 'node:fs';
import { largestBuildText, parseBuild } from '../core/build';
import { failure, success, type Failure, type Result } from '../core/quantity';
import { Evaluator } from '../core/verdict';
import { solveDryingFile, solveFrameFile } from './inputs';

/** check BUILD.json | solve frame FILE | solve drying FILE. Exit 0, or 2 with one line saying where and why. */
const usage = 'usage: sostegno check BUILD.json | solve frame FILE | solve drying FILE';

function refuse(file: string, why: Failure): never {
  process.stderr.write(`${file}: ${why.path}: ${why.message.replace(/\s+/g, ' ')}\n`);
  process.exit(2);
}

function readText(file: string): Result<string> {
  try {
    const { size } = statSync(file);
    if (size > largestBuildText * 4) return failure('too-large', 'the file', 'it is larger than 32 MB');
    return success(readFileSync(file, 'utf8'));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    return failure('unreadable', 'the file', code === 'ENOENT' ? 'there is no such file' : `it cannot be read (${code ?? 'unknown'})`);
  }
}

function readJson(text: string): Result<unknown> {
  try {
    return success(JSON.parse(text) as unknown);
  } catch (error) {
    return failure('not-json', 'the file', `not JSON: ${(error as Error).message}`);
  }
}

function check(text: string): Result<unknown> {
  const build = parseBuild(text);
  if (!build.ok) return build;
  return new Evaluator().evaluate(build.value, { ranges: true, remedies: true });
}

function main(args: readonly string[]): void {
  const [command, second, third] = args;
  const file = command === 'check' ? second : third;
  const job = command === 'check' ? check
    : command === 'solve' && (second === 'frame' || second === 'drying')
      ? (text: string) => {
        const json = readJson(text);
        if (!json.ok) return json;
        return second === 'frame' ? solveFrameFile(json.value) : solveDryingFile(json.value);
      } : null;
  if (!job || file === undefined) {
    process.stderr.write(`${usage}\n`);
    process.exit(2);
  }
  const text = readText(file);
  if (!text.ok) refuse(file, text);
  let result: Result<unknown>;
  try {
    result = job(text.value);
  } catch (error) {
    refuse(file, failure('failed', 'the file', `it could not be worked out (${(error as Error).message})`));
  }
  if (!result.ok) refuse(file, result);
  process.stdout.write(`${JSON.stringify(result.value, null, 2)}\n`);
}

main(process.argv.slice(2));
