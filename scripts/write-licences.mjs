// Writes docs/licences.md: what ships with Sostegno (fonts, image library, everything it runs on) and under which licence.
// With --check, only says whether it is current.
import { readFileSync, writeFileSync } from 'node:fs';
import { init } from 'license-checker-rseidelsohn';

const file = 'docs/licences.md';
const found = await new Promise((resolve, reject) =>
  init({ start: '.', production: true, excludePrivatePackages: true }, (error, packages) =>
    error ? reject(error) : resolve(packages),
  ),
);

// Parts built for one kind of machine differ from machine to machine: they are named once, without it.
const machine = /[-/](linux|darwin|win32|linuxmusl|android|freebsd)[-a-z0-9]*$/;
const rows = new Map();
for (const [id, { licenses }] of Object.entries(found)) {
  const at = id.lastIndexOf('@');
  const name = id.slice(0, at).replace(machine, ' (for the machine it runs on)');
  const licence = [licenses].flat().join(', ');
  rows.set(`${name} ${licence}`, { name, licence });
}
const list = [...rows.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
const byLicence = new Map();
for (const { licence } of list) byLicence.set(licence, (byLicence.get(licence) ?? 0) + 1);
const text = `# Licences of what ships with Sostegno

Made from the packages themselves by \`npm run licences\`; the text of each licence lies in its package.

${[...byLicence]
  .sort((a, b) => b[1] - a[1])
  .map(([licence, count]) => `- ${licence}: ${count}`)
  .join('\n')}

| Package | Licence |
| --- | --- |
${list.map(({ name, licence }) => `| ${name} | ${licence} |`).join('\n')}
`;

if (process.argv.includes('--check')) {
  let current = '';
  try {
    current = readFileSync(file, 'utf8');
  } catch {
    // Not written yet.
  }
  if (current !== text) {
    process.stderr.write(`${file} is not current: run "npm run licences"\n`);
    process.exit(1);
  }
} else writeFileSync(file, text);
