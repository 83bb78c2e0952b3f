'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { mouldChosen } from '../../../core/mould';
import { formatLength } from '../../../core/quantity';
import type { SeamView } from '../../../core/sheet';
import { useBench, useController } from '../../bench/context';
import { useMould } from '../../bench/use-mould';
import { partNames } from '../../bench/mould-words';

const views: readonly { readonly id: SeamView; readonly name: string }[] = [
  { id: 'front', name: 'from the front' },
  { id: 'back', name: 'from the back' },
  { id: 'left', name: 'from its left' },
  { id: 'right', name: 'from its right' },
  { id: 'top', name: 'from above' },
];

/** Parts and seams for other programs, and seams drawn at true size. */
export function Out() {
  const controller = useController();
  const parted = useMould((s) => s.parted);
  const [view, setView] = useState<SeamView>('front');
  if (!parted) return null;
  const file = controller.state.build.name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  const meshes = async (format: 'glb' | 'ply') => {
    const [{ mouldMeshes }, { writeMesh }] = await Promise.all([
      import('../../../core/sheet'),
      import('../../../core/form'),
    ]);
    const names = partNames(parted.parting.pieces.map((p) => p.direction));
    save(writeMesh(format, mouldMeshes(parted, names)), `${file}-mould.${format}`);
  };
  const drawing = async () => {
    const { seamDrawing } = await import('../../../core/sheet');
    save(seamDrawing(parted, view, controller.state.build.name), `${file}-seams-${view}.svg`);
  };
  return (
    <>
      <h3>Take it out</h3>
      <div className="beside mb-2">
        <Link href={`/build/${controller.id}/print/mould`} target="_blank" className="btn btn-quiet btn-sm">
          Print what to buy, coats and shim
        </Link>
        <Button size="sm" variant="quiet" onClick={() => void meshes('glb')}>
          Parts and seams as GLB
        </Button>
        <Button size="sm" variant="quiet" onClick={() => void meshes('ply')}>
          As PLY
        </Button>
      </div>
      <HardParts file={file} />
      <div className="d-flex align-items-end gap-2 mb-2">
        <div>
          <Form.Label htmlFor="seams-from" className="mb-1">
            Seams, seen
          </Form.Label>
          <Form.Select id="seams-from" size="sm" value={view} onChange={(e) => setView(e.target.value as SeamView)}>
            {views.map((v) => (
              <option key={v.id} value={v.id}>
                {v.name}
              </option>
            ))}
          </Form.Select>
        </div>
        <Button size="sm" variant="quiet" onClick={() => void drawing()}>
          As SVG, true size
        </Button>
      </div>
    </>
  );
}

/** Walls and shells as bodies to print: worked out on asking, then one file a part. */
function HardParts({ file }: { file: string }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const parted = useMould((s) => s.parted);
  const shells = useMould((s) => s.shells);
  const done = useMould((s) => s.shellsDone);
  const message = useMould((s) => s.shellsMessage);
  const { walls } = mouldChosen(build) ?? {};
  // Walls of another thickness are other bodies.
  const wallsKey = JSON.stringify([walls, build.mould.posture]);
  useEffect(() => () => controller.mould.dropShells(), [controller, wallsKey]);
  if (!parted || !walls || walls.shell === null) return null;
  const names = partNames(parted.parting.pieces.map((p) => p.direction));
  const part = async (index: number) => {
    const { writeMesh } = await import('../../../core/form');
    const name = names[index] ?? String(index + 1);
    save(
      writeMesh('stl', [{ name, ...shells!.parts[index]! }]),
      `${file}-mould-${name.replace(/[^a-z0-9]+/g, '-')}.stl`,
    );
  };
  return (
    <div className="mb-2">
      {done !== null ? (
        <>
          <p className="small muted mb-1" role="status">
            Shaping the hard parts, {Math.round(done * 100)} %
          </p>
          <Button size="sm" variant="quiet" onClick={() => controller.mould.dropShells()}>
            Stop
          </Button>
        </>
      ) : shells ? (
        <>
          <div className="beside mb-1">
            {shells.parts.map((p, i) => (
              <Button key={p.part} size="sm" variant="quiet" onClick={() => void part(i)}>
                {names[p.part]} as STL
              </Button>
            ))}
          </div>
          <p className="small mb-1">
            Closed, with {shells.keys.length === 0 ? 'no keys' : `${shells.keys.length} round keys`} on{' '}
            {parted.parting.pieces.length > 1 ? 'flanges along the seams' : 'one part'}; what is finer than{' '}
            {formatLength(shells.step, units)} is not in them. In millimetres.
          </p>
        </>
      ) : (
        <Button size="sm" variant="quiet" onClick={() => controller.mould.shape(controller.askedOf(build))}>
          Hard parts to print …
        </Button>
      )}
      {message !== '' && <p className="wrong status-fails mb-1">Not made: {message}.</p>}
    </div>
  );
}

function save(content: Uint8Array | string, name: string): void {
  const url = URL.createObjectURL(new Blob([content as Uint8Array<ArrayBuffer> | string]));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
