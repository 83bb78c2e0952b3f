import './without-warnings';
import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { largestBuildText } from '../core/document';
import { largestMeshFile, meshUnits, readMesh, reportOnMesh, type MeshUnit } from '../core/form';
import { failure, readJson, success, type Failure, type Result } from '../core/quantity';
import { check, readCheckArguments } from './check';
import { solveDryingFile, solveFrameFile } from './inputs';
import { readyToPart } from '../core/parting';
import { mouldOfBuild, mouldOfMesh, mouldUsage, readMouldArguments } from './mould';

/** check BUILD.json | solve frame FILE | solve drying FILE | mesh FILE | mould FILE | backup FILE | restore FILE. Exit 0, or 2 with one line saying where and why. */
const usage =
  'usage: sostegno check BUILD.json [--log LOG.json] [--full] [--now ISO] [--workshop FILE] | solve frame FILE | solve drying FILE | mesh FILE.(stl|obj|ply|glb) [--unit mm|cm|in|m] | ' +
  mouldUsage +
  ' | backup FILE [--dryings] | restore FILE, with [--data DIR]';

function refuse(file: string, why: Failure): never {
  process.stderr.write(`${file}: ${why.path}: ${why.message.replace(/\s+/g, ' ')}\n`);
  process.exit(2);
}

function readBytes(file: string, largest: number): Result<Uint8Array> {
  try {
    const { size } = statSync(file);
    if (size > largest)
      return failure('too-large', 'the file', `it is larger than ${Math.round(largest / 2 ** 20)} MB`);
    return success(readFileSync(file));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    return failure(
      'unreadable',
      'the file',
      code === 'ENOENT' ? 'there is no such file' : `it cannot be read (${code ?? 'unknown'})`,
    );
  }
}

function readText(file: string): Result<string> {
  const bytes = readBytes(file, largestBuildText * 4);
  return bytes.ok ? success(new TextDecoder().decode(bytes.value)) : bytes;
}

/** A mesh measured, in metres whatever unit its file is in. */
function mesh(file: string, unit: MeshUnit): Result<unknown> {
  const bytes = readBytes(file, largestMeshFile);
  if (!bytes.ok) return bytes;
  const read = readMesh(bytes.value, file);
  if (!read.ok) return read;
  const { triangles, volume, area, centroid, box, watertight, openEdges, flipped } = reportOnMesh(read.value);
  const k = meshUnits[unit];
  const metres = (v: readonly number[]) => v.map((x) => x * k);
  return success({
    triangles,
    volume: volume * k ** 3,
    area: area * k ** 2,
    centroid: metres(centroid),
    box: box.map(metres),
    watertight,
    openEdges,
    flipped,
  });
}

function meshCommand(args: readonly string[]): void {
  let unit: string = 'mm';
  const files: string[] = [];
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (arg === '--unit') unit = args[++i] ?? '';
    else if (arg.startsWith('--unit=')) unit = arg.slice('--unit='.length);
    else files.push(arg);
  }
  const [file] = files;
  if (file === undefined || files.length > 1) stopWith(usage);
  if (!Object.hasOwn(meshUnits, unit)) stopWith(`--unit is one of ${Object.keys(meshUnits).join(', ')}, not "${unit}"`);
  print(file, () => mesh(file, unit as MeshUnit));
}

async function mouldCommand(args: readonly string[]): Promise<void> {
  const read = readMouldArguments(args);
  if (!read.ok) stopWith(`${read.path}: ${read.message}`);
  const { file, unit, asked, parting } = read.value;
  await readyToPart();
  if (/\.json$/i.test(file)) {
    const text = readText(file);
    if (!text.ok) refuse(file, text);
    print(file, () => mouldOfBuild(text.value, asked, parting));
    return;
  }
  const bytes = readBytes(file, largestMeshFile);
  if (!bytes.ok) refuse(file, bytes);
  print(file, () => mouldOfMesh(bytes.value, file, unit, asked, parting));
}

function stopWith(line: string): never {
  process.stderr.write(`${line}\n`);
  process.exit(2);
}

function print(file: string, job: () => Result<unknown>): void {
  let result: Result<unknown>;
  try {
    result = job();
  } catch (error) {
    refuse(file, failure('failed', 'the file', `it could not be worked out (${(error as Error).message})`));
  }
  if (!result.ok) refuse(file, result);
  process.stdout.write(`${JSON.stringify(result.value, null, 2)}\n`);
}

/** Everything there is into one file, or out of one. SOSTEGNO_DATA, or --data, says where it is kept. */
async function keeping(command: 'backup' | 'restore', args: readonly string[]): Promise<void> {
  const at = args.indexOf('--data');
  const said = at < 0 ? [...args] : [...args.slice(0, at), ...args.slice(at + 2)];
  const folder = at < 0 ? undefined : args[at + 1];
  const dryings = command === 'backup' && said.includes('--dryings');
  const rest = said.filter((a) => !(dryings && a === '--dryings'));
  const [file] = rest;
  if (file === undefined || rest.length > 1 || (at >= 0 && folder === undefined)) stopWith(usage);
  if (folder !== undefined) process.env['SOSTEGNO_DATA'] = path.resolve(folder);
  // The database is opened by these two alone: a check of a file needs none.
  const { backup, closeDatabase, restore } = await import('../server');
  const done = command === 'backup' ? await backup(file, dryings) : await restore(file);
  await closeDatabase();
  if (!done.ok) refuse(file, done);
  for (const p of done.value.lost)
    process.stderr.write(`${file}: a picture of "${p.build}" (${p.picture}) is ${p.why}: it is not in it\n`);
  process.stdout.write(`${JSON.stringify(done.value, null, 2)}\n`);
}

function main(args: readonly string[]): void {
  const [command, second, third] = args;
  if (command === 'mesh') {
    meshCommand(args.slice(1));
    return;
  }
  if (command === 'mould') {
    void mouldCommand(args.slice(1));
    return;
  }
  if (command === 'backup' || command === 'restore') {
    const file = second ?? '';
    keeping(command, args.slice(1)).catch((error: Error) =>
      refuse(file, (error as { failure?: Failure }).failure ?? failure('failed', 'the file', error.message)),
    );
    return;
  }
  if (command === 'check') {
    const read = readCheckArguments(args.slice(1));
    if (!read.ok) stopWith(`${read.path}: ${read.message}`);
    const text = readText(read.value.file);
    if (!text.ok) refuse(read.value.file, text);
    print(read.value.file, () => check(text.value, read.value.options));
    return;
  }
  const file = third;
  const job =
    command === 'solve' && (second === 'frame' || second === 'drying')
      ? (text: string) => {
          const json = readJson(text);
          if (!json.ok) return json;
          return second === 'frame' ? solveFrameFile(json.value) : solveDryingFile(json.value);
        }
      : null;
  if (!job || file === undefined) stopWith(usage);
  const text = readText(file);
  if (!text.ok) refuse(file, text);
  print(file, () => job(text.value));
}

main(process.argv.slice(2));
