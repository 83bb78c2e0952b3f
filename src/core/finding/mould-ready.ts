import { layersOf, layersOverClay } from '../clay';
import { passesOver } from '../plan';
import { turnOver } from '../load';
import { formatLength, formatMass } from '../quantity';
import type { BuildEdit, Change } from '../document';
import { mouldChosen, mouldKinds, takeMould, type MouldKind, type MouldKindId } from '../mould';
import { regionName, turnedMass } from '../piece';
import { cover, thinUnderClay } from './cover';
import { finding, type Judged, type Judging, type Proposal, type Rule } from './finding';
import { capitalised, placesInWords } from './words';

/**
 * Whether the piece is fit for the mould that is to be taken of it: soft or hard enough, sealed where it drinks, nothing
 * near under its face that prints, every pass over the face done, and not too heavy to turn.
 */
export const mouldReady: Rule = {
  id: 'mould-ready',
  judge: (on) => {
    const kind = kindOf(on);
    if (!kind) return [];
    const besides = [...printing(on), ...unfinished(on), ...turning(on)];
    const wrong = wrongState(on, kind);
    if (wrong) return [said('mould-ready/state', 'fails', 'whole piece', wrong.sentence, wrong.reason, 1)];
    const bare = unsealed(on);
    if (bare.length > 0)
      return [
        said(
          'mould-ready/seal',
          kind.stretches > 0 ? 'watch' : 'fails',
          bare.map(regionName).join(', '),
          `Nothing seals the clay, and dry clay drinks: ${kind.stretches > 0 ? 'the mould sticks in its pores' : 'plaster grips it'}.`,
          'Two coats of a seal, dry, then the release of the mould; try both on a scrap.',
          bare.length,
        ),
        ...besides,
      ];
    return [
      said(
        'mould-ready/state',
        'sound',
        'whole piece',
        `${besides.length > 0 ? 'Its clay is' : 'It is'} fit for its mould: ${kind.name}.`,
        capitalised(kind.wants),
        0,
      ),
      ...besides,
    ];
  },
  propose: (on, found) => {
    const kind = kindOf(on);
    if (!kind) return [];
    if (found.id === 'mould-ready/seal') return seals.map((s) => sealed(on, s));
    if (found.id === 'mould-ready/passes' || found.id === 'mould-ready/turn') return [];
    if (found.id === 'mould-ready/cover') return deeperCover(on, found);
    return instead(on, kind);
  },
};

function said(
  id: string,
  status: 'sound' | 'watch' | 'fails',
  place: string,
  sentence: string,
  reason: string,
  measured: number,
) {
  return finding('mould', id, status, place, sentence, reason, { measured, limit: 0, unit: 'count' });
}

function kindOf({ piece }: Judging): MouldKind<MouldKindId> | null {
  const chosen = mouldChosen(piece.build);
  return mouldKinds.find((k) => k.id === chosen?.kind) ?? null;
}

/** What Armature offers for the same wires. */
function deeperCover(on: Judging, found: Judged): Proposal[] {
  const same = cover.judge(on).filter((c) => c.status !== 'sound');
  return same.flatMap((c) => cover.propose?.(on, { ...found, ...c }) ?? []);
}

const soft = (setting: string) => setting === 'damp' || setting === 'never';

function wrongState({ piece }: Judging, kind: MouldKind): { sentence: string; reason: string } | null {
  const { setting, name } = piece.clay;
  if (setting === 'damp' && kind.skin?.material === 'latex')
    return {
      sentence: 'Latex does not dry on damp clay.',
      reason: `${capitalised(name)} is kept damp until it is moulded; plaster wants it so.`,
    };
  if (kind.id === 'shim-halves' && !soft(setting))
    return {
      sentence: 'A shim is pressed into soft clay, and by then this is hard.',
      reason: 'Part it with walls of clay laid on it, half by half.',
    };
  return null;
}

/** Regions whose clay dries hard and has nothing over it that closes its pores. */
function unsealed({ piece, report }: Judging): string[] {
  if (piece.clay.setting !== 'dries') return [];
  return report.regions
    .filter((r) => r.clayVolume > 0 && !layersOverClay(piece.build, r.id).some((l) => l.seals))
    .map((r) => r.id);
}

/** What lies too near under the face shows in the mould, and in every cast: those that Armature names, where a mould lies. */
function printing({ piece, report, units }: Judging): Judged[] {
  const thin = thinUnderClay({ piece, report });
  if (thin.length === 0) return [];
  const worst = thin.reduce((a, b) => (b.least / b.wanted < a.least / a.wanted ? b : a));
  return [
    finding(
      'mould',
      'mould-ready/cover',
      'watch',
      placesInWords([...new Set(thin.map((c) => piece.form.masses[c.mass]?.name ?? 'form'))]),
      `What lies near under the face prints in the mould: ${placesInWords(thin.map((c) => c.name))}.`,
      `${capitalised(worst.name)} has ${formatLength(Math.max(0, worst.least), units)} over it; ${formatLength(worst.wanted, units)} is wanted.`,
      { measured: worst.least, limit: worst.wanted, unit: 'metres', smallerIsWorse: true },
    ),
  ];
}

/** A piece that lies is turned over with the first half of its mould on: how many that takes. */
function turning({ piece, report, units }: Judging): Judged[] {
  const own = report.stances.find((s) => s.stage === 'dry')?.mass;
  const mass = own === undefined ? null : turnedMass(piece, own);
  if (mass === null) return [];
  const { people, limit } = turnOver({ mass, breadth: report.size.width });
  if (people <= 2) return [];
  return [
    finding(
      'mould',
      'mould-ready/turn',
      'watch',
      'whole piece',
      `Turned over with the first half of its mould on it weighs ${formatMass(mass, units)}: ${Number.isFinite(people) ? `${people} people turn it together` : 'no number of hands turns it; a hoist or a frame to roll it in does'}.`,
      `Tipped over its edge half of it is lifted; one person should turn ${formatMass(limit, units)} of that breadth. It is strapped to its half and board, and rides in the half, which has set.`,
      { measured: mass, limit, unit: 'kg' },
    ),
  ];
}

/** Once the face has been begun and until its mould has, what is left to do on it. */
function unfinished({ plan }: Judging): Judged[] {
  const steps = plan?.steps ?? [];
  const begun = steps.some((s) => (s.passes ?? []).length > 0 && (s.done || s.begun !== null));
  const moulded = steps.some((s) => s.kind === 'moulding' && (s.done || s.begun !== null));
  const left = passesOver(steps).filter((p) => p.left > 0);
  if (!begun || moulded || left.length === 0) return [];
  const names = left.map(({ pass }) => pass.name.toLowerCase());
  return [
    finding(
      'mould',
      'mould-ready/passes',
      'watch',
      'whole piece',
      names.length === 1
        ? `One pass over the face is still to be done: ${names[0]}.`
        : `${names.length} passes over the face are still to be done: ${names.join(', ')}.`,
      'A mould keeps every mark: seams of laying, crumbs and tool lines are cast again each time.',
      { measured: names.length, limit: 0, unit: 'count' },
    ),
  ];
}

const seals = [
  { id: 'shellac', label: 'Seal it with shellac', note: 'two coats; spirit fumes, moving air' },
  { id: 'acrylic-seal', label: 'Seal it with acrylic', note: 'two coats' },
] as const;

function sealed({ piece }: Judging, { id, label, note }: (typeof seals)[number]): Proposal {
  const { build } = piece;
  const over = (path: readonly string[], own: readonly string[] | undefined): Change => ({
    path: [...path, 'over'],
    value: [...(own ?? []), id],
  });
  const changes = [
    over(['regions', 'everywhere'], build.regions.everywhere.over),
    // A region with layers of its own over the clay does not take those of everywhere.
    ...piece.regions.flatMap((r) =>
      Object.hasOwn(build.regions.own, r) && layersOf(build, r).over
        ? [over(['regions', 'own', r], layersOf(build, r).over)]
        : [],
    ),
  ];
  return { id, edit: { label, changes }, note };
}

function instead({ piece }: Judging, kind: MouldKind): Proposal[] {
  const take = (id: MouldKindId): Proposal => {
    const edit: BuildEdit = takeMould(piece.build, id);
    return { id, edit, note: mouldKinds.find((k) => k.id === id)!.wants };
  };
  const others: readonly MouldKindId[] = soft(piece.clay.setting)
    ? ['plaster-parts', 'rubber-skin']
    : ['rubber-skin', 'plaster-parts'];
  return others.filter((id) => id !== kind.id).map(take);
}
