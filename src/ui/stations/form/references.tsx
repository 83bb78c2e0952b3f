'use client';
import { useRef, useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import type { Reference } from '../../../core/document';
import { checkOutline, outlineLines } from '../../../core/form';
import { formatLength, parseLength } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';

/** Reference pictures and outline templates, scaled by two marks on them. */
interface Fresh {
  readonly name: string;
  readonly image?: string;
  readonly lines?: number[][];
  readonly width: number;
  readonly height: number;
}
type Mark = readonly [number, number];

const largestSide = 1400;
const largestText = 880_000;

/** Drawn anew, smaller: what was hidden in the file (place, camera, owner) does not come along. */
async function readPicture(file: File): Promise<Fresh> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error('it is no picture this browser can show: use PNG, JPEG or WebP');
  });
  if (bitmap.width < 2 || bitmap.height < 2) throw new Error('it is only a dot');
  for (let side = largestSide, quality = 0.85; side > 300; side *= 0.8, quality = 0.7) {
    const k = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(bitmap.width * k));
    canvas.height = Math.max(1, Math.round(bitmap.height * k));
    const context = canvas.getContext('2d');
    if (!context) throw new Error('this browser cannot draw it');
    context.fillStyle = '#fff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    const image = canvas.toDataURL('image/jpeg', quality);
    if (image.length < largestText) return { name: file.name, image, width: canvas.width, height: canvas.height };
  }
  throw new Error('it could not be made small enough');
}

const drawn = ['path', 'line', 'polyline', 'polygon', 'rect', 'circle', 'ellipse'];
const geometry = ['d', 'x', 'y', 'x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r', 'rx', 'ry', 'width', 'height', 'points'];

/** Only its lines are taken, measured on shapes of our own making. */
function readOutline(text: string, name: string): Fresh {
  const wrong = checkOutline(text);
  if (wrong) throw new Error(`${wrong.path}: ${wrong.message}`);
  const source = new DOMParser().parseFromString(text, 'image/svg+xml');
  if (source.querySelector('parsererror')) throw new Error('it is not whole SVG');
  const space = 'http://www.w3.org/2000/svg';
  const host = document.createElementNS(space, 'svg');
  host.setAttribute('style', 'position:absolute;visibility:hidden;width:0;height:0');
  document.body.append(host);
  try {
    const lines: number[][] = [];
    for (const element of [...source.querySelectorAll(drawn.join(','))].slice(0, 400)) {
      if (element.closest('defs, clipPath, mask, pattern, symbol')) continue;
      const shape = document.createElementNS(space, element.tagName) as SVGGeometryElement;
      for (const a of geometry) if (element.hasAttribute(a)) shape.setAttribute(a, element.getAttribute(a) ?? '');
      let at: Element = shape;
      for (let e: Element | null = element; e && e.tagName !== 'svg'; e = e.parentElement) {
        const group = document.createElementNS(space, 'g');
        if (e.hasAttribute('transform')) group.setAttribute('transform', e.getAttribute('transform') ?? '');
        group.append(at);
        at = group;
      }
      host.append(at);
      const length = shape.getTotalLength();
      const matrix = shape.getCTM(),
        root = host.getCTM();
      if (!(length > 0) || length > 1e7) continue;
      const points: number[] = [];
      const steps = Math.min(2000, Math.max(16, Math.ceil(length / 2)));
      for (let i = 0; i <= steps; i++) {
        let p = shape.getPointAtLength((length * i) / steps);
        if (matrix) p = p.matrixTransform(root ? root.inverse().multiply(matrix) : matrix);
        points.push(p.x, p.y);
      }
      lines.push(points);
    }
    const kept = outlineLines(lines);
    if (!kept.ok) throw new Error(kept.message);
    const xs = kept.value.flatMap((l) => l.filter((_, i) => i % 2 === 0)),
      ys = kept.value.flatMap((l) => l.filter((_, i) => i % 2 === 1));
    const left = Math.min(...xs),
      top = Math.min(...ys);
    return {
      name,
      width: Math.max(1, Math.max(...xs) - left),
      height: Math.max(1, Math.max(...ys) - top),
      lines: kept.value.map((l) => l.map((v, i) => Math.round((v - (i % 2 ? top : left)) * 100) / 100)),
    };
  } finally {
    host.remove();
  }
}

/** The picture with two marks to set on it; arrow keys move the one that has the focus. */
function Marker({
  fresh,
  marks,
  setMarks,
}: {
  fresh: Fresh;
  marks: readonly Mark[];
  setMarks: (m: readonly Mark[]) => void;
}) {
  const [next, setNext] = useState(0);
  const place = (event: React.MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at: Mark = [
      ((event.clientX - box.left) / box.width) * fresh.width,
      ((event.clientY - box.top) / box.height) * fresh.height,
    ];
    setMarks(marks.map((m, i) => (i === next ? at : m)));
    setNext(1 - next);
  };
  const nudge = (i: number) => (event: React.KeyboardEvent) => {
    const step = (event.shiftKey ? 10 : 1) * Math.max(fresh.width, fresh.height) * 0.002;
    const way: Record<string, Mark> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const by = way[event.key];
    if (!by) return;
    setMarks(marks.map((m, k) => (k === i ? [m[0] + by[0], m[1] + by[1]] : m)));
    event.preventDefault();
  };
  const dot = Math.max(fresh.width, fresh.height) * 0.012;
  return (
    <svg
      viewBox={`0 0 ${fresh.width} ${fresh.height}`}
      style={{ width: '100%', maxHeight: '46vh', background: 'var(--plaster)', cursor: 'crosshair' }}
      onClick={place}
      role="group"
      aria-label="Click the two marks, or move them with the arrow keys"
    >
      {fresh.image && <image href={fresh.image} width={fresh.width} height={fresh.height} />}
      {fresh.lines?.map((l, i) => (
        <polyline
          key={i}
          fill="none"
          stroke="currentColor"
          strokeWidth={dot * 0.2}
          points={l.reduce((s, v, k) => s + (k % 2 ? `,${v} ` : v), '')}
        />
      ))}
      <line
        x1={marks[0]?.[0]}
        y1={marks[0]?.[1]}
        x2={marks[1]?.[0]}
        y2={marks[1]?.[1]}
        stroke="#9e3d28"
        strokeWidth={dot * 0.3}
      />
      {marks.map((m, i) => (
        <circle
          key={i}
          tabIndex={0}
          role="img"
          aria-label={i === 0 ? 'Lower mark' : 'Upper mark'}
          cx={m[0]}
          cy={m[1]}
          r={dot}
          fill={i === next ? '#9e3d28' : '#fffdf8'}
          stroke="#9e3d28"
          strokeWidth={dot * 0.3}
          onKeyDown={nudge(i)}
        />
      ))}
    </svg>
  );
}

export default function References() {
  const controller = useController();
  const references = useBench((s) => s.build.references);
  const units = useBench((s) => s.units);
  const height = useBench((s) => s.report?.size.height ?? 0.3);
  const file = useRef<HTMLInputElement>(null);
  const [fresh, setFresh] = useState<Fresh | null>(null);
  const [marks, setMarks] = useState<readonly Mark[]>([
    [0, 0],
    [0, 0],
  ]);
  const [apart, setApart] = useState('');
  const [above, setAbove] = useState('0');
  const [view, setView] = useState<'front' | 'side'>('front');
  const [wrong, setWrong] = useState<string | null>(null);
  const close = () => {
    setFresh(null);
    setWrong(null);
    if (file.current) file.current.value = '';
  };
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    setWrong(null);
    try {
      if (chosen.size > 40e6) throw new Error('it is larger than 40 MB');
      const isOutline = chosen.type === 'image/svg+xml' || /\.svg$/i.test(chosen.name);
      const read = isOutline ? readOutline(await chosen.text(), chosen.name) : await readPicture(chosen);
      setFresh(read);
      setMarks([
        [read.width / 2, read.height * 0.98],
        [read.width / 2, read.height * 0.02],
      ]);
      setApart(formatLength(height, units));
    } catch (error) {
      setFresh(null);
      setWrong((error as Error).message);
    }
  };
  const keep = () => {
    if (!fresh) return;
    const unit = units === 'imperial' ? 'in' : 'mm';
    const far = parseLength(apart, unit),
      up = parseLength(above, unit);
    const [a, b] = marks as [Mark, Mark];
    const pixels = Math.hypot(a[0] - b[0], a[1] - b[1]);
    if (!far.ok || !(far.value > 0)) setWrong('Type how far apart the two marks are on the piece.');
    else if (!up.ok) setWrong(up.message);
    else if (!(pixels > 2)) setWrong('Set the two marks apart.');
    else {
      const lower = a[1] >= b[1] ? a : b;
      let n = 1;
      while (references.some((r) => r.id === `ref-${n}`)) n++;
      const made: Reference = {
        id: `ref-${n}`,
        name: fresh.name.slice(0, 80),
        view,
        width: fresh.width,
        height: fresh.height,
        perPixel: far.value / pixels,
        mark: [lower[0], lower[1]],
        above: up.value,
        opacity: 0.5,
        shown: true,
        ...(fresh.image ? { image: fresh.image } : { lines: fresh.lines }),
      };
      const refused = controller.edit({
        label: `Reference: ${made.name}`,
        changes: [{ path: ['references', references.length], value: made }],
      });
      if (refused) setWrong(`${refused.path}: ${refused.message}`);
      else {
        controller.lookFrom(view);
        close();
      }
    }
  };
  const set = (i: number, key: string, value: unknown) =>
    controller.edit({ label: 'Reference', changes: [{ path: ['references', i, key], value }] });
  return (
    <>
      <h3>Pictures and outlines to model after</h3>
      <input
        ref={file}
        type="file"
        hidden
        accept="image/png,image/jpeg,image/webp,image/svg+xml,.svg"
        aria-label="Reference file"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      <Button size="sm" variant="quiet" disabled={references.length >= 6} onClick={() => file.current?.click()}>
        Bring one in
      </Button>
      {wrong && !fresh && (
        <p className="status-fails mt-2" role="alert">
          Not taken: {wrong}.
        </p>
      )}
      <ul className="list-unstyled mt-2 mb-0">
        {references.map((r, i) => (
          <li key={r.id} className="d-flex gap-2 align-items-center flex-wrap mb-1">
            <Form.Check
              id={`shown-${r.id}`}
              type="checkbox"
              label={`${r.name}, ${r.view}`}
              checked={r.shown}
              onChange={(e) => set(i, 'shown', e.target.checked)}
            />
            <Form.Range
              aria-label={`How strongly ${r.name} shows`}
              style={{ width: '7rem' }}
              min={0.05}
              max={1}
              step={0.05}
              value={r.opacity}
              onChange={(e) => set(i, 'opacity', Number(e.target.value))}
            />
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Take ${r.name} away`}
              onClick={() =>
                controller.edit({
                  label: `Take ${r.name} away`,
                  changes: [{ path: ['references', i], value: undefined }],
                })
              }
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      <Modal show={fresh !== null} onHide={close} centered size="lg" aria-labelledby="reference-title">
        <Modal.Header closeButton>
          <Modal.Title id="reference-title" as="h2" className="h5">
            {fresh?.name}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {fresh && <Marker fresh={fresh} marks={marks} setMarks={setMarks} />}
          <p className="muted small mt-2">
            Click two places whose distance on the finished piece you know. The lower one comes to stand over the middle
            of the board.
          </p>
          <div className="pairs">
            <div className="field">
              <label htmlFor="ref-apart">They are apart</label>
              <Form.Control id="ref-apart" size="sm" value={apart} onChange={(e) => setApart(e.target.value)} />
            </div>
            <div className="field">
              <label htmlFor="ref-above">The lower one is above the board</label>
              <Form.Control id="ref-above" size="sm" value={above} onChange={(e) => setAbove(e.target.value)} />
            </div>
            <div className="field">
              <label htmlFor="ref-view">Seen from</label>
              <Form.Select
                id="ref-view"
                size="sm"
                value={view}
                onChange={(e) => setView(e.target.value as 'front' | 'side')}
              >
                <option value="front">the front</option>
                <option value="side">the side, its left</option>
              </Form.Select>
            </div>
          </div>
          {wrong && (
            <p className="status-fails" role="alert">
              {wrong}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="quiet" onClick={close}>
            Leave it
          </Button>
          <Button variant="iron" onClick={keep}>
            Hang it behind the piece
          </Button>
        </Modal.Footer>
      </Modal>
    </>
  );
}
