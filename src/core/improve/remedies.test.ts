import { evaluateWithRemedies } from '.';
import { asBriefed, Evaluator, type Question, type Report } from '../evaluate';
import { applyEdit } from '../document';
import type { Finding } from '../finding';
import { seededPiece } from '../../../tests/support/seeded-pieces';
import { clayAt, weighings } from '../../../tests/support/weighed-log';
import { lamplighter } from '../../server/demo-builds';

const evaluator = new Evaluator();
const order = ['sound', 'unknown', 'watch', 'fails'];
const told = (question: Question, remedies = false): Report => {
  const r = remedies ? evaluateWithRemedies(evaluator, question) : evaluator.evaluate(question);
  if (!r.ok) throw new Error(`${r.path}: ${r.message}`);
  return r.value;
};

/** Every place and its status, by what is said of it; worked out here by another way than the remedies do. */
function places(findings: readonly Finding[]): Map<string, { status: string; finding: string }> {
  return new Map(findings.flatMap((f) => f.parts.map((p) => [p.id, { status: p.status, finding: f.id }] as const)));
}

test('on twenty pieces of any form and school: what comes is what was promised, and what gets worse was named', () => {
  let pressed = 0,
    named = 0;
  for (let seed = 1; seed <= 20; seed++) {
    const question = asBriefed(seededPiece(seed));
    const before = told(question, true);
    const stood = places(before.findings);
    for (const f of before.findings) {
      for (const remedy of f.remedies.slice(0, 2)) {
        const done = applyEdit(question.build, remedy.edit);
        if (!done.ok) throw new Error(`${remedy.id}: ${done.message}`);
        const after = told({ ...question, build: done.value });
        expect([seed, remedy.id, after.summary]).toEqual([seed, remedy.id, remedy.promised]);
        expect(after.dates.ready?.likely).toBe(remedy.dates?.ready?.likely);
        const own = new Set(f.parts.map((p) => p.id));
        for (const [id, now] of places(after.findings)) {
          const was = stood.get(id)?.status ?? 'sound';
          if (own.has(id) || order.indexOf(now.status) < 2 || order.indexOf(now.status) <= order.indexOf(was)) continue;
          // A place that was told of before is compared as it was told; one that was not had to be measured.
          if (!stood.has(id)) continue;
          expect([seed, remedy.id, remedy.worse.map((w) => w.finding)]).toEqual([
            seed,
            remedy.id,
            expect.arrayContaining([now.finding]),
          ]);
        }
        for (const w of remedy.worse) {
          named += 1;
          expect([w.finding, after.findings.find((x) => x.id === w.finding)?.status]).toEqual([w.finding, w.to]);
        }
        pressed += 1;
      }
    }
  }
  expect(pressed).toBeGreaterThan(40);
  expect(named).toBeGreaterThan(0);
}, 300_000);

test('a fan bought after seven weighings helps from now on: what was weighed in still air stays as it was weighed', () => {
  const build = lamplighter('2026-12-01', '2026-12-24');
  const log = weighings(evaluator, build, [1, 9, 24, 33, 48, 57, 72], 0.8);
  const now = clayAt(build) + 73 * 3600;
  const fanned = applyEdit(build, { label: 'fan', changes: [{ path: ['room', 'airSpeed'], value: 1.5 }] });
  if (!fanned.ok) throw new Error(fanned.message);
  const [still, withFan] = [build, fanned.value].map((b) => {
    const r = evaluator.evaluate({ build: b, log, now }, { ranges: true });
    if (!r.ok) throw new Error(r.message);
    return r.value;
  });
  expect(still!.dates.weighings).toBe(7);
  const at = (r: Report) => Date.parse(r.dates.dryThrough!.likely);
  expect(at(withFan!)).toBeLessThan(at(still!) - 3600e3);
  expect(at(withFan!)).toBeGreaterThan(now * 1000);
  const taught = (r: Report) => r.scale!.fit!.factors;
  expect(taught(withFan!)).toEqual(taught(still!));
});
