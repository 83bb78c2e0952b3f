import { bundleAcross, sectionAcross } from '../armature';
import { asBriefed, Evaluator } from '../evaluate';
import { startBuild } from '../school';

test.each([
  ['bust', 1],
  ['figure', 0.4],
  ['four-legged', 0.5],
] as const)('%s: the cover of each member is what all masses of the form say at that place', (kind, size) => {
  const build = startBuild('Covered', '2026-12-01', kind, size);
  if (!build.ok) throw new Error(build.message);
  const piece = new Evaluator().piece(asBriefed(build.value));
  if (!piece.ok) throw new Error(piece.message);
  const { field, cover, armature, stockOf } = piece.value;
  expect(field.many).toBe(true);
  expect(cover.length).toBeGreaterThan(4);
  for (const c of cover) {
    const member = armature.members.find((m) => m.id === c.member)!;
    const { section } = stockOf(member.stock)!.sizes.find((s) => s.id === member.size)!;
    const whole = bundleAcross(sectionAcross(section), member.strands);
    expect(c.least).toBeCloseTo(-field.at(...c.at, field.all()) - whole / 2, 9);
    // Nowhere on it is there less.
    for (let i = 1; i < member.path.length - 1; i++) {
      const there = -field.at(...member.path[i]!, field.all()) - whole / 2;
      if (there > 0) expect(there).toBeGreaterThan(c.least - 1e-6);
    }
  }
});
