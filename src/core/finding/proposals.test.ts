import { changed, edited, judged, parameter } from '../../../tests/support/judged';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { coatsOf } from '../clay';
import { asBriefed, Evaluator } from '../evaluate';
import { evaluateWithRemedies } from '../improve';
import { startBuild } from '../school';
import type { Build } from '../document';
import type { Judged, Judging, Proposal } from '.';
import { resizeEdit } from './edits';
import { finding } from './finding';
import { rules } from './rules';

/** What each rule offers, and what is left out because it is done already or cannot help. */
const lamp = lamplighter('2026-12-01', '2026-12-24');
const demo = (name: string) => otherDemoBuilds('2026-12-01', '2027-03-01').find((b) => b.name === name)!;
const bust = judged(lamp);

const about = (id: string, parts: readonly string[] = [id], more: Partial<Judged> = {}): Judged => ({
  ...finding('load', id, 'fails', 'here', 'It fails.', '', { measured: 2, limit: 1, unit: 'ratio' }),
  parts: parts.map((p) => ({ id: p, name: p, status: 'fails', measured: 2 })),
  ...more,
});
const offered = (rule: string, on: Judging, found: Judged = about(rule)): Proposal[] =>
  rules.find((r) => r.id === rule)!.propose!(on, found);
const ids = (list: readonly Proposal[]) => list.map((p) => p.id);
const done = (build: Build, list: readonly Proposal[], id: string): Build => {
  const own = list.find((p) => p.id === id);
  if (!own) throw new Error(`${id} is not offered; ${ids(list).join()}`);
  return edited(build, own.edit);
};

describe('members', () => {
  const bone = 'stuffed/head-frame';
  const found = about(`member/${bone}`);
  const list = offered('member', bust, found);

  test('doubled, the next size, a stiffer join, a prop, less to carry: in the order of an old hand', () => {
    expect(ids(list)).toEqual(['strand', 'thicker', 'join', 'prop', 'firmer-bulk', 'thinner']);
  });

  test('each does what it says, to every member along the bone', () => {
    const along = bust.piece.armature.members.filter((m) => m.bones.includes(bone));
    const after = (id: string) =>
      judged(done(lamp, list, id)).piece.armature.members.filter((m) => m.bones.includes(bone));
    expect(along.length).toBeGreaterThan(0);
    expect(after('strand').map((m) => m.strands)).toEqual(along.map(() => along[0]!.strands + 1));
    const across = (size: string, stock: string) => {
      const section = bust.piece.stockOf(stock)!.sizes.find((s) => s.id === size)!.section;
      return 'diameter' in section ? section.diameter : section.width;
    };
    const first = along[0]!;
    const wider = after('thicker')[0]!;
    expect(across(wider.size, wider.stock)).toBeGreaterThan(across(first.size, first.stock) * 1.05);
    // The next one made: nothing lies between.
    const between = bust.piece
      .stockOf(first.stock)!
      .sizes.filter((s) => s.id.endsWith('mm') === first.size.endsWith('mm'))
      .map((s) => across(s.id, first.stock))
      .filter((d) => d > across(first.size, first.stock) * 1.05 && d < across(wider.size, wider.stock));
    expect(between).toEqual([]);
    const joined = judged(done(lamp, list, 'join')).piece.armature.bones.find((b) => b.id === bone)!;
    expect(joined.joinFrom).toBe('epoxied');
  });

  test('a prop stands under the outer joint until it is dry, and is not offered twice', () => {
    const propped = done(lamp, list, 'prop');
    const to = bust.piece.armature.bones.find((b) => b.id === bone)!.to;
    expect(propped.armature.props).toMatchObject([{ node: to, until: 'through-dry' }]);
    expect(ids(offered('member', judged(propped), found))).not.toContain('prop');
  });

  test('no seventh strand, no join stronger than one piece', () => {
    const full = changed(
      lamp,
      ...bust.piece.armature.members
        .filter((m) => m.bones.includes(bone))
        .map((m) => ({ path: ['armature', 'edits', m.id, 'strands'], value: 6 })),
      { path: ['armature', 'edits', bone, 'joinFrom'], value: 'welded' },
    );
    const left = ids(offered('member', judged(full), found));
    expect(left).not.toContain('strand');
    expect(left).not.toContain('join');
  });

  test('loose paper may be packed; a solid piece filled; either carries less of its own', () => {
    const loose = changed(lamp, parameter('bulk', 'paper-loose'));
    expect(ids(offered('member', judged(loose), found))).toContain('firmer-bulk');
    expect(done(loose, offered('member', judged(loose), found), 'firmer-bulk')).toMatchObject({
      armature: { school: { parameters: { bulk: 'paper-firm' } } },
    });
    const solid = changed(lamp, parameter('bulk', 'none'));
    const list = ids(offered('member', judged(solid), found));
    expect(list).toContain('bulk');
    expect(list).not.toContain('thinner');
  });

  test('limbs with nothing in them get a wire through all of them, stout enough and no stouter, with room to lie in', () => {
    const net = demo('The net that failed');
    const on = judged(net);
    const bare = rules.find((r) => r.id === 'no-metal')!.judge(on)[0]!;
    expect(bare.status).toBe('watch');
    const list = offered('no-metal', on, bare);
    expect(ids(list)[0]).toBe('wire-through');
    expect(list[0]!.edit.label).toMatch(/^Put (a|wires) .*mm .* wire through|^Put wires through/);
    const wired = done(net, list, 'wire-through');
    const added = wired.armature.added.members.slice(net.armature.added.members.length);
    // One wire to a limb, through every bone that had none.
    expect(added.flatMap((m) => m.bones).sort()).toEqual(bare.parts.map((p) => p.id.slice('no-metal/'.length)).sort());
    expect(added.length).toBeLessThan(bare.parts.length);
    const nodes = new Map(on.piece.armature.nodes.map((n) => [n.id, n.at]));
    for (const m of added) {
      const own = m.bones.map((id) => on.piece.armature.bones.find((b) => b.id === id)!);
      expect(m.path).toEqual([nodes.get(own[0]!.from), ...own.map((b) => nodes.get(b.to))]);
    }
    const after = judged(wired);
    expect(rules.find((r) => r.id === 'no-metal')!.judge(after)[0]!.status).toBe('sound');
    const worst = (j: Judging) =>
      Math.max(...j.report.members.filter((m) => added.some((a) => a.bones.includes(m.id))).map((m) => m.utilisation));
    expect(worst(on)).toBeGreaterThan(2);
    expect(worst(after)).toBeLessThan(1);
    // It is bound to the wire it begins on, and is told so.
    for (const m of added)
      expect(after.piece.armature.bones.find((b) => b.id === m.bones[0])!.joinFrom).toBe('bound-glued');
  });

  test('doubled, then splinted: strands that are many are bound to work as one; clay that never sets is propped for good', () => {
    const twice = changed(
      lamp,
      ...bust.piece.armature.members
        .filter((m) => m.bones.includes(bone))
        .map((m) => ({ path: ['armature', 'edits', m.id, 'strands'], value: 2 })),
    );
    const two = offered('member', judged(twice), found);
    expect(list.find((p) => p.id === 'strand')!.edit.label).toMatch(/^Double the /);
    expect(ids(list)).not.toContain('splint');
    expect(two.find((p) => p.id === 'strand')!.edit.label).toMatch(/^One more strand/);
    const splinted = judged(done(twice, two, 'splint')).piece.armature.members.filter((m) => m.bones.includes(bone));
    expect(splinted.every((m) => m.bonded)).toBe(true);
    const until = (clay: string) => {
      const on = judged(changed(lamp, { path: ['brief', 'clay'], value: clay }));
      const own = offered('member', on, found).find((p) => p.id === 'prop')!;
      return [own.edit.label.replace(/.* (until|for) /, '$1 '), edited(lamp, own.edit).armature.props.at(-1)!.until];
    };
    expect(until('epoxy-clay')).toEqual(['until it has set', 'through-dry']);
    expect(until('oil-medium')).toEqual(['for good', 'always']);
    expect(until('paper-clay')).toEqual(['until it is dry', 'through-dry']);
  });

  test('of a bone that there is not, nothing is offered', () =>
    expect(offered('member', bust, about('member/nobody'))).toEqual([]));
});

describe('cracks', () => {
  const found = about('crack/head', ['crack/head'], { station: 'drying' });
  const list = offered('crack', bust, found);

  test('two coats, thinner, softer, wrapped, covered, another clay; what is so already is not offered', () => {
    expect(ids(list)).toEqual(expect.arrayContaining(['two-coats', 'thinner', 'cloth', 'cover', 'clay-epoxy-clay']));
    expect(ids(list)).not.toContain('clay-paper-clay');
    expect(ids(list)).not.toContain('less-water');
    const tried = changed(
      lamp,
      parameter('wrap', 'cloth'),
      parameter('bulk', 'paper-loose'),
      { path: ['room', 'covers'], value: [{ kind: 'loose-plastic', from: 0, until: 24, regions: [] }] },
      { path: ['materials', 'waterWorkedIn'], value: 0.1 },
      { path: ['regions', 'own', 'head'], value: { coats: [0.005, 0.005] } },
    );
    const left = ids(offered('crack', judged(tried), found));
    for (const gone of ['cloth', 'softer-bulk', 'cover', 'two-coats']) expect(left).not.toContain(gone);
    expect(left).toContain('less-water');
  });

  test('two coats are as thick together, thinner is seven tenths; other regions stay as they are', () => {
    expect(coatsOf(done(lamp, list, 'two-coats'), 'head')).toEqual([0.005, 0.005]);
    expect(coatsOf(done(lamp, list, 'thinner'), 'head')[0]).toBeCloseTo(0.007, 9);
    for (const id of ['two-coats', 'thinner']) expect(coatsOf(done(lamp, list, id), 'chest')).toEqual([0.012]);
  });

  test('stages that were chosen for other coats go with them; layers stay', () => {
    const layered = changed(lamp, {
      path: ['regions', 'own', 'head'],
      value: { coats: [0.01], stages: [3], under: ['tape'] },
    });
    const after = done(layered, offered('crack', judged(layered), found), 'two-coats');
    expect(after.regions.own['head']).toEqual({ coats: [0.005, 0.005], under: ['tape'] });
  });

  test('a coat of two millimetres is not split', () => {
    const thin = changed(lamp, { path: ['regions', 'own', 'head'], value: { coats: [0.002] } });
    expect(ids(offered('crack', judged(thin), found))).not.toContain('two-coats');
  });
});

describe('standing', () => {
  test('a board so much wider that it stands as was asked; ballast on the side it does not tip to, enough for what was asked and half a degree', () => {
    const small = changed(lamp, parameter('boardDepth', 0.18), parameter('boardWidth', 0.22), {
      path: ['form', 'start', 'measures', 'headForward'],
      value: 0.2,
    });
    const on = judged(small);
    expect(on.report.stance.towards).toBe('front');
    const list = offered('tip', on);
    const wide = judged(done(small, list, 'wider-base'));
    // Depth and width grow alike, to a whole centimetre: no further than it takes.
    const grown = wide.piece.armature.base.depth / 0.18;
    expect(wide.piece.armature.base.width / 0.22).toBeCloseTo(grown, 1);
    expect(wide.report.stance.tipAngle).toBeGreaterThanOrEqual(small.brief.limits.tipAngle);
    expect(wide.report.stance.tipAngle).toBeLessThan(small.brief.limits.tipAngle + 4);
    const heavy = judged(done(small, list, 'ballast'));
    expect(heavy.piece.armature.base.ballastAt[1]).toBeGreaterThan(on.piece.armature.base.at[1]);
    const target = small.brief.limits.tipAngle;
    expect(heavy.report.stance.tipAngle).toBeGreaterThanOrEqual(target);
    expect(heavy.report.stance.tipAngle).toBeLessThan(target + 1.5);
  });

  test('what stands on its own feet is offered a board', () => {
    const feet = changed(lamp, parameter('standing', 'own'));
    const list = offered('tip', judged(feet));
    expect(ids(list)).toEqual(['on-a-board']);
    expect(judged(done(feet, list, 'on-a-board')).piece.armature.base.standing).toBe('flat');
  });

  test('the next thicker board with longer screws, and screws a millimetre thicker', () => {
    const list = offered('base', bust);
    const board = judged(done(lamp, list, 'thicker-board')).piece.armature.base;
    expect(board.thickness).toBeGreaterThan(bust.piece.armature.base.thickness);
    expect(board.screws.threadLength).toBeLessThanOrEqual(board.thickness);
    const screws = judged(done(lamp, list, 'larger-screws')).piece.armature.base.screws;
    expect(screws.diameter).toBeCloseTo(bust.piece.armature.base.screws.diameter + 0.001, 9);
  });
});

describe('weight, time and what stays put', () => {
  test('three quarters of the clay everywhere, a tenth smaller all over with its clay, lighter clays', () => {
    const list = offered('weight', bust);
    const thin = done(lamp, list, 'thinner');
    expect(coatsOf(thin, 'head')[0]).toBeCloseTo(0.0075, 9);
    expect(coatsOf(thin, 'chest')[0]).toBeCloseTo(0.009, 9);
    const small = done(lamp, list, 'smaller');
    expect(small.form.start.size).toBe(0.9);
    expect(coatsOf(small, 'chest')[0]).toBeCloseTo(0.0108, 9);
    expect(ids(list)).toContain('clay-foam-air-dry');
    expect(ids(list)).not.toContain('clay-paper-clay');
  });

  test('clay is never made thinner than half a millimetre nor thicker than 300 mm', () => {
    const thin = changed(lamp, { path: ['regions', 'own', 'head'], value: { coats: [0.0006] } });
    expect(coatsOf(done(thin, offered('weight', judged(thin)), 'thinner'), 'head')).toEqual([0.0005]);
    expect(coatsOf(edited(thin, resizeEdit(thin, 0.1)), 'head')).toEqual([0.0005]);
    const thick = changed(lamp, { path: ['regions', 'own', 'head'], value: { coats: [0.2] } });
    expect(coatsOf(edited(thick, resizeEdit(thick, 2)), 'head')).toEqual([0.3]);
  });

  test('a fan, five degrees more, the cover off; none of them where it is so', () => {
    const slow = changed(
      lamp,
      { path: ['room', 'covers'], value: [{ kind: 'loose-plastic', from: 0, until: 72, regions: [] }] },
      { path: ['room', 'temperature'], value: 18 },
      { path: ['room', 'airSpeed'], value: 0.1 },
    );
    const list = offered('deadline', judged(slow));
    expect(ids(list)).toEqual(['fan', 'warmer', 'uncover', 'thinner', 'clay-epoxy-clay']);
    expect(done(slow, list, 'fan').room.airSpeed).toBe(1.5);
    expect(done(slow, list, 'warmer').room.temperature).toBe(23);
    expect(done(slow, list, 'uncover').room.covers).toEqual([]);
    const quick = changed(lamp, { path: ['room', 'temperature'], value: 24 }, { path: ['room', 'airSpeed'], value: 1 });
    expect(ids(offered('through-dry', judged(quick)))).toEqual(['thinner', 'clay-epoxy-clay']);
  });

  test('clay that slides: twine, or one more, thinner coat; four coats are enough', () => {
    const list = offered('staying-put', bust);
    expect(ids(list)).toEqual(['twine', 'one-more-coat']);
    const coats = coatsOf(done(lamp, list, 'one-more-coat'), 'chest');
    expect(coats).toHaveLength(2);
    expect(coats.reduce((a, b) => a + b, 0)).toBeCloseTo(0.012, 9);
    const four = changed(
      lamp,
      { path: ['regions', 'everywhere', 'coats'], value: [0.003, 0.003, 0.003, 0.003] },
      { path: ['regions', 'own'], value: {} },
    );
    expect(ids(offered('thick-coat', judged(four)))).toEqual([]);
    // Once no coat is too thick any more, what is said to remain is the thickest there is.
    const rule = rules.find((r) => r.id === 'thick-coat')!;
    expect(rule.measure!(judged(four), 'thick-coat')).toEqual({ status: 'sound', measured: 0.003 });
  });
});

describe('cover', () => {
  const wire = bust.piece.armature.members.find((m) => m.size === '4.8mm')!;
  const found = about(`cover/${wire.id}`, [`cover/${wire.id}`], { limit: 0.012 });

  test('bent inward until the middle of it lies as deep as is wanted and half its width; the next size down', () => {
    const list = offered('cover', bust, found);
    expect(ids(list)).toEqual(expect.arrayContaining(['draw-in', 'slimmer']));
    const drawn = done(lamp, list, 'draw-in').armature.edits[wire.id] as { drawnIn: number };
    const across = wire.strands === 1 ? 0.0048 : drawn.drawnIn * 2 - 0.024;
    // Up to the next half millimetre.
    expect(drawn.drawnIn).toBeGreaterThanOrEqual(0.012 + across / 2 - 1e-9);
    expect(drawn.drawnIn * 2000).toBeCloseTo(Math.round(drawn.drawnIn * 2000), 9);
  });

  test('thinned to the stoutest of its own series that keeps its cover, not by one size at a time', () => {
    const figure = startBuild('Fig', '2026-12-01', 'figure', 0.25);
    if (!figure.ok) throw new Error(figure.message);
    const on = judged(figure.value);
    const thin = on.report.cover.filter((c) => c.least < c.wanted).sort((a, b) => a.least - b.least)[0]!;
    const id = `cover/${thin.member}`;
    const slimmer = offered('cover', on, about(id, [id], { limit: thin.wanted })).find((p) => p.id === 'slimmer')!;
    expect(slimmer.note).toMatch(/keeps its cover/);
    const after = judged(edited(figure.value, slimmer.edit));
    const then = after.report.cover.find((c) => c.member === thin.member)!;
    expect(then.least).toBeGreaterThanOrEqual(then.wanted - 1e-9);
    const member = after.piece.armature.members.find((m) => m.id === thin.member)!;
    expect(member.size).toMatch(/^[\d.]+mm$/);
    // The next stouter of one strand has less than it should.
    const sizes = after.piece.stockOf(member.stock)!.sizes.filter((s) => s.id.endsWith('mm'));
    const next = sizes[sizes.findIndex((s) => s.id === member.size) + 1] ?? sizes.at(-1)!;
    const stouter = judged(
      changed(
        figure.value,
        { path: ['armature', 'edits', thin.member, 'size'], value: next.id },
        { path: ['armature', 'edits', thin.member, 'strands'], value: member.strands },
      ),
    ).report.cover.find((c) => c.member === thin.member)!;
    expect(stouter.least).toBeLessThan(stouter.wanted);
  });

  test('the limbs it lies too near the face in made thicker across, both of a pair, in one change; not to twice what they are', () => {
    const figure = startBuild('Fig', '2026-12-01', 'figure', 1);
    if (!figure.ok) throw new Error(figure.message);
    const legs = ['left', 'right'].map((side) => `limb/wire-hip-${side}`);
    const withWire = (size: string) =>
      changed(
        figure.value,
        ...legs.map((id) => ({ path: ['armature', 'edits', id], value: { stock: 'mild-steel', size, strands: 4 } })),
      );
    const build = withWire('12mm');
    const on = judged(build);
    const short = on.report.cover.filter((c) => legs.includes(c.member) && c.least < c.wanted);
    expect(short.map((c) => c.member)).toEqual(legs);
    const own = about(
      `cover/${legs[0]}`,
      legs.map((id) => `cover/${id}`),
      { limit: short[0]!.wanted },
    );
    const thicker = offered('cover', on, own).find((p) => p.id === 'thicker-limb')!;
    const after = judged(edited(build, thicker.edit));
    for (const c of after.report.cover.filter((x) => legs.includes(x.member)))
      expect(c.least).toBeGreaterThanOrEqual(c.wanted);
    const changedMasses = on.piece.form.masses.filter(
      (m, i) => JSON.stringify(m.shape) !== JSON.stringify(after.piece.form.masses[i]!.shape),
    );
    expect(changedMasses.map((m) => m.id).sort()).toEqual(
      short.flatMap((c) => c.shortIn.map((x) => on.piece.form.masses[x.mass]!.id)).sort(),
    );
    for (const m of changedMasses) {
      const then = after.piece.form.masses.find((x) => x.id === m.id)!;
      if (m.shape.kind !== 'round-cone' || then.shape.kind !== 'round-cone') continue;
      // Across, and no longer.
      expect(then.shape.reach).toEqual(m.shape.reach);
      expect(then.shape.radiusFrom / m.shape.radiusFrom).toBeLessThanOrEqual(2);
    }
    // On both sides of it what it lacks most, up to the next half millimetre.
    const lacks = Math.max(...short.flatMap((c) => c.shortIn.map((x) => x.wanted - x.least)));
    const by = (2 * Math.ceil(lacks * 2000)) / 2;
    expect(thicker.edit.label).toMatch(new RegExp(`left and right ${by} mm thicker$`));
  });

  test('a pipe is not bent', () => {
    const pipe = bust.piece.armature.members.find((m) => m.id === 'stuffed/pipe')!;
    expect(
      ids(offered('cover', bust, about(`cover/${pipe.id}`, [`cover/${pipe.id}`], { limit: 0.012 }))),
    ).not.toContain('draw-in');
  });
});

test('every change that is offered for a demo piece can be made, and leaves a build that can be worked out', () => {
  for (const build of [lamp, demo('The net that failed'), demo('Whelk pauldron')]) {
    const on = judged(build);
    for (const rule of rules)
      for (const f of rule.judge(on))
        for (const p of rule.propose?.(on, f) ?? []) {
          expect(p.note).toMatch(/\S/);
          expect(p.edit.label).toMatch(/^[A-Z]/);
          expect(edited(build, p.edit)).not.toEqual(build);
        }
  }
});

test('a change by hand that holds on to nothing is taken away where it stands', () => {
  const lost = (path: string) => ({ ...about(`lost-edit/${path}`), station: 'armature' as const });
  const with_ = changed(lamp, { path: ['armature', 'edits', 'gone'], value: { strands: 2 } });
  expect(done(with_, offered('lost-edit', judged(with_), lost('gone')), 'drop').armature.edits).not.toHaveProperty(
    'gone',
  );
  const posed = changed(lamp, { path: ['form', 'pose', 'nobody'], value: { turned: [10, 0, 0] } });
  expect(done(posed, offered('lost-edit', judged(posed), lost('nobody')), 'drop').form.pose).not.toHaveProperty(
    'nobody',
  );
});

test('driven, and judged for a bench: said, and mended by one press', () => {
  const driven = changed(
    lamp,
    { path: ['brief', 'travel', 'vehicle'], value: 'estate' },
    {
      path: ['brief', 'situation'],
      value: 'bench',
    },
  );
  const rule = rules.find((r) => r.id === 'not-for-the-road')!;
  const told = rule.judge(judged(driven));
  expect(told.map((f) => f.status)).toEqual(['watch']);
  expect(rule.judge(judged(done(driven, offered('not-for-the-road', judged(driven)), 'judge-for-the-road')))).toEqual(
    [],
  );
});

test('what slides on its filling is offered a wrap between them, and it gets on', () => {
  const made = startBuild('A shoulder piece', '2026-12-01', 'worn-shell', 1);
  if (!made.ok) throw new Error(made.message);
  const evaluator = new Evaluator();
  const found = evaluateWithRemedies(evaluator, asBriefed(made.value), { ranges: false });
  if (!found.ok) throw new Error(found.message);
  const slides = found.value.findings.find((f) => f.id.startsWith('getting-on') && f.sentence.includes('slides'))!;
  expect(slides.status).toBe('watch');
  expect(slides.remedies.map((r) => [r.id, r.statusAfter])).toContainEqual(['wrap-tape', 'sound']);
});
