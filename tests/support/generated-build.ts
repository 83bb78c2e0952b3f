import { newBust, type Build, type BuildEdit } from '../../src/core/document';
import { seeded } from '../../src/core/quantity';

/** A bust with a headdress: 60 masses and 200 members in all, in branching chains off the crown and the shoulders. */
export function largeBuild(seed = 1, masses = 60, members = 200): Build {
  const random = seeded(seed);
  const base = newBust('Headdress', '2026-12-01');
  const ownMasses = 6,
    ownMembers = 6;
  const added: Build['armature']['added'] = { nodes: [], bones: [], members: [] };
  const extra: Build['form']['added'] = [];
  const tips: { id: string; at: [number, number, number] }[] = [
    { id: 'stuffed/crown', at: [0, -0.03, 0.49] },
    { id: 'stuffed/skull', at: [0, -0.03, 0.42] },
  ];
  for (let i = 0; i < members - ownMembers; i++) {
    const from = tips[Math.floor(random() * tips.length)]!;
    const step = () => (random() - 0.5) * 0.05;
    const at: [number, number, number] = [
      from.at[0] + step(),
      from.at[1] + step(),
      from.at[2] + 0.008 + random() * 0.02,
    ];
    const id = `tip-${i}`;
    added.nodes.push({ id, at, held: false });
    const mass = extra[i % Math.max(1, extra.length)];
    added.bones.push({
      id: `bone-${i}`,
      name: `branch ${i}`,
      from: from.id,
      to: id,
      masses: mass && i % 3 === 0 ? [mass.id] : [],
      joinFrom: 'bound-glued',
      joinTo: 'welded',
    });
    added.members.push({
      id: `wire-${i}`,
      name: `wire ${i}`,
      stock: 'aluminium-annealed',
      size: i % 2 ? '3mm' : '4mm',
      strands: 2,
      bonded: false,
      path: [from.at, at],
      bones: [`bone-${i}`],
      allowances: [],
    });
    tips.push({ id, at });
    if (extra.length < masses - ownMasses) {
      extra.push({
        id: `curl-${extra.length}`,
        name: `curl ${extra.length}`,
        region: 'head',
        at,
        turn: [random() * 90, random() * 90, 0],
        blend: 0.008,
        shape: {
          kind: 'ellipsoid',
          radii: [0.012 + random() * 0.02, 0.012 + random() * 0.015, 0.012 + random() * 0.025],
        },
      });
    }
  }
  return { ...base, form: { ...base.form, added: extra }, armature: { ...base.armature, added } };
}

/** A bust drawn from the whole of what the bench allows, some of it foolish. */
export function randomBust(seed: number): Build {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const base = newBust(`Bust ${seed}`, '2026-12-01', 0.4 + random() * 0.8);
  return {
    ...base,
    brief: {
      ...base.brief,
      clay: pick([
        'paper-clay',
        'earthen-air-dry',
        'foam-air-dry',
        'cold-porcelain',
        'epoxy-clay',
        'water-based',
        'oil-medium',
      ]),
      situation: pick(['bench', 'moved', 'worn']),
      deadline: pick([null, '2026-12-06', '2027-01-10']),
      limits: { weight: pick([null, 3, 8]), crack: 1, tipAngle: pick([10, 15, 40]) },
    },
    room: {
      ...base.room,
      temperature: 10 + random() * 20,
      relativeHumidity: 0.3 + random() * 0.5,
      airSpeed: pick([0.1, 0.5, 1.5]),
    },
    form: {
      ...base.form,
      start: { ...base.form.start, measures: { headForward: random() * 0.12, neckLength: 0.04 + random() * 0.08 } },
    },
    armature: {
      ...base.armature,
      school: {
        kind: 'stuffed',
        parameters: {
          bulk: pick(['paper-loose', 'paper-firm', 'foil-packed', 'polystyrene-extruded', 'none']),
          wrap: pick(['none', 'tape', 'twine']),
          frameSize: pick(['1.5mm', '2mm', '4mm']),
          shoulderSize: pick(['1.5mm', '2mm', '4mm']),
          shoulderStrands: pick([1, 2]),
        },
      },
    },
    regions: {
      painted: [],
      seams: [],
      everywhere: { coats: [0.004 + random() * 0.016] },
      own: random() < 0.4 ? { head: { coats: [0.006, 0.005] } } : {},
    },
    materials: { ...base.materials, waterWorkedIn: pick([0, 0, 0.1]) },
  };
}

/** Ten kinds of change a person makes, for the benchmark. `i` varies the value so that nothing is remembered. */
export const editKinds: readonly { readonly name: string; readonly edit: (i: number) => BuildEdit }[] = [
  {
    name: 'clay',
    edit: (i) => set(['brief', 'clay'], ['earthen-air-dry', 'paper-clay', 'foam-air-dry', 'epoxy-clay'][i % 4]),
  },
  { name: 'size', edit: (i) => set(['form', 'start', 'size'], 0.9 + (i % 20) * 0.01) },
  { name: 'thickness', edit: (i) => set(['regions', 'everywhere', 'coats'], [0.008 + (i % 30) * 0.0002]) },
  {
    name: 'head wire',
    edit: (i) => set(['armature', 'edits', 'stuffed/loop-front', 'size'], ['2mm', '3mm', '4mm', '4.8mm'][i % 4]),
  },
  {
    name: 'bulk',
    edit: (i) =>
      set(['armature', 'school', 'parameters', 'bulk'], ['paper-loose', 'paper-firm', 'foil-firm', 'none'][i % 4]),
  },
  { name: 'temperature', edit: (i) => set(['room', 'temperature'], 14 + (i % 40) * 0.3) },
  { name: 'humidity', edit: (i) => set(['room', 'relativeHumidity'], 0.35 + (i % 40) * 0.01) },
  { name: 'water worked in', edit: (i) => set(['materials', 'waterWorkedIn'], (i % 40) * 0.005) },
  { name: 'a mass moved', edit: (i) => set(['form', 'added', 3, 'at'], [0.02 + i * 0.0004, -0.03, 0.52]) },
  { name: 'a measure', edit: (i) => set(['form', 'start', 'measures', 'headForward'], 0.02 + (i % 40) * 0.001) },
];

function set(path: readonly (string | number)[], value: unknown): BuildEdit {
  return { label: String(path[path.length - 1]), changes: [{ path, value }] };
}
