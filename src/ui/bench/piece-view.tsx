'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { formatDuration, formatLength, scale, type UnitSystem, type Vec3 } from '../../core/quantity';
import type { Report } from '../../core/evaluate';
import type { Picture } from '../../workers/protocol';
import type { Shows } from './shows';
import { moistureShare } from '../stations/drying/moisture';
import type { DryFace } from './controller';
import { useBench, useController } from './context';
import { partingKey } from './mould-work';
import { useMould } from './use-mould';
import type { Grip } from './shaping-hands';
import { coverColour, loadColour, moistureColour, plentyOfCover, rampCss } from './ramp';
import type { PieceViewer, Sagged, ViewName } from './viewer';
import { faceColours, frameAt, sectionOf } from './whole-picture';

const views: readonly { id: ViewName; name: string }[] = [
  { id: 'turn', name: 'Turn' },
  { id: 'front', name: 'Front' },
  { id: 'side', name: 'Side' },
  { id: 'top', name: 'Top' },
];

/** Sag is drawn so that it can be seen: a round factor that brings the largest to about a thirtieth of the height. */
function exaggeration(largest: number, height: number): number {
  const wanted = height / 30 / Math.max(largest, 1e-9);
  return [1, 2, 5, 10, 20, 50, 100, 200].filter((f) => f <= wanted).pop() ?? 1;
}

/** Of what is worn, where that is a cast its centre and not the piece's. */
const centreOfMounted = ({ mount, finished }: Report): Vec3 => (mount.kind === 'worn' ? mount.centre : finished.centre);

function saggedShape(report: Report, picture: Picture, stage: string): { sagged: Sagged | null; factor: number } {
  const check = report.lifeStages.find((m) => m.stage === stage);
  if (!check) return { sagged: null, factor: 1 };
  const largest = Math.max(0, ...Object.values(check.moves).map((d) => Math.hypot(...d)));
  if (largest < 2e-5) return { sagged: null, factor: 1 };
  const factor = exaggeration(largest, report.size.height);
  const place = new Map(picture.armature.nodes.map((n) => [n.id, n.at]));
  const moved = (id: string): Vec3 => {
    const at = place.get(id) ?? [0, 0, 0];
    const d = check.moves[id] ?? [0, 0, 0];
    return [at[0] + d[0] * factor, at[1] + d[1] * factor, at[2] + d[2] * factor];
  };
  return { sagged: { bones: picture.armature.bones.map((b) => ({ from: moved(b.from), to: moved(b.to) })) }, factor };
}

function memberColours(
  report: Report,
  picture: Picture,
  stage: string,
  evening: boolean,
): Map<string, [number, number, number]> {
  const check = report.lifeStages.find((m) => m.stage === stage);
  const byBone = new Map(check?.bones.map((b) => [b.bone, b.utilisation]));
  return new Map(
    picture.armature.members.map((m) => [
      m.id,
      loadColour(Math.max(0, ...m.bones.map((b) => byBone.get(b) ?? 0)), evening),
    ]),
  );
}

function formColours(report: Report, picture: Picture, time: number): [number, number, number][] {
  const byMass = new Map(report.regions.flatMap((r) => r.masses.map((m) => [m, moistureShare(r, time)] as const)));
  return picture.masses.map((m) => moistureColour(byMass.get(m.id) ?? 0));
}

function Key({
  shows,
  factor,
  time,
  evening,
  cover,
  units,
  face,
}: {
  shows: Shows;
  factor: number;
  time: number;
  evening: boolean;
  cover: boolean;
  units: UnitSystem;
  face: DryFace;
}) {
  if (cover) {
    return (
      <div className="key" aria-hidden="true">
        From the face to the nearest member
        <div className="ramp" style={{ background: rampCss('cover') }} />
        <div className="row-of">
          {[0, 0.5, 1].map((s) => (
            <span key={s}>
              {s === 1 ? 'over ' : ''}
              {formatLength(s * plentyOfCover, units)}
            </span>
          ))}
        </div>
      </div>
    );
  }
  if (shows === 'load') {
    return (
      <div className="key" aria-hidden="true">
        Carried, of what it can bear
        <div className="ramp" style={{ background: rampCss('load', evening) }} />
        <div className="row-of">
          <span>0</span>
          <span>0.6</span>
          <span>1</span>
          <span>1.5</span>
        </div>
        <div className="muted mt-1">
          Dashed: the bones as they sag{factor > 1 ? `, drawn ${factor} times` : ''}. Dot: centre of gravity.
        </div>
      </div>
    );
  }
  if (shows === 'drying' && face === 'crack') {
    return (
      <div className="key" aria-hidden="true">
        Crack index of the face
        <div className="ramp" style={{ background: rampCss('load') }} />
        <div className="row-of">
          <span>0</span>
          <span>0.6</span>
          <span>1</span>
          <span>1.5</span>
        </div>
      </div>
    );
  }
  if (shows === 'drying' && face === 'hold') {
    return (
      <div className="key" aria-hidden="true">
        {formatDuration(time)} on a hand
        <div className="row-of">
          <span>
            <i className="chip held" /> may hold
          </span>
          <span>
            <i className="chip soft" /> leaves its mark
          </span>
        </div>
      </div>
    );
  }
  if (shows === 'drying') {
    return (
      <div className="key" aria-hidden="true">
        Water still to leave, {formatDuration(time)} on
        <div className="ramp" style={{ background: rampCss('moisture') }} />
        <div className="row-of">
          <span>dry</span>
          <span>half</span>
          <span>as laid</span>
        </div>
      </div>
    );
  }
  return null;
}

const grips: readonly { id: Grip; name: string }[] = [
  { id: 'move', name: 'Move it' },
  { id: 'turn', name: 'Turn it' },
  { id: 'stretch', name: 'Stretch it' },
];

export default function PieceView({ dark, shows }: { dark: boolean; shows: Shows }) {
  const controller = useController();
  const canvas = useRef<HTMLCanvasElement>(null);
  const viewer = useRef<PieceViewer | null>(null);
  const [ready, setReady] = useState(false);
  const [broken, setBroken] = useState(false);
  const view = useBench((s) => s.view);
  const references = useBench((s) => s.build.references);
  const [cut, setCut] = useState<number | null>(null);
  const picture = useBench((s) => s.picture);
  const report = useBench((s) => s.report);
  const stage = useBench((s) => s.lifeStage);
  const dryTime = useBench((s) => s.dryTime);
  const units = useBench((s) => s.units);
  const props = useBench((s) => s.build.armature.props);
  const build = useBench((s) => s.build);
  const selected = useBench((s) => s.selected);
  // A joint of a mesh can be moved within it, and like any other it is turned: that first, for posing is what it is for.
  const meshJoint =
    selected?.kind === 'joint' &&
    build.form.added.some(
      (m) => m.shape.kind === 'sampled' && m.shape.limbs && selected.id.startsWith(`${m.id.replaceAll('/', '-')}/`),
    );
  const pickedJoint = useBench((s) => s.pickedJoint);
  const [massGrip, setMassGrip] = useState<Grip>('move');
  const [jointGrip, setJointGrip] = useState<Grip>('turn');
  const grip = selected?.kind === 'joint' ? jointGrip : massGrip;
  const [guides, setGuides] = useState(true);
  const [covered, setCovered] = useState(false);
  const [beside, setBeside] = useState(false);
  useEffect(() => {
    if (ready && picture) viewer.current?.setScaleFigure(beside);
  }, [ready, picture, beside, dark]);
  const cover = useBench((s) => s.cover);
  const showCover =
    covered &&
    (shows === 'form' || shows === 'armature') &&
    cover !== null &&
    picture !== null &&
    cover.key === picture.key;
  const [hands, setHands] = useState<typeof import('./gestures') | null>(null);
  const gestures = useMemo(() => hands?.gesturesOn(controller) ?? null, [hands, controller]);

  useEffect(() => {
    let gone = false;
    void Promise.all([import('./viewer'), import('./gestures')]).then(([{ PieceViewer }, own]) => {
      if (gone || !canvas.current) return;
      try {
        setHands(own);
        viewer.current = new PieceViewer(canvas.current);
        setReady(true);
      } catch {
        setBroken(true);
      }
    });
    return () => {
      gone = true;
      viewer.current?.dispose();
      viewer.current = null;
    };
  }, []);
  useEffect(() => viewer.current?.setTheme(dark), [dark, ready]);
  useEffect(() => viewer.current?.setUnits(units), [units, ready]);
  useEffect(() => {
    if (ready && picture) viewer.current?.setPicture(picture);
  }, [ready, picture]);
  useEffect(() => viewer.current?.setView(view), [view, ready]);
  useEffect(() => {
    if (ready && picture) viewer.current?.setReferences(references.filter((r) => r.shown && r.view === view));
  }, [ready, picture, references, view]);
  const whole = useBench((s) => s.whole.whole);
  const section = useBench((s) => s.section);
  const dryFace = useBench((s) => s.dryFace);
  const probes = useBench((s) => s.probes);
  const picking = useBench((s) => s.picking);
  const damageAt = useBench((s) => s.damageAt);
  const spots = useMemo(
    () => build.mould.keepFree.spots.map((p): Vec3 => scale(p.at, build.form.start.size)),
    [build.mould.keepFree.spots, build.form.start.size],
  );
  const shownWhole = shows === 'drying' ? whole : null;
  const frame = shownWhole ? frameAt(shownWhole, dryTime) : 0;
  const wholeFace = useMemo(
    () => (shownWhole && picture ? faceColours(shownWhole, frame, picture, dryFace) : null),
    [shownWhole, picture, frame, dryFace],
  );
  useEffect(() => {
    if (!ready || !picture) return;
    if (shows === 'drying')
      viewer.current?.setSection(
        shownWhole && section ? sectionOf(shownWhole, frame, section.axis, section.share) : null,
      );
    else {
      viewer.current?.setSection(null);
      viewer.current?.setCut(cut);
    }
  }, [ready, picture, shows, shownWhole, frame, section, cut, view]);
  useEffect(() => {
    if (ready && picture)
      viewer.current?.setProbes(
        shows === 'drying' ? probes : shows === 'mould' ? spots : shows === 'damage' && damageAt ? [damageAt] : [],
      );
  }, [ready, picture, shows, probes, spots, damageAt, dark]);
  useEffect(() => {
    const wanted =
      (shows === 'drying' && picking === 'probe') ||
      (shows === 'clay' && picking === 'paint') ||
      (shows === 'mould' && picking === 'no-seam') ||
      (shows === 'damage' && picking === 'damage');
    if (ready && picture) viewer.current?.setTouch(wanted ? (at) => controller.touchPiece(at) : null);
  }, [ready, picture, shows, picking, controller]);
  const shape =
    report && picture && shows === 'load' ? saggedShape(report, picture, stage) : { sagged: null, factor: 1 };
  useEffect(() => {
    if (!ready || !picture || !report) return;
    viewer.current?.setColours({
      members: shows === 'load' ? memberColours(report, picture, stage, dark) : null,
      form: shows === 'drying' && !wholeFace ? formColours(report, picture, dryTime) : null,
      face: wholeFace ?? (showCover && cover ? Array.from(cover.values, coverColour) : null),
      solid: shows === 'mould',
    });
    const at = new Map(picture.armature.nodes.map((n) => [n.id, n.at]));
    const stance = report.stances.find((s) => s.stage === stage) ?? report.stance;
    viewer.current?.setMarks({
      centre: shows === 'load' ? stance.centre : shows === 'move' ? centreOfMounted(report) : null,
      props: props.map((p) => at.get(p.node)).filter((p): p is Vec3 => p !== undefined),
      sagged: shows === 'load' ? saggedShape(report, picture, stage).sagged : null,
    });
  }, [ready, picture, report, shows, stage, dryTime, props, dark, showCover, cover, wholeFace]);

  useEffect(() => {
    if (!ready || !picture || !hands || !gestures) return;
    const form = shows === 'form' ? hands.formOf(build) : null;
    viewer.current?.setShaping(form ? { form, picked: selected, grip } : null, gestures);
    viewer.current?.setGuides(form && guides ? form.landmarks : []);
  }, [ready, picture, shows, build, selected, grip, hands, gestures, guides, dark]);

  const jointGestures = useMemo(() => hands?.jointGesturesOn(controller) ?? null, [hands, controller]);
  useEffect(() => {
    if (ready && picture && jointGestures)
      viewer.current?.setJoints(shows === 'armature' ? picture.armature : null, pickedJoint, jointGestures);
  }, [ready, picture, shows, pickedJoint, jointGestures, dark]);
  const mounted = shows === 'move' ? build.armature.mount : null;
  useEffect(() => {
    if (!ready || !picture) return;
    const ofCast = report !== null && 'ofCast' in report.mount && report.mount.ofCast;
    viewer.current?.setMount(mounted, report && centreOfMounted(report), ofCast);
  }, [ready, picture, report, mounted, dark]);

  const parted = useMould((s) => s.parted);
  const partedOf = useMould((s) => s.of);
  const opened = useMould((s) => s.open);
  // A parting of what the piece no longer is lies beside it.
  const mould = shows === 'mould' && picture && partedOf === partingKey(build, picture.formKey) ? parted : null;
  useEffect(() => {
    if (ready && picture) viewer.current?.setMould(mould, opened);
  }, [ready, picture, mould, opened, dark]);

  const turnBy = (event: React.KeyboardEvent) => {
    const act: Record<string, () => void> = {
      ArrowLeft: () => viewer.current?.turn(-0.2),
      ArrowRight: () => viewer.current?.turn(0.2),
      '+': () => viewer.current?.zoom(1.15),
      '=': () => viewer.current?.zoom(1.15),
      '-': () => viewer.current?.zoom(1 / 1.15),
    };
    const nudges: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const way = nudges[event.key];
    const far = event.shiftKey ? 5 : 1;
    if (way && viewer.current?.nudge(way[0] * far, way[1] * far)) {
      event.preventDefault();
      return;
    }
    const found = act[event.key];
    if (!found) return;
    found();
    event.preventDefault();
  };
  return (
    <div className="view">
      {/* The picture says nothing that the tables do not; its keys turn and zoom it. */}
      <canvas
        ref={canvas}
        tabIndex={0}
        role="img"
        onKeyDown={turnBy}
        aria-label={`${controller.state.build.name} on its turntable. Left and right turn it, plus and minus zoom. The tables beside it say the same.`}
      />
      {!picture && !broken && <div className="wait">Setting it on the turntable …</div>}
      {broken && <div className="wait">This browser cannot draw in three dimensions; the tables hold everything.</div>}
      <div className="hands" role="toolbar" aria-label="View">
        {views.map((v) => (
          <Button
            key={v.id}
            size="sm"
            variant="quiet"
            active={view === v.id}
            aria-pressed={view === v.id}
            onClick={() => {
              controller.lookFrom(v.id);
              viewer.current?.setView(v.id);
            }}
          >
            {v.name}
          </Button>
        ))}
        {!shownWhole && (
          <Button
            size="sm"
            variant="quiet"
            active={cut !== null}
            aria-pressed={cut !== null}
            onClick={() => setCut(cut === null ? 0.5 : null)}
          >
            Cut
          </Button>
        )}
        <Button
          size="sm"
          variant="quiet"
          active={beside}
          aria-pressed={beside}
          onClick={() => setBeside(!beside)}
          title="A hand or a person beside it"
        >
          For scale
        </Button>
        {(shows === 'form' || shows === 'armature') && (
          <Button
            size="sm"
            variant="quiet"
            active={covered}
            aria-pressed={covered}
            onClick={() => setCovered(!covered)}
          >
            Cover
          </Button>
        )}
        {shows === 'form' && (
          <>
            <Button size="sm" variant="quiet" active={guides} aria-pressed={guides} onClick={() => setGuides(!guides)}>
              Proportions
            </Button>
            {(selected?.kind === 'mass' || meshJoint) &&
              (meshJoint ? grips.filter((g) => g.id !== 'stretch') : grips).map((g) => (
                <Button
                  key={g.id}
                  size="sm"
                  variant="quiet"
                  active={grip === g.id}
                  aria-pressed={grip === g.id}
                  onClick={() => (meshJoint ? setJointGrip(g.id) : setMassGrip(g.id))}
                >
                  {g.name}
                </Button>
              ))}
          </>
        )}
      </div>
      {cut !== null && !shownWhole && (
        <div className="cut">
          <label htmlFor="cut-depth">Cut away from the front</label>
          <Form.Range
            id="cut-depth"
            min={0}
            max={1}
            step={0.02}
            value={cut}
            onChange={(e) => setCut(Number(e.target.value))}
          />
        </div>
      )}
      <Key
        shows={shows}
        factor={shape.factor}
        time={dryTime}
        evening={dark}
        cover={showCover}
        units={units}
        face={shownWhole ? dryFace : 'moisture'}
      />
    </div>
  );
}
