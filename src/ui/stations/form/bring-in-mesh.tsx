'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form, Modal, ProgressBar } from 'react-bootstrap';
import {
  compose,
  largestMeshFile,
  meshUnits,
  rotationOf,
  thinnestKept,
  type MeshUnit,
  type Rotation,
} from '../../../core/form';
import { formatLength, formatVolume, parseLength, sensible, type UnitSystem, type Vec3 } from '../../../core/quantity';
import { bringIn } from '../../../core/school';
import { meshClient, type MeshClient } from '../../../workers/clients';
import type { MeshAnswer, MeshWay } from '../../../workers/protocol';
import { useBench, useController } from '../../bench/context';

/** Bringing a mesh in as a mass of the form: seen the right way up and at its size before it is taken. */
type Role = 'face' | 'core' | 'bare';
const roles: readonly { id: Role; name: string }[] = [
  { id: 'face', name: 'the finished face: clay inside it' },
  { id: 'core', name: 'an object inside: clay over it' },
  { id: 'bare', name: 'an object that stays bare' },
];
type Read = Extract<MeshAnswer, { kind: 'read' }>;

/** A grown hand from the wrist to the tip of its middle finger: what every maker has at hand to measure by. */
const hand = 0.19;

/** What is to be said of a mesh as it came, in sentences; `k`: metres to its unit. */
function remarks({ triangles, solid }: Read, k: number, units: UnitSystem): string[] {
  const { volume, openings, lumps } = solid;
  const litres = (v: number) => formatVolume(v * k ** 3, units);
  const length = (v: number) => formatLength(v * k, units);
  const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;
  const out = [
    volume.high - volume.low > 0.005 * volume.nominal
      ? `${many(triangles, 'triangle', 'triangles')}; it holds ${litres(volume.nominal)}, between ${litres(volume.low)} and ${litres(volume.high)}.`
      : `${many(triangles, 'triangle', 'triangles')}${solid.clean ? ', closed' : ''}; it holds ${litres(volume.nominal)}.`,
  ];
  const largest = openings[0];
  if (solid.filled > 0)
    out.push('It is a skin about a hollow: the hollow is counted as part of it, and its opening as closed.');
  else if (largest)
    out.push(
      `It is open in ${many(openings.length, 'place', 'places')}, the largest ${length(largest.round)} round: closed straight across.`,
    );
  if (solid.crowdedEdges > 0 || solid.doubled > 0)
    out.push('Faces cross or lie twice: what it takes up is counted once.');
  if (solid.facesTurned > 0) out.push(`${many(solid.facesTurned, 'face', 'faces')} turned the right way.`);
  if (solid.crumbs > 0) out.push(`${many(solid.crumbs, 'crumb', 'crumbs')} beside it left out.`);
  if (lumps.length > 1)
    out.push(
      `It is in ${lumps.length} pieces that do not touch, the second ${sensible(lumps[1]!.share * 100, 2)} % of it.`,
    );
  if (solid.unsure > 0.001) out.push(`Of ${sensible(solid.unsure * 100, 2)} % of it inside and outside are in doubt.`);
  return out;
}

function WayPicture({
  way,
  chosen,
  name,
  onChoose,
}: {
  way: MeshWay;
  chosen: boolean;
  name: string;
  onChoose: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { picture } = way;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(picture.rgba, picture.width, picture.height), 0, 0);
  }, [picture]);
  return (
    <label className={`way-up${chosen ? ' chosen' : ''}`}>
      <input type="radio" name="way-up" className="visually-hidden" checked={chosen} onChange={onChoose} />
      <canvas ref={canvas} width={picture.width} height={picture.height} aria-hidden="true" />
      <span>{name}</span>
    </label>
  );
}

const leans: readonly { name: string; about: Vec3 }[] = [
  { name: 'lean forward', about: [1, 0, 0] },
  { name: 'lean back', about: [-1, 0, 0] },
  { name: 'lean to its left', about: [0, 1, 0] },
  { name: 'lean to its right', about: [0, -1, 0] },
  { name: 'round to its left', about: [0, 0, 1] },
  { name: 'round to its right', about: [0, 0, -1] },
];

function TurnByHand({ turn, onTurn }: { turn: Rotation; onTurn: (turn: Rotation) => void }) {
  const [degrees, setDegrees] = useState(90);
  return (
    <div className="acts mb-2 align-items-center" role="group" aria-label="Turn it by hand">
      <Form.Select
        size="sm"
        aria-label="By how much"
        style={{ width: '5.5rem' }}
        value={degrees}
        onChange={(e) => setDegrees(Number(e.target.value))}
      >
        {[90, 15, 5, 1].map((d) => (
          <option key={d} value={d}>
            {d}°
          </option>
        ))}
      </Form.Select>
      {leans.map(({ name, about }) => (
        <Button
          key={name}
          size="sm"
          variant="quiet"
          onClick={() => onTurn(compose(rotationOf(about.map((v) => v * degrees) as unknown as Vec3), turn))}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}

/** Heights side by side: the mesh, a hand, and the form that is there. */
function BesideAHand({ height, now, units }: { height: number; now: number | null; units: UnitSystem }) {
  const bars = [
    { name: 'this mesh', height },
    { name: 'a hand', height: hand },
    ...(now === null ? [] : [{ name: 'the form now', height: now }]),
  ];
  const most = Math.max(...bars.map((b) => b.height));
  return (
    <div
      className="heights"
      role="img"
      aria-label={bars.map((b) => `${b.name} ${formatLength(b.height, units)}`).join(', ')}
    >
      {bars.map((b) => (
        <div key={b.name}>
          <i style={{ height: `${Math.max(0.1, (6 * b.height) / most)}rem` }} />
          <span>
            {b.name}
            <br />
            {formatLength(b.height, units)}
          </span>
        </div>
      ))}
    </div>
  );
}

export default function BringInMesh() {
  const controller = useController();
  const units = useBench((s) => s.units);
  const now = useBench((s) => s.report?.size.height ?? null);
  const file = useRef<HTMLInputElement>(null);
  const client = useRef<MeshClient | null>(null);
  const [name, setName] = useState('');
  const [busy, setBusy] = useState<{ what: string; share: number } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [read, setRead] = useState<Read | null>(null);
  const [byHand, setByHand] = useState<MeshWay | null>(null);
  const [chosen, setChosen] = useState<number | 'by hand'>(0);
  const [unit, setUnit] = useState<MeshUnit>('mm');
  const [height, setHeight] = useState('');
  const [role, setRole] = useState<Role>('face');
  const [alone, setAlone] = useState(true);
  const [fillHollow, setFillHollow] = useState(true);
  const [limbs, setLimbs] = useState(true);
  const wanted = useRef({ role, alone, name });
  wanted.current = { role, alone, name };
  const close = () => {
    client.current?.stop();
    client.current = null;
    setBusy(null);
    setRead(null);
    setWrong(null);
    setByHand(null);
    if (file.current) file.current.value = '';
  };
  useEffect(() => () => client.current?.stop(), []);
  const receive = (answer: MeshAnswer) => {
    if (answer.kind === 'progress') setBusy({ what: answer.what, share: answer.share });
    else if (answer.kind === 'refused') {
      setBusy(null);
      setWrong(`${answer.why.path}: ${answer.why.message}.`);
    } else if (answer.kind === 'read') {
      setBusy(null);
      setWrong(null);
      setRead(answer);
      setUnit(answer.unit);
      setByHand(null);
      setChosen(0);
    } else if (answer.kind === 'turned') {
      setByHand(answer.way);
      setChosen('by hand');
    } else if (answer.kind === 'sampled') {
      const { shape, limbs } = answer;
      const made = bringIn(controller.state.build, { ...wanted.current, shape, limbs });
      const refused = made && controller.edit(made.edit);
      setBusy(null);
      if (refused) setWrong(`${refused.path}: ${refused.message}`);
      else if (made) {
        controller.select(limbs ? null : { kind: 'mass', id: made.id });
        close();
      }
    }
  };
  const take = async (given: File | undefined) => {
    if (!given) return;
    setWrong(null);
    setRead(null);
    setFillHollow(true);
    setHeight('');
    setName(given.name.replace(/\.[^.]+$/, ''));
    if (given.size > largestMeshFile) {
      setWrong(`the file: it is larger than ${largestMeshFile / 2 ** 20} MB. Nothing was changed.`);
      return;
    }
    setBusy({ what: 'Reading', share: 0 });
    client.current?.stop();
    client.current = meshClient(receive);
    const bytes = new Uint8Array(await given.arrayBuffer());
    client.current.ask({ kind: 'read', bytes, name: given.name }, [bytes.buffer]);
  };
  const way = chosen === 'by hand' ? byHand : (read?.ways[chosen] ?? null);
  const bring = () => {
    const typed = height.trim() === '' ? null : parseLength(height, units === 'imperial' ? 'in' : 'mm');
    if (typed && !typed.ok) {
      setWrong(typed.message);
      return;
    }
    if (typed && !(typed.value > 0)) {
      setWrong('The height is more than nothing.');
      return;
    }
    if (!way) return;
    setWrong(null);
    setBusy({ what: 'Telling inside from outside', share: 0 });
    client.current?.ask({
      kind: 'sample',
      placing: { unit, turn: way.turn, height: typed ? typed.value : null },
      fillHollow,
      limbs,
    });
  };
  const hollow = (fill: boolean) => {
    setFillHollow(fill);
    setBusy({ what: 'Telling inside from outside', share: 0 });
    client.current?.ask({ kind: 'hollow', fillHollow: fill });
  };
  const k = meshUnits[unit];
  const asked = parseLength(height, units === 'imperial' ? 'in' : 'mm');
  const grown = way && asked.ok && asked.value > 0 ? asked.value / (way.sides[2] * k) : 1;
  return (
    <>
      <input
        ref={file}
        type="file"
        hidden
        accept=".stl,.obj,.ply,.glb"
        aria-label="Mesh file"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      <Button size="sm" variant="quiet" onClick={() => file.current?.click()}>
        Bring in a mesh
      </Button>
      <Modal
        show={busy !== null || read !== null || wrong !== null}
        onHide={close}
        size="lg"
        centered
        scrollable
        aria-labelledby="mesh-title"
      >
        <Modal.Header closeButton>
          <Modal.Title id="mesh-title" as="h2" className="h5">
            {name || 'A mesh'}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {busy && (
            <div role="status">
              <p className="mb-1">{busy.what} …</p>
              <ProgressBar now={Math.round(busy.share * 100)} aria-label={busy.what} />
            </div>
          )}
          {wrong && (
            <p className="status-fails" role="alert">
              {wrong} {read ? '' : 'The build is as it was.'}
            </p>
          )}
          {read && !busy && (
            <>
              <p className="muted">{remarks(read, k * grown, units).join(' ')}</p>
              <h3 className="mt-0">Which way is up?</h3>
              <div className="ways-up" role="radiogroup" aria-label="Which way is up?">
                {read.ways.map((w, i) => (
                  <WayPicture
                    key={i}
                    way={w}
                    name={i === 0 ? 'the likeliest' : 'or like this'}
                    chosen={chosen === i}
                    onChoose={() => setChosen(i)}
                  />
                ))}
                {byHand && (
                  <WayPicture
                    way={byHand}
                    name="turned by hand"
                    chosen={chosen === 'by hand'}
                    onChoose={() => setChosen('by hand')}
                  />
                )}
              </div>
              {way && <TurnByHand turn={way.turn} onTurn={(turn) => client.current?.ask({ kind: 'turned', turn })} />}
              <div className="mesh-size">
                <div className="pairs">
                  <div className="field">
                    <label htmlFor="mesh-unit">Unit of the file</label>
                    <Form.Select
                      id="mesh-unit"
                      size="sm"
                      value={unit}
                      onChange={(e) => setUnit(e.target.value as MeshUnit)}
                    >
                      {Object.keys(meshUnits).map((u) => (
                        <option key={u} value={u}>
                          {u}
                        </option>
                      ))}
                    </Form.Select>
                    <div className="hint">
                      {way?.sides.map((s) => formatLength(s * k * grown, units)).join(' × ')}: across, deep, high.
                      {way &&
                        ` What is thinner than ${formatLength(thinnestKept(way.sides) * k * grown, units)} may be lost.`}
                    </div>
                  </div>
                  <div className="field">
                    <label htmlFor="mesh-height">Scaled to a height of</label>
                    <Form.Control
                      id="mesh-height"
                      size="sm"
                      value={height}
                      placeholder="as it is"
                      onChange={(e) => setHeight(e.target.value)}
                    />
                  </div>
                  <div className="field">
                    <label htmlFor="mesh-role">It is</label>
                    <Form.Select
                      id="mesh-role"
                      size="sm"
                      value={role}
                      onChange={(e) => setRole(e.target.value as Role)}
                    >
                      {roles.map((r) => (
                        <option key={r.id} value={r.id}>
                          {r.name}
                        </option>
                      ))}
                    </Form.Select>
                  </div>
                </div>
                {way && <BesideAHand height={way.sides[2] * k * grown} now={now} units={units} />}
              </div>
              {(read.solid.filled > 0 || !fillHollow) && (
                <Form.Check
                  id="mesh-hollow"
                  type="checkbox"
                  label="Its hollow is part of the form (a pot’s is not)"
                  checked={fillHollow}
                  onChange={(e) => hollow(e.target.checked)}
                />
              )}
              <Form.Check
                id="mesh-limbs"
                type="checkbox"
                label="With its limbs: joints to pose it by, and an armature along them"
                checked={limbs}
                onChange={(e) => setLimbs(e.target.checked)}
              />
              <Form.Check
                id="mesh-alone"
                type="checkbox"
                label="In place of the masses that are there"
                checked={alone}
                onChange={(e) => setAlone(e.target.checked)}
              />
            </>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="quiet" onClick={close}>
            {busy ? 'Stop' : 'Leave it'}
          </Button>
          {read && (
            <Button variant="iron" disabled={busy !== null || !way} onClick={bring}>
              Put it on the turntable
            </Button>
          )}
        </Modal.Footer>
      </Modal>
    </>
  );
}
