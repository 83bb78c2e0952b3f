import { applyEdit, type Build } from '../core/document';
import { findStartForm } from '../core/form';
import { takeMould, type CastId, type MouldKindId } from '../core/mould';
import { startBuild } from '../core/school';

/** The Lamplighter: the made-up Compagnia del Faro's bust for the foyer of its made-up Festa del Porto. */
export function lamplighter(startDate: string, deadline: string | null): Build {
  return started(
    'The Lamplighter',
    startDate,
    'bust',
    1,
    typed('bust', 'old-man', { headForward: 0.09, shoulderBreadth: 0.41 }),
    (b) => ({
      ...b,
      brief: {
        ...b.brief,
        deadline,
        hoursPerWeek: 10,
        limits: { weight: 8, crack: 1, tipAngle: 15 },
        note: 'Bust of the old lamplighter for the foyer of the Festa del Porto. He looks down at the boats, so the head hangs well forward.',
      },
      room: { ...b.room, temperature: 19, relativeHumidity: 0.55 },
      form: { ...b.form, pose: { head: { turned: [16, 0, 6] } } },
      armature: {
        ...b.armature,
        school: { kind: 'stuffed', parameters: { frameSize: '6mm', shoulderSize: '4.8mm', shoulderStrands: 3 } },
      },
      regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: { chest: { coats: [0.012] } } },
      materials: { ...b.materials, waste: 0.1 },
      plan: { ...b.plan, active: true, people: ['first-hand'] },
    }),
  );
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
  return change({ ...made.value, form: { ...made.value.form, start: { ...made.value.form.start, measures } } });
}

/** A type's measures with some of one's own in their place. */
function typed(kind: string, type: string, own: Measures = {}): Measures {
  const measures = findStartForm(kind)?.types?.find((t) => t.id === type)?.measures;
  if (!measures) throw new Error(`demo: there is no ${type} among the ${kind}s`);
  return { ...measures, ...own };
}

const noted =
  (note: string, deadline: string | null, more: Partial<Build['brief']> = {}) =>
  (b: Build): Build => ({ ...b, brief: { ...b.brief, note, deadline, ...more } });

/** With a mould taken of it, and this cast in that. */
function moulded(build: Build, kind: MouldKindId, cast: CastId, own: Partial<Build['mould']> = {}): Build {
  const taken = applyEdit(build, takeMould(build, kind));
  if (!taken.ok) throw new Error(`demo ${build.name}: ${taken.path} ${taken.message}`);
  return { ...taken.value, mould: { ...taken.value.mould, cast, casts: 1, ...own } };
}

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
    started('Otter mask', startDate, 'mask', 1, typed('mask', 'otter', { headGirth: 0.565 }), (b) =>
      moulded(
        noted(
          'Master for a latex mask of the harbour otter, built out over a life form to the wearer’s girths. Kept damp until the mould is on.',
          null,
        )(b),
        'plaster-parts',
        'latex-skin',
      ),
    ),
    started('Otter paws', startDate, 'hand', 1, typed('hand', 'paws'), (b) =>
      moulded(
        noted(
          'Masters for the paws of the otter puppets, a left and a right side by side: oil-based clay on foil and wire. Three pairs are cast hollow in resin.',
          deadline,
        )(b),
        'rubber-skin',
        'resin-hollow',
        { casts: 3, posture: 'lying' },
      ),
    ),
    started('Walrus', startDate, 'long-neck', 1, typed('long-neck', 'walrus', { fangs: 0.44 }), (b) =>
      moulded(
        {
          ...noted(
            'Head for the parade float, hung out in front of its frame. Oil-based clay over stacked foam under wire mesh.',
            deadline,
            {
              situation: 'moved',
              travel: { ...b.brief.travel, doorWidth: 2.4, doorHeight: 2.2, vehicle: 'box-lorry', ramp: 8 },
            },
          )(b),
          regions: { painted: [], seams: [], everywhere: { coats: [0.012] }, own: {} },
          plan: { ...b.plan, fineness: 'rough' },
          armature: {
            ...b.armature,
            school: {
              kind: 'board-foam-mesh',
              parameters: {
                standing: 'casters',
                boardSize: '24mm',
                beamSize: '50x3mm',
                beamStrands: 2,
                hoopSize: '10mm',
                screwDiameter: 0.01,
                screwLength: 0.024,
                ballast: 40,
                ballastBack: 0.5,
              },
            },
          },
        },
        'shim-halves',
        'latex-foam',
        { posture: 'lying' },
      ),
    ),
    started('Whelk pauldron', startDate, 'worn-shell', 1, typed('worn-shell', 'whelk', { height: 0.12 }), (b) => ({
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
    })),
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
        fineness: 'rough',
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
      { height: 0.62, trunk: 0.065, branches: 5, tips: 3, spread: 38, seed: 21, ends: 'cups', curve: 0.1 },
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
    started(
      'Harbour master',
      startDate,
      'head',
      1,
      { headForward: 0.01, nose: 0.028, brow: 0.009, years: 0.75, cheeks: 0.3, ears: 0.068 },
      (b) => ({
        ...noted('Head in foam-type clay over a foam form, to be lifted off and dried from both faces.', deadline, {
          clay: 'foam-air-dry',
        })(b),
        regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: { features: { coats: [0.007] } } },
        armature: {
          ...b.armature,
          school: { kind: 'shell', parameters: { bulk: 'polystyrene-extruded', wrap: 'none' } },
        },
        // Ears and nose dry first: they are kept wrapped until the rest has caught up.
        room: { ...b.room, covers: [{ kind: 'loose-plastic', from: 0, until: 24, regions: ['features'] }] },
        stages: { ...b.stages, lift: { when: 'hours', hours: 14 } },
      }),
    ),
    netThatFailed(startDate, deadline),
  ];
}
