'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form, Modal, ProgressBar } from 'react-bootstrap';
import type { BuildEdit, Change, Mass } from '../../../core/document';
import {
  largestMeshFile,
  meshFormats,
  meshUnits,
  resolveForm,
  type MeshFormat,
  type MeshUnit,
  type SampledShape,
} from '../../../core/form';
import { formatLength, formatVolume, parseLength, sensible } from '../../../core/quantity';
import { exportedParts, type ExportedPart } from '../../../core/sheet';
import { meshClient, type MeshClient } from '../../../workers/clients';
import type { MeshAnswer } from '../../../workers/protocol';
import type { BenchController } from '../../bench/controller';
import { useBench, useController } from '../../bench/context';

/** Bringing a mesh in as a mass of the form, and taking form, core and armature out. */
type Role = 'face' | 'core' | 'bare';
const roles: readonly { id: Role; name: string }[] = [
  { id: 'face', name: 'the finished face: clay inside it' },
  { id: 'core', name: 'an object inside: clay over it' },
  { id: 'bare', name: 'an object that stays bare' },
];
type Read = Extract<MeshAnswer, { kind: 'read' }>;

/** Adds the sampled mesh on the root joint; alone, if it is to stand in place of what is there. */
function meshEdit(
  controller: BenchController,
  shape: SampledShape,
  name: string,
  role: Role,
  alone: boolean,
): { edit: BuildEdit; id: string } | null {
  const { build } = controller.state;
  const form = resolveForm(build);
  if (!form.ok) return null;
  const taken = new Set(build.form.added.map((m) => m.id));
  let n = 1;
  while (taken.has(`own/mesh-${n}`)) n++;
  const id = `own/mesh-${n}`;
  const { size } = build.form.start;
  const small = 1 / size;
  const mass: Mass = {
    id,
    name: name.slice(0, 60) || 'mesh',
    region: 'mesh',
    at: [0, 0, 0.001],
    turn: [0, 0, 0],
    blend: 0,
    role,
    // The document holds life size; the mesh was brought in at full scale.
    shape: {
      ...shape,
      step: shape.step * small,
      from: [shape.from[0] * small, shape.from[1] * small, shape.from[2] * small],
      deepest: shape.deepest * small,
    },
  };
  const changes: Change[] = [{ path: ['form', 'added', build.form.added.length], value: mass }];
  if (alone)
    for (const m of form.value.masses)
      changes.push({ path: ['form', 'edits', m.id], value: { ...(build.form.edits[m.id] ?? {}), hidden: true } });
  return { id, edit: { label: `Bring in ${mass.name}`, changes } };
}

function BringIn() {
  const controller = useController();
  const units = useBench((s) => s.units);
  const file = useRef<HTMLInputElement>(null);
  const client = useRef<MeshClient | null>(null);
  const [name, setName] = useState('');
  const [busy, setBusy] = useState<{ what: string; share: number } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [read, setRead] = useState<Read | null>(null);
  const [unit, setUnit] = useState<MeshUnit>('mm');
  const [up, setUp] = useState<'z' | 'y'>('z');
  const [height, setHeight] = useState('');
  const [role, setRole] = useState<Role>('face');
  const [alone, setAlone] = useState(true);
  const wanted = useRef({ role, alone, name });
  wanted.current = { role, alone, name };
  const close = () => {
    client.current?.stop();
    client.current = null;
    setBusy(null);
    setRead(null);
    setWrong(null);
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
      setRead(answer);
      setUnit(answer.unit);
      setUp(answer.up);
    } else if (answer.kind === 'sampled') {
      const made = meshEdit(controller, answer.shape, wanted.current.name, wanted.current.role, wanted.current.alone);
      const refused = made && controller.edit(made.edit);
      if (refused) setWrong(`${refused.path}: ${refused.message}`);
      else if (made) {
        controller.select({ kind: 'mass', id: made.id });
        close();
      }
    }
  };
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    setWrong(null);
    setRead(null);
    setName(chosen.name.replace(/\.[^.]+$/, ''));
    if (chosen.size > largestMeshFile) {
      setBusy({ what: '', share: 0 });
      setBusy(null);
      setWrong(`the file: it is larger than ${largestMeshFile / 2 ** 20} MB. Nothing was changed.`);
      return;
    }
    setBusy({ what: 'Reading', share: 0 });
    client.current?.stop();
    client.current = meshClient(receive);
    const bytes = new Uint8Array(await chosen.arrayBuffer());
    client.current.ask({ kind: 'read', bytes, name: chosen.name }, [bytes.buffer]);
  };
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
    setWrong(null);
    setBusy({ what: 'Sampling', share: 0 });
    client.current?.ask({ kind: 'sample', placing: { unit, up, height: typed ? typed.value : null } });
  };
  const k = meshUnits[unit];
  const sides = read?.sides.map((s) => formatLength(s * k, units)) ?? [];
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
        centered
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
              <p className="muted">
                {read.report.triangles} triangles,{' '}
                {read.report.watertight ? 'closed' : `open at ${read.report.openEdges} edges`}
                {read.holesClosed > 0
                  ? `; ${read.holesClosed} small ${read.holesClosed === 1 ? 'hole' : 'holes'} closed`
                  : ''}
                {read.facesTurned > 0 ? `; ${read.facesTurned} faces turned the right way` : ''}.
              </p>
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
                    {sides.join(' × ')}, {formatVolume(read.report.volume * k ** 3, units)}. Is that right?
                  </div>
                </div>
                <div className="field">
                  <label htmlFor="mesh-up">Up in the file</label>
                  <Form.Select id="mesh-up" size="sm" value={up} onChange={(e) => setUp(e.target.value as 'z' | 'y')}>
                    <option value="z">its third axis</option>
                    <option value="y">its second axis</option>
                  </Form.Select>
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
                  <Form.Select id="mesh-role" size="sm" value={role} onChange={(e) => setRole(e.target.value as Role)}>
                    {roles.map((r) => (
                      <option key={r.id} value={r.id}>
                        {r.name}
                      </option>
                    ))}
                  </Form.Select>
                </div>
              </div>
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
            <Button variant="iron" disabled={busy !== null} onClick={bring}>
              Put it on the turntable
            </Button>
          )}
        </Modal.Footer>
      </Modal>
    </>
  );
}

const partNames: Readonly<Record<ExportedPart, string>> = {
  form: 'the form',
  core: 'the core under the clay',
  armature: 'the armature',
};

function TakeOut() {
  const controller = useController();
  const client = useRef<MeshClient | null>(null);
  const [parts, setParts] = useState<readonly ExportedPart[]>(['form']);
  const [format, setFormat] = useState<MeshFormat>('stl');
  const [state, setState] = useState<string | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const take = () => {
    setState('Working it out …');
    client.current?.stop();
    client.current = meshClient((answer) => {
      if (answer.kind === 'refused') setState(`Not done: ${answer.why.message}.`);
      if (answer.kind !== 'written') return;
      const url = URL.createObjectURL(new Blob([answer.bytes as Uint8Array<ArrayBuffer>]));
      const link = document.createElement('a');
      link.href = url;
      link.download = `${controller.state.build.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-${parts.join('-')}.${format}`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(url), 10_000);
      setState(`${sensible(answer.bytes.length / 1e6)} MB taken out.`);
    });
    client.current.ask({ kind: 'write', build: controller.state.build, parts, format });
  };
  return (
    <details>
      <summary>Take it out as a mesh</summary>
      <div className="mt-2">
        {exportedParts.map((p) => (
          <Form.Check
            inline
            key={p}
            id={`out-${p}`}
            type="checkbox"
            label={partNames[p]}
            checked={parts.includes(p)}
            onChange={(e) => setParts(e.target.checked ? [...parts, p] : parts.filter((x) => x !== p))}
          />
        ))}
      </div>
      <div className="acts mt-2 align-items-center">
        <Form.Select
          size="sm"
          aria-label="Kind of file"
          style={{ width: '7rem' }}
          value={format}
          onChange={(e) => setFormat(e.target.value as MeshFormat)}
        >
          {meshFormats.map((f) => (
            <option key={f} value={f}>
              {f.toUpperCase()}
            </option>
          ))}
        </Form.Select>
        <Button size="sm" variant="iron" disabled={parts.length === 0} onClick={take}>
          Take out
        </Button>
        <span className="small muted" role="status">
          {state}
        </span>
      </div>
      <p className="muted small mt-1 mb-0">
        In millimetres, upright along the third axis; GLB in metres, by its own rule.
      </p>
    </details>
  );
}

export default function Meshes() {
  return (
    <>
      <h3>Meshes</h3>
      <div className="acts mb-2">
        <BringIn />
      </div>
      <TakeOut />
    </>
  );
}
