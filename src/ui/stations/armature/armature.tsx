'use client';
import Link from 'next/link';
import { Form, Table } from 'react-bootstrap';
import { bulkList, joinKinds, stockList, stocks, wrapList } from '../../../core/catalogue';
import { formatLength } from '../../../core/quantity';
import { stuffed } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, NumberAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';

const parameter = (key: string) => ['armature', 'school', 'parameters', key] as const;
const sizesOf = (stock: string) => (stocks.get(stock)?.sizes ?? []).map((s) => ({ id: s.id, name: s.label }));
const wires = stockList.filter((s) => s.sizes.some((z) => z.section.shape === 'round'));
const uprights = stockList.filter((s) => s.sizes.some((z) => z.section.shape === 'tube'));
const boards = stockList.filter((s) => s.sizes.every((z) => z.section.shape === 'flat' && z.section.width === 1));

/** A stock and its size move together: a stock that lacks the size takes its nearest. */
function StockPair({ label, stockKey, sizeKey, choices, stock, size }: { label: string; stockKey: string; sizeKey: string; choices: readonly { id: string; name: string }[]; stock: string; size: string }) {
  const nearest = (id: string) => {
    const list = stocks.get(id)?.sizes ?? [];
    return list.some((s) => s.id === size) ? size : (list[Math.floor(list.length / 2)]?.id ?? size);
  };
  return (
    <div className="pairs">
      <ChoiceAt label={label} path={parameter(stockKey)} fallback={stock} choices={choices} also={(id) => [{ path: parameter(sizeKey), value: nearest(id) }]} />
      <ChoiceAt label="Size" path={parameter(sizeKey)} fallback={size} choices={sizesOf(stock)} />
    </div>
  );
}

function MembersTable() {
  const controller = useController();
  const armature = useBench((s) => s.picture?.armature);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  if (!armature || !report) return null;
  return (
    <Table size="sm" aria-label="Members">
      <thead><tr><th>Member</th><th>Size</th><th>Strands</th><th className="n">Cut</th></tr></thead>
      <tbody>
        {armature.members.map((m) => {
          const cut = report.cuts.find((c) => c.member === m.id);
          return (
            <tr key={m.id}>
              <td>{m.name}</td>
              <td>
                <Form.Select size="sm" aria-label={`Size of the ${m.name}`} value={m.size} onChange={(e) => controller.edit({ label: `${m.name}: ${e.target.value}`, changes: [{ path: ['armature', 'edits', m.id, 'size'], value: e.target.value }] })}>
                  {sizesOf(m.stock).map((s) => <option key={s.id} value={s.id}>{s.name}</option>)}
                </Form.Select>
              </td>
              <td>
                <Form.Select size="sm" aria-label={`Strands of the ${m.name}`} value={m.strands} onChange={(e) => controller.edit({ label: `${m.name}: ${e.target.value} strands`, changes: [{ path: ['armature', 'edits', m.id, 'strands'], value: Number(e.target.value) }] })}>
                  {[1, 2, 3, 4, 5, 6].map((n) => <option key={n}>{n}</option>)}
                </Form.Select>
              </td>
              <td className="n">{cut ? formatLength(cut.cutLength, units) : ''}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

export default function ArmatureStation() {
  const controller = useController();
  const given = useBench((s) => s.build.armature.school.parameters);
  const parsed = stuffed.parameters.safeParse(given);
  const p = parsed.success ? parsed.data : stuffed.parameters.parse({});
  return (
    <StationPanel
      station="armature" title="The armature"
      how={<>
        <p>{stuffed.when} The school sets out an upright with a flange, two loops for the head on the upright, a band, and a wire for each shoulder, from the measures of the form and the thickness of the clay. What you change by hand stays when the form changes.</p>
        <p className="mb-0">Cut lengths follow the bend and add what the work takes: a tail of 85 mm under each hose clamp, a turn round the pipe (its girth), an end loop of ten diameters, a twist of eight diameters a turn, and 5 % for trim.</p>
      </>}
    >
      <h3>Core</h3>
      <div className="pairs">
        <ChoiceAt label="Filled with" path={parameter('bulk')} fallback={p.bulk} choices={bulkList.filter((b) => b.id !== 'hot-glue')} />
        <ChoiceAt label="Wrapped in" path={parameter('wrap')} fallback={p.wrap} choices={wrapList} />
      </div>
      <h3>Upright and wires</h3>
      <StockPair label="Upright" stockKey="pipeStock" sizeKey="pipeSize" choices={uprights} stock={p.pipeStock} size={p.pipeSize} />
      <StockPair label="Head frame" stockKey="frameStock" sizeKey="frameSize" choices={wires} stock={p.frameStock} size={p.frameSize} />
      <StockPair label="Shoulder wires" stockKey="shoulderStock" sizeKey="shoulderSize" choices={wires} stock={p.shoulderStock} size={p.shoulderSize} />
      <div className="pairs">
        <ChoiceAt label="Head frame joined by" path={parameter('neckJoin')} fallback={p.neckJoin} choices={joinKinds} />
        <ChoiceAt label="Shoulders joined by" path={parameter('shoulderJoin')} fallback={p.shoulderJoin} choices={joinKinds} />
      </div>
      <NumberAt label="Wire under the face of the core" path={parameter('frameInset')} kind="length" fallback={p.frameInset} />
      <h3>Base</h3>
      <StockPair label="Board" stockKey="boardStock" sizeKey="boardSize" choices={boards} stock={p.boardStock} size={p.boardSize} />
      <div className="pairs">
        <NumberAt label="Board, across" path={parameter('boardWidth')} kind="length" fallback={p.boardWidth} hint="0: from the form" />
        <NumberAt label="Board, front to back" path={parameter('boardDepth')} kind="length" fallback={p.boardDepth} hint="0: from the form" />
        <NumberAt label="Weight fixed to it" path={parameter('ballast')} kind="mass" fallback={p.ballast} />
        <NumberAt label="Flange screws, thick" path={parameter('screwDiameter')} kind="length" fallback={p.screwDiameter} />
      </div>
      <h3>Members</h3>
      <MembersTable />
      <p className="mt-3 mb-0"><Link href={`/build/${controller.id}/print`} target="_blank" className="btn btn-quiet btn-sm">Cut list and shopping, to print</Link></p>
    </StationPanel>
  );
}
