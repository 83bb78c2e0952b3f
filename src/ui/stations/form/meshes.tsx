'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { meshFormats, type Mass, type MeshFormat } from '../../../core/form';
import { sensible } from '../../../core/quantity';
import { exportedParts, type ExportedPart } from '../../../core/sheet';
import { meshClient, type MeshClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';
import BringInMesh from './bring-in-mesh';

/** Taking form, core and armature out. */
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

/** A mesh that is there: limbs found in it, found anew, or taken away again. */
function Limbs({ mesh, index }: { mesh: Mass; index: number }) {
  const controller = useController();
  const client = useRef<MeshClient | null>(null);
  const [state, setState] = useState<string | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  if (mesh.shape.kind !== 'sampled') return null;
  const { shape } = mesh;
  const path = ['form', 'added', index, 'shape', 'limbs'] as const;
  const find = () => {
    setState('Finding its limbs …');
    client.current?.stop();
    client.current = meshClient((answer) => {
      if (answer.kind !== 'limbs') return;
      if (!answer.limbs) {
        setState('No limbs were found in it.');
        return;
      }
      const refused = controller.edit({
        label: `Find the limbs of ${mesh.name}`,
        changes: [{ path, value: answer.limbs }],
      });
      setState(refused ? `Not done: ${refused.message}` : null);
    });
    client.current.ask({ kind: 'limbs', shape });
  };
  return (
    <div className="acts mb-2 align-items-center">
      <span>{mesh.name}</span>
      <Button size="sm" variant="quiet" onClick={find}>
        {shape.limbs ? 'Find its limbs again' : 'Find its limbs'}
      </Button>
      {shape.limbs && (
        <Button
          size="sm"
          variant="quiet"
          onClick={() =>
            controller.edit({ label: `${mesh.name} without limbs`, changes: [{ path, value: undefined }] })
          }
        >
          Without limbs
        </Button>
      )}
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          controller.edit({
            label: `Take ${mesh.name} away`,
            changes: [{ path: ['form', 'added', index], value: undefined }],
          })
        }
      >
        Take it away
      </Button>
      <span className="small muted" role="status">
        {state}
      </span>
    </div>
  );
}

export default function Meshes() {
  const added = useBench((s) => s.build.form.added);
  return (
    <>
      <h3>Meshes</h3>
      <div className="acts mb-2">
        <BringInMesh />
      </div>
      {added.map((mesh, i) => (
        <Limbs key={mesh.id} mesh={mesh} index={i} />
      ))}
      <TakeOut />
    </>
  );
}
