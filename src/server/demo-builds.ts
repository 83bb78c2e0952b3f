import { newBust, type Build } from '../core/document';
import { startBuild } from '../core/school';

/** The Lamplighter: the made-up Compagnia del Faro's bust for the foyer of its made-up Festa del Porto. */
export function lamplighter(startDate: string, deadline: string | null): Build {
  const base = newBust('The Lamplighter', startDate);
  return {
    ...base,
    brief: {
      ...base.brief,
      deadline,
      hoursPerWeek: 10,
      limits: { weight: 8, crack: 1, tipAngle: 15 },
      note: 'Bust of the old lamplighter for the foyer of the Festa del Porto. He looks down at the boats, so the head hangs well forward.',
    },
    room: { ...base.room, temperature: 19, relativeHumidity: 0.55 },
    form: {
      ...base.form,
      start: { kind: 'bust', size: 1, measures: { headForward: 0.09, neckGirth: 0.365, shoulderBreadth: 0.41 } },
    },
    armature: {
      ...base.armature,
      school: { kind: 'stuffed', parameters: { frameSize: '4.8mm', shoulderSize: '4.8mm', shoulderStrands: 3 } },
    },
    regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: { chest: { coats: [0.012] } } },
    materials: { ...base.materials, pack: { mass: 1, price: 4.5 }, waste: 0.1 },
    plan: { ...base.plan, active: true, people: ['first-hand'] },
  };
}

type Measures = Build['form']['start']['measures'];

function started(
  name: string,
  startDate: string,
  kind: string,
  size: number,
  measures: Measures,
  change: (b: Build) => Build,
): Build {
  const made = startBuild(name, startDate, kind, size);
  if (!made.ok) throw new Error(`demo ${name}: ${made.path} ${made.message}`);
  return change({ ...made.value, form: { ...made.value.form, start: { kind, size, measures } } });
}

const noted =
  (note: string, deadline: string | null, more: Partial<Build['brief']> = {}) =>
  (b: Build): Build => ({ ...b, brief: { ...b.brief, note, deadline, ...more } });

/** A deliberately bad build: foil arms held out with no wire in them, and epoxy clay swapped in late for paper clay. */
function netThatFailed(startDate: string, deadline: string): Build {
  return started('The net that failed', startDate, 'figure', 0.3, {}, (b) => ({
    ...noted(
      'A fisherman holding up his net. The arms were foil alone, and then the paper clay was swapped for epoxy the night before: both came down. Kept to learn from.',
      deadline,
      { clay: 'epoxy-clay' },
    )(b),
    form: { ...b.form, pose: { 'shoulder-left': { turned: [-82, 0, 14] }, 'elbow-left': { turned: [-8, 0, 0] } } },
    regions: { painted: [], seams: [], everywhere: { coats: [0.005] }, own: {} },
    armature: { ...b.armature, removed: ['limb/wire-shoulder-left', 'limb/wire-shoulder-right'] },
  }));
}

/** The rest of the Festa's pieces, each by the school it is really made by. */
export function otherDemoBuilds(startDate: string, deadline: string): Build[] {
  return [
    started(
      'Otter mask',
      startDate,
      'mask',
      1,
      { cover: 'full', muzzle: 0.06, muzzleBreadth: 0.105, brow: 0.014, cheeks: 0.022, ears: true, headGirth: 0.565 },
      noted(
        'Master for a latex mask of the harbour otter, built out over a life form to the wearer’s girths. Kept damp until the mould is on.',
        null,
      ),
    ),
    started(
      'Walrus',
      startDate,
      'long-neck',
      1,
      {
        headLength: 1.05,
        headBreadth: 0.86,
        headHeight: 0.94,
        neckLength: 0.5,
        neckThick: 0.46,
        neckRise: 30,
        neckBend: 26,
        muzzle: 0.22,
        footHeight: 0.62,
      },
      (b) => ({
        ...noted(
          'Head for the parade float, hung out in front of its frame. Oil-based clay over stacked foam under wire mesh.',
          deadline,
          {
            situation: 'moved',
            travel: { ...b.brief.travel, doorWidth: 2.4, doorHeight: 2.2, vehicle: 'box-lorry', ramp: 8 },
          },
        )(b),
        form: {
          ...b.form,
          added: [
            {
              id: 'own/tusk-left',
              name: 'tusk, left',
              region: 'tusks',
              joint: 'head',
              at: [0.13, -1.36, 0.62],
              turn: [0, 0, 0],
              blend: 0.02,
              shape: { kind: 'round-cone', reach: [0.03, -0.1, -0.34], radiusFrom: 0.05, radiusTo: 0.018 },
            },
            {
              id: 'own/cheek-left',
              name: 'cheek with whiskers, left',
              region: 'muzzle',
              joint: 'head',
              at: [0.17, -1.34, 0.7],
              turn: [0, 0, 0],
              blend: 0.06,
              shape: { kind: 'ellipsoid', radii: [0.2, 0.17, 0.16] },
            },
          ],
        },
        regions: { painted: [], seams: [], everywhere: { coats: [0.012] }, own: {} },
        armature: {
          ...b.armature,
          school: {
            kind: 'board-foam-mesh',
            parameters: {
              standing: 'casters',
              boardSize: '24mm',
              beamSize: '50x3mm',
              beamStrands: 2,
              hoopSize: '8mm',
              screwDiameter: 0.01,
              screwLength: 0.024,
              ballast: 40,
              ballastBack: 0.5,
            },
          },
        },
      }),
    ),
    started(
      'Whelk pauldron',
      startDate,
      'worn-shell',
      1,
      { sits: 'shoulder', breadth: 0.19, depth: 0.24, height: 0.12, ridges: 5, ridgeHeight: 0.008, spike: 0.07 },
      (b) => ({
        ...noted(
          'Shoulder piece of the whelk captain, worn for three hours. Epoxy clay over foil that is pulled out when it is hard.',
          deadline,
        )(b),
        armature: {
          ...b.armature,
          mount: {
            kind: 'worn',
            where: 'shoulder',
            hours: 3,
            watchFrom: null,
            failsFrom: null,
            straps: [
              { id: 'neck', name: 'strap to the neck', at: [-0.08, 0, 0.15] },
              { id: 'front', name: 'strap across the chest', at: [0.02, -0.11, 0.13] },
              { id: 'back', name: 'strap across the back', at: [0.02, 0.11, 0.13] },
            ],
          },
        },
      }),
    ),
    started('Acrobats', startDate, 'figure', 0.18, { stance: 'balancing' }, (b) => ({
      ...noted(
        'One of the class set of twenty-four: a figure balancing on the quay wall, wire and foil in plaster gauze under paper clay.',
        deadline,
        { hoursPerWeek: 3 },
      )(b),
      armature: { ...b.armature, school: { kind: 'wire-figure', parameters: { wrap: 'gauze' } } },
      regions: { painted: [], seams: [], everywhere: { coats: [0.0015, 0.0015] }, own: {} },
      plan: {
        ...b.plan,
        classSet: {
          people: 24,
          groups: 3,
          minutes: 90,
          pace: 1.6,
          sessions: [
            { day: 0, from: 960 },
            { day: 1, from: 960 },
            { day: 3, from: 960 },
          ],
        },
      },
    })),
    started(
      'Coral candelabrum',
      startDate,
      'branching',
      1,
      { height: 0.62, trunk: 0.065, branches: 5, tips: 3, spread: 38, seed: 21 },
      (b) => ({
        ...noted('Branching piece for the long table, dried in three sections.', deadline)(b),
        armature: {
          ...b.armature,
          school: { kind: 'branching', parameters: { wireSize: '4mm', bulk: 'foil-packed' } },
        },
        regions: { ...b.regions, everywhere: { coats: [0.006] } },
        stages: { ...b.stages, apart: true },
        plan: { ...b.plan, active: true, people: ['first-hand', 'second-hand'] },
      }),
    ),
    started('Harbour master', startDate, 'head', 1, { headForward: 0.01, nose: 0.03, ears: 0.065 }, (b) => ({
      ...noted('Head in foam-type clay over a foam form, to be lifted off and dried from both faces.', deadline, {
        clay: 'foam-air-dry',
      })(b),
      regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: {} },
      armature: {
        ...b.armature,
        school: { kind: 'shell', parameters: { bulk: 'polystyrene-extruded', wrap: 'none' } },
      },
      // Ears and nose dry first: they are kept wrapped until the rest has caught up.
      room: { ...b.room, covers: [{ kind: 'loose-plastic', from: 0, until: 24, regions: ['features'] }] },
      stages: { ...b.stages, lift: { when: 'hours', hours: 12 } },
    })),
    netThatFailed(startDate, deadline),
  ];
}
