import { readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { buildSchema, schemaVersion } from '../src/core/document';
import { startForms } from '../src/core/form';
import { schools } from '../src/core/school';

/** Writes docs/build.schema.json from the code's own schema; with --check, only says whether it is current. */
const file = 'docs/build.schema.json';
const options = { io: 'input', unrepresentable: 'any' } as const;
const text = `${JSON.stringify(
  {
    ...z.toJSONSchema(buildSchema, options),
    title: `Sostegno build, version ${schemaVersion}`,
    $comment:
      'form.start.measures and armature.school.parameters are read by their own start form and school: see $defs.',
    $defs: {
      ...Object.fromEntries(startForms.map((f) => [`${f.kind} measures`, z.toJSONSchema(f.schema, options)])),
      ...Object.fromEntries(schools.map((s) => [`${s.kind} parameters`, z.toJSONSchema(s.parameters, options)])),
    },
  },
  null,
  2,
)}\n`;

if (process.argv.includes('--check')) {
  const current = (() => {
    try {
      return readFileSync(file, 'utf8');
    } catch {
      return '';
    }
  })();
  if (current !== text) {
    process.stderr.write(`${file} is not current: run "npm run docs"\n`);
    process.exit(1);
  }
} else writeFileSync(file, text);
