'use client';
import Link from 'next/link';
import type { ComponentType } from 'react';
import { Form, Table } from 'react-bootstrap';
import { bulkList, joinKinds, stockList, stocks, wrapList } from '../../../core/catalogue';
import { formatLength } from '../../../core/quantity';
import { limbWire, onAForm, schools, stuffed, type School } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, ChoiceInput, NumberAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { useForm } from '../form/shaping';

const parameter = (key: string) => ['armature', 'school', 'parameters', key] as const;
const sizesOf = (stock: string) => (stocks.get(stock)?.sizes ?? []).map((s) => ({ id: s.id, name: s.label }));
const wires = stockList.filter((s) => s.sizes.some((z) => z.section.shape === 'round'));
const uprights = stockList.filter((s) => s.sizes.some((z) => z.section.shape === 'tube'));
const boards = stockList.filter((s) => s.sizes.every((z) => z.section.shape === 'flat' && z.section.width === 1));
const limbStocks = stockList.filter((s) => !boards.includes(s) && s.sizes.some((z) => z.section.shape === 'round' || z.section.shape === 'square-tube'));

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

/** Least cover and where; short of what it should be is said in words, not by colour alone. */
function CoverCell({ member }: { member: string }) {
  const cover = useBench((s) => s.report?.cover.find((c) => c.member === member));
  const place = useBench((s) => (cover ? s.picture?.masses[cover.mass]?.name : undefined));
  const units = useBench((s) => s.units);
  if (!cover) return <td className="n">–</td>;
  const words = cover.least < 0 ? 'stands out' : cover.least < cover.wanted ? 'thin' : '';
  return <td className="n" title={place}>{formatLength(cover.least, units)}{words && <div className={cover.least < 0 ? 'status-fails small' : 'status-watch small'}>{words}, {place}</div>}</td>;
}

function MembersTable() {
  const controller = useController();
  const armature = useBench((s) => s.picture?.armature);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  if (!armature || !report) return null;
  return (
    <Table size="sm" aria-label="Members">
      <thead><tr><th>Member</th><th>Size</th><th>Strands</th><th className="n">Cut</th><th className="n" title="Least between it and the face">Cover</th></tr></thead>
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
              <CoverCell member={m.id} />
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

const cores = bulkList.filter((b) => b.id !== 'hot-glue');

function useParameters<P>(school: School<P>): P {
  const given = useBench((s) => s.build.armature.school.parameters);
  const parsed = school.parameters.safeParse(given);
  return parsed.success ? parsed.data : school.parameters.parse({});
}

function CoreFields({ bulk, wrap, label = 'Filled with' }: { bulk: string; wrap: string; label?: string }) {
  return (
    <div className="pairs">
      <ChoiceAt label={label} path={parameter('bulk')} fallback={bulk} choices={cores} />
      <ChoiceAt label="Wrapped in" path={parameter('wrap')} fallback={wrap} choices={wrapList} />
    </div>
  );
}

interface BoardFigures { readonly boardStock: string; readonly boardSize: string; readonly boardWidth: number; readonly boardDepth: number; readonly ballast: number; readonly screwDiameter: number }

function BoardFields({ p, screws }: { p: BoardFigures; screws: string }) {
  return (
    <>
      <h3>Base</h3>
      <StockPair label="Board" stockKey="boardStock" sizeKey="boardSize" choices={boards} stock={p.boardStock} size={p.boardSize} />
      <div className="pairs">
        <NumberAt label="Board, across" path={parameter('boardWidth')} kind="length" fallback={p.boardWidth} hint="0: from the form" />
        <NumberAt label="Board, front to back" path={parameter('boardDepth')} kind="length" fallback={p.boardDepth} hint="0: from the form" />
        <NumberAt label="Weight fixed to it" path={parameter('ballast')} kind="mass" fallback={p.ballast} />
        <NumberAt label={screws} path={parameter('screwDiameter')} kind="length" fallback={p.screwDiameter} />
      </div>
    </>
  );
}

function StuffedFields() {
  const p = useParameters(stuffed);
  return (
    <>
      <h3>Core</h3>
      <CoreFields bulk={p.bulk} wrap={p.wrap} />
      <h3>Upright and wires</h3>
      <StockPair label="Upright" stockKey="pipeStock" sizeKey="pipeSize" choices={uprights} stock={p.pipeStock} size={p.pipeSize} />
      <StockPair label="Head frame" stockKey="frameStock" sizeKey="frameSize" choices={wires} stock={p.frameStock} size={p.frameSize} />
      <StockPair label="Shoulder wires" stockKey="shoulderStock" sizeKey="shoulderSize" choices={wires} stock={p.shoulderStock} size={p.shoulderSize} />
      <div className="pairs">
        <ChoiceAt label="Head frame joined by" path={parameter('neckJoin')} fallback={p.neckJoin} choices={joinKinds} />
        <ChoiceAt label="Shoulders joined by" path={parameter('shoulderJoin')} fallback={p.shoulderJoin} choices={joinKinds} />
      </div>
      <NumberAt label="Wire under the face of the core" path={parameter('frameInset')} kind="length" fallback={p.frameInset} />
      <BoardFields p={p} screws="Flange screws, thick" />
    </>
  );
}

function LimbWireFields() {
  const p = useParameters(limbWire);
  const made = useBench((s) => s.picture?.armature.members[0]?.size);
  return (
    <>
      <h3>Core</h3>
      <CoreFields bulk={p.bulk} wrap={p.wrap} />
      <h3>Wire</h3>
      <StockPair label="Wire" stockKey="wireStock" sizeKey="wireSize" choices={limbStocks} stock={p.wireStock} size={p.wireSize || (made ?? '')} />
      <div className="pairs">
        <NumberAt label="Strands" path={parameter('strands')} kind="number" fallback={p.strands} />
        <ChoiceAt label="Limbs joined by" path={parameter('join')} fallback={p.join} choices={joinKinds} />
      </div>
      <BoardFields p={p} screws="Screws at the feet, thick" />
    </>
  );
}

function OnAFormFields() {
  const p = useParameters(onAForm);
  return (
    <>
      <h3>The form under the clay</h3>
      <CoreFields bulk={p.bulk} wrap={p.wrap} label="Made of" />
      <h3>Post</h3>
      <StockPair label="Post" stockKey="postStock" sizeKey="postSize" choices={[...uprights, ...wires]} stock={p.postStock} size={p.postSize} />
      <ChoiceAt label="Post fixed to the board by" path={parameter('join')} fallback={p.join} choices={joinKinds} />
      <BoardFields p={p} screws="Screws, thick" />
    </>
  );
}

interface SchoolPage { readonly school: School<never>; readonly Fields: ComponentType; readonly how: string; readonly cuts: string }
const pages: readonly SchoolPage[] = [
  {
    school: stuffed as unknown as School<never>, Fields: StuffedFields,
    how: 'The school sets out an upright with a flange, two loops for the head on the upright, a band, and a wire for each shoulder, from the measures of the form and the thickness of the clay.',
    cuts: 'a tail of 85 mm under each hose clamp, a turn round the pipe (its girth), an end loop of ten diameters, a twist of eight diameters a turn, and 5 % for trim',
  },
  {
    school: limbWire as unknown as School<never>, Fields: LimbWireFields,
    how: 'One wire runs through the joints of each limb as it is posed; where limbs meet, the next is bound along the first. Feet are bent over on the board and fixed.',
    cuts: 'twelve diameters where a wire is bound along another, six for an end loop, fourteen for a foot, 3 % for twisting strands together, and 5 % for trim',
  },
  {
    school: onAForm as unknown as School<never>, Fields: OnAFormFields,
    how: 'What carries the clay is there already. It stands on a post let into the board; its weight counts, its strength does not.',
    cuts: 'the depth let into the board, and 5 % for trim',
  },
];

/** Another school for the same form; its own figures start afresh, changes by hand to members of the old one go. */
function SchoolChoice() {
  const controller = useController();
  const kind = useBench((s) => s.build.armature.school.kind);
  const form = useForm();
  const fitting = schools.filter((s) => form && s.fits(form));
  return (
    <ChoiceInput
      label="School" value={kind} choices={fitting.map((s) => ({ id: s.kind, name: s.name }))}
      hint={schools.find((s) => s.kind === kind)?.when}
      onChoose={(id) => controller.edit({
        label: `School: ${schools.find((s) => s.kind === id)?.name ?? id}`,
        changes: [{ path: ['armature', 'school'], value: { kind: id, parameters: {} } }, { path: ['armature', 'edits'], value: {} }, { path: ['armature', 'props'], value: [] }],
      })?.message ?? null}
    />
  );
}

export default function ArmatureStation() {
  const controller = useController();
  const kind = useBench((s) => s.build.armature.school.kind);
  const page = pages.find((p) => p.school.kind === kind) ?? (pages[0] as SchoolPage);
  return (
    <StationPanel
      station="armature" title="The armature"
      how={<>
        <p>{page.how} What you change by hand stays when the form changes.</p>
        <p className="mb-0">Cut lengths follow the bend and add what the work takes: {page.cuts}.</p>
      </>}
    >
      <SchoolChoice />
      <page.Fields />
      <h3>Members</h3>
      <MembersTable />
      <p className="mt-3 mb-0"><Link href={`/build/${controller.id}/print`} target="_blank" className="btn btn-quiet btn-sm">Cut list and shopping, to print</Link></p>
    </StationPanel>
  );
}
