'use client';
import Link from 'next/link';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import type { SeamView } from '../../../core/sheet';
import { useController } from '../../bench/context';
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

function save(content: Uint8Array | string, name: string): void {
  const url = URL.createObjectURL(new Blob([content as Uint8Array<ArrayBuffer> | string]));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
