import { evaluateWithRemedies } from '.';
import { applyEdit, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { findStartForm } from '../form';
import { startBuild } from '../school';

/** A remedy is tried at the sizes there are; once it is taken the armature is sized again, and must still be one that is sold. */
const begun = (form: string, size: number, type?: string): Build => {
  const made = startBuild('A piece', '2026-12-01', form, size);
  if (!made.ok) throw new Error(made.message);
  const measures = findStartForm(form)!.types?.find((t) => t.id === type)?.measures;
  const b = made.value;
  return measures ? { ...b, form: { ...b.form, start: { ...b.form.start, measures } } } : b;
};

test.each([
  ['a dragon with its wings spread', begun('bird-like', 0.55, 'dragon')],
  ['a figure', begun('figure', 0.3)],
] as const)('%s: every remedy offered leaves what can be worked out, at sizes that are sold', (_, build) => {
  const found = evaluateWithRemedies(new Evaluator(), asBriefed(build), { ranges: false });
  if (!found.ok) throw new Error(found.message);
  const remedies = found.value.findings.flatMap((f) => f.remedies);
  expect(remedies.length).toBeGreaterThan(2);
  for (const { edit } of remedies) {
    const done = applyEdit(build, edit);
    if (!done.ok) throw new Error(`${edit.label}: ${done.message}`);
    const again = new Evaluator().evaluate(asBriefed(done.value), { ranges: false });
    expect([edit.label, again.ok ? 'ok' : again.message]).toEqual([edit.label, 'ok']);
    // A size is never said without the stock it is sold in.
    for (const [id, e] of Object.entries(done.value.armature.edits))
      if ('size' in e) expect([id, 'stock' in e]).toEqual([id, true]);
  }
});
