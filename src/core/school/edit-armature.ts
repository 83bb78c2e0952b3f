import type { Armature, Bone, Member } from '../armature';
import type { StockText } from '../catalogue';
import type { Build, BuildEdit, Change } from '../document';
import { add, type Vec3 } from '../quantity';

/**
 * Changes by hand to an armature, as edits of the build: each is one gesture and one step back. Parts a school made are
 * changed by their ids, so they stay changed when the form moves; parts of one's own are kept in full.
 */
const list = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

export function moveJoint(build: Build, id: string, name: string, by: Vec3): BuildEdit {
  const before = build.armature.nodes[id]?.moved ?? [0, 0, 0];
  const own = build.armature.added.nodes.findIndex((n) => n.id === id);
  const change: Change =
    own >= 0
      ? {
          path: ['armature', 'added', 'nodes', own, 'at'],
          value: list(add(build.armature.added.nodes[own]?.at as Vec3, by)),
        }
      : { path: ['armature', 'nodes', id, 'moved'], value: list(add(before, by)) };
  return { label: `Joint moved: ${name}`, changes: [change] };
}

/** Back where the school put it. */
export function putJointBack(id: string, name: string): BuildEdit {
  return { label: `Joint put back: ${name}`, changes: [{ path: ['armature', 'nodes', id], value: undefined }] };
}

export function holdJoint(build: Build, id: string, name: string, held: boolean): BuildEdit {
  const own = build.armature.added.nodes.findIndex((n) => n.id === id);
  return {
    label: held ? `Fixed to the base: ${name}` : `Freed from the base: ${name}`,
    changes: [
      own >= 0
        ? { path: ['armature', 'added', 'nodes', own, 'held'], value: held }
        : { path: ['armature', 'nodes', id, 'held'], value: held },
    ],
  };
}

/** Cuts a bone in two at a share of its length: a joint that can be moved, propped or branched from. */
export function splitBone(build: Build, bone: Bone, share: number): BuildEdit {
  const root = bone.id.replace(/\/part-\d+$/, '');
  const before = build.armature.splits[root] ?? [];
  // A part of a bone that is cut already is cut at its own share of the whole.
  const part = Number(/\/part-(\d+)$/.exec(bone.id)?.[1] ?? (before.length > 0 ? 1 : 0));
  const stops = [0, ...[...before].sort((a, b) => a - b), 1];
  const from = part > 0 ? (stops[part - 1] ?? 0) : 0,
    to = part > 0 ? (stops[part] ?? 1) : 1;
  const at = from + (to - from) * share;
  return {
    label: `Cut in two: ${bone.name}`,
    changes: [{ path: ['armature', 'splits', root], value: [...before, at].sort((a, b) => a - b) }],
  };
}

function freeName(taken: ReadonlySet<string>, wanted: string): string {
  for (let n = 1; ; n++) {
    const id = `${wanted}-${n}`;
    if (!taken.has(id)) return id;
  }
}

function idsOf(armature: Armature): Set<string> {
  return new Set([...armature.nodes, ...armature.bones, ...armature.members].map((x) => x.id));
}

/** A member of one's own from one joint to another, with the bone it runs along. A tie only pulls. */
export function joinJoints(
  build: Build,
  armature: Armature,
  from: string,
  to: string,
  stock: StockText,
  tie: boolean,
): BuildEdit {
  const taken = idsOf(armature);
  const id = freeName(taken, tie ? 'own/tie' : 'own/member');
  const place = new Map(armature.nodes.map((n) => [n.id, n.at]));
  const name = `${tie ? 'tie' : 'member'} ${id.replace(/^.*-/, '')} of your own`;
  const { bones, members } = build.armature.added;
  return {
    label: tie ? 'A tie added' : 'A member added',
    changes: [
      {
        path: ['armature', 'added', 'bones', bones.length],
        value: {
          id,
          name,
          from,
          to,
          masses: [],
          joinFrom: tie ? 'bound' : 'bound-glued',
          joinTo: tie ? 'bound' : 'bound-glued',
          ...(tie ? { tie } : {}),
        },
      },
      {
        path: ['armature', 'added', 'members', members.length],
        value: {
          id,
          name,
          ...stock,
          path: [list(place.get(from) ?? [0, 0, 0]), list(place.get(to) ?? [0, 0, 0])],
          bones: [id],
          allowances: [{ what: 'turned over at both ends', length: 0.06 }],
          ...(tie ? { bare: true } : {}),
        },
      },
    ],
  };
}

/** A joint of one's own at the end of a new member that leaves `from` by `by`. */
export function branchOff(
  build: Build,
  armature: Armature,
  from: string,
  by: Vec3,
  stock: StockText,
  masses: readonly string[],
): BuildEdit {
  const taken = idsOf(armature);
  const node = freeName(taken, 'own/joint'),
    member = freeName(taken, 'own/member');
  const at = armature.nodes.find((n) => n.id === from)?.at ?? [0, 0, 0];
  const end = add(at, by);
  const { nodes, bones, members } = build.armature.added;
  const name = `member ${member.replace(/^.*-/, '')} of your own`;
  return {
    label: 'A member branches off',
    changes: [
      { path: ['armature', 'added', 'nodes', nodes.length], value: { id: node, at: list(end), held: false } },
      {
        path: ['armature', 'added', 'bones', bones.length],
        value: { id: member, name, from, to: node, masses: [...masses], joinFrom: 'bound-glued', joinTo: 'welded' },
      },
      {
        path: ['armature', 'added', 'members', members.length],
        value: {
          id: member,
          name,
          ...stock,
          path: [list(at), list(end)],
          bones: [member],
          allowances: [
            { what: 'bound along the other wire', length: 0.04 },
            { what: 'end loop', length: 0.03 },
          ],
        },
      },
    ],
  };
}

/** Takes a member away, or a joint with the bones that meet there. Bones stay where only their wire goes. */
export function removePart(build: Build, armature: Armature, id: string, kind: 'member' | 'joint'): BuildEdit {
  const { added } = build.armature;
  const name = armature.members.find((m) => m.id === id)?.name ?? id;
  const changes: Change[] = [];
  const drop = (part: 'nodes' | 'bones' | 'members', gone: (x: { readonly id: string }) => boolean) => {
    if (added[part].some(gone))
      changes.push({
        path: ['armature', 'added', part],
        value: added[part].filter((x: { readonly id: string }) => !gone(x)),
      });
  };
  const removed = new Set(build.armature.removed);
  if (kind === 'member') {
    if (added.members.some((m) => m.id === id)) {
      drop('members', (m) => m.id === id);
      drop('bones', (b) => b.id === id);
    } else removed.add(id);
  } else {
    const meeting = new Set(armature.bones.filter((b) => b.from === id || b.to === id).map((b) => b.id));
    // Wires that would run along nothing go with their bones.
    const served = armature.members
      .filter((m) => m.bones.length > 0 && m.bones.every((b) => meeting.has(b)))
      .map((m) => m.id);
    drop('nodes', (n) => n.id === id);
    drop('bones', (b) => meeting.has(b.id));
    drop('members', (m) => served.includes(m.id));
    for (const gone of [id, ...meeting, ...served]) if (!isOwn(build, gone)) removed.add(gone);
  }
  if (removed.size !== build.armature.removed.length)
    changes.push({ path: ['armature', 'removed'], value: [...removed] });
  return { label: `Taken away: ${kind === 'member' ? name : 'a joint'}`, changes };
}

function isOwn(build: Build, id: string): boolean {
  const { nodes, bones, members } = build.armature.added;
  return [...nodes, ...bones, ...members].some((x) => x.id === id);
}

/** Everything the school makes is there again; parts of one's own stay. */
export function bringBack(): BuildEdit {
  return { label: 'Parts taken away are back', changes: [{ path: ['armature', 'removed'], value: [] }] };
}

/** Sets a member's stock, strands and splint from what was written. */
export function setStock(build: Build, member: Member, stock: StockText): BuildEdit {
  const own = build.armature.added.members.findIndex((m) => m.id === member.id);
  const at = own >= 0 ? ['armature', 'added', 'members', own] : ['armature', 'edits', member.id];
  return {
    label: `${member.name}: other stock`,
    changes: Object.entries(stock).map(([k, value]): Change => ({ path: [...at, k], value })),
  };
}

/** A joint in words, from its id. */
export function jointName(id: string): string {
  const short = id
    .replace(/^[a-z]+\//, '')
    .replace(/\/cut-(\d+)$/, ', cut $1')
    .replace(/\//g, ', ')
    .replaceAll('-', ' ');
  return short === '' ? id : short;
}
