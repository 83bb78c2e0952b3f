import { stocks } from '../../src/core/catalogue';
import type { Build } from '../../src/core/document';
import { clayOver } from '../../src/core/clay';
import { DistanceField, resolveForm, startForms } from '../../src/core/form';
import { resolveArmature, schools, startBuild, type SchoolContext } from '../../src/core/school';

/** What a school is given, from the catalogue and the form alone; fails loudly. */
export function setOut(build: Build) {
  const form = resolveForm(build);
  if (!form.ok) throw new Error(form.message);
  const field = new DistanceField(
    form.value.masses,
    Float64Array.from(form.value.masses, (m) => (m.role === 'bare' ? 0 : clayOver(build, m.region))),
  );
  const everyone = field.all();
  const context: Omit<SchoolContext, 'form'> = {
    clayOver: (r) => clayOver(build, r),
    across: (stock, size) => {
      const s = stocks.get(stock)?.sizes.find((x) => x.id === size)?.section;
      return s === undefined ? 0 : 'diameter' in s ? s.diameter : 'height' in s ? s.height : s.width;
    },
    sizesOf: (stock) =>
      stocks
        .get(stock)
        ?.sizes.map((s) => s.id)
        .filter((id) => id.endsWith('mm')) ?? [],
    toCarry: build.armature.sizing !== 'by-hand',
    depthAt: (p) => -field.at(p[0], p[1], p[2], everyone),
  };
  return { form: form.value, made: resolveArmature(build, form.value, context), depthAt: context.depthAt };
}

export function setOutWell(build: Build) {
  const { form, made, depthAt } = setOut(build);
  if (!made.ok) throw new Error(`${made.path}: ${made.message}`);
  return { form, ...made.value, depthAt };
}

/** A form the school suits, the first there is; or this one. */
export function formFor(school: string, form?: string): Build {
  const own = schools.find((s) => s.kind === school)!;
  for (const { kind, usualSize } of startForms) {
    if (form !== undefined && kind !== form) continue;
    const build = startBuild('x', '2026-12-01', kind, usualSize);
    const resolved = build.ok ? resolveForm(build.value) : build;
    if (build.ok && resolved.ok && own.fits(resolved.value)) return build.value;
  }
  throw new Error(`nothing suits ${school}`);
}

export function under(build: Build, school: string, parameters: Record<string, unknown> = {}): Build {
  return {
    ...build,
    armature: { ...build.armature, edits: {}, school: { kind: school, parameters: parameters as never } },
  };
}
