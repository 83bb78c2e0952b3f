'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form, Table } from 'react-bootstrap';
import { joinKinds, parseStock, stockWords } from '../../../core/catalogue';
import type { Member } from '../../../core/armature';
import { formatLength } from '../../../core/quantity';
import {
  branchOff,
  bringBack,
  isMemberSetByHand,
  joinJoints,
  jointName,
  removePart,
  setStock,
  sizeMemberAgain,
} from '../../../core/school';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';

/** Least cover and where; short of what it should be is said in words, not by colour alone. */
function CoverCell({ member }: { member: string }) {
  const cover = useBench((s) => s.report?.cover.find((c) => c.member === member));
  const place = useBench((s) => (cover ? s.picture?.masses[cover.mass]?.name : undefined));
  const units = useBench((s) => s.units);
  if (!cover) return <td className="n">–</td>;
  const words = cover.least < 0 ? 'stands out' : cover.least < cover.wanted ? 'thin' : '';
  return (
    <td className="n" title={place}>
      {formatLength(cover.least, units)}
      {words && (
        <div className={cover.least < 0 ? 'status-fails small' : 'status-watch small'}>
          {words}, {place}
        </div>
      )}
    </td>
  );
}

/** Stock as it is written, with how many strands; what cannot be read says why and the last one stays. */
function StockField({ member }: { member: Member }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const shown = stockWords(member);
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState('');
  const commit = () => {
    if (text === null || text.trim() === shown) {
      setText(null);
      setWrong('');
      return;
    }
    const read = parseStock(text);
    const refused = read.ok ? controller.edit(setStock(build, member, read.value))?.message : read.message;
    setWrong(refused ?? '');
    if (!refused) setText(null);
  };
  return (
    <>
      <Form.Control
        size="sm"
        aria-label={`Stock of the ${member.name}`}
        value={text ?? shown}
        list="stock-examples"
        autoComplete="off"
        aria-invalid={wrong !== ''}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') {
            setText(null);
            setWrong('');
          }
        }}
      />
      {wrong !== '' && (
        <div className="wrong" role="alert">
          {wrong} Still {shown}.
        </div>
      )}
    </>
  );
}

/** One press: the thinnest of its own stock that still holds, on both sides; undone like any other step. */
function Thinner({ member }: { member: Member }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const [state, setState] = useState<'asked' | string | null>(null);
  const client = useRef<CompareClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  useEffect(() => {
    setState(null);
    client.current?.stop();
  }, [build]);
  const find = () => {
    setState('asked');
    client.current?.stop();
    client.current = compareClient((answer) => {
      if (answer.kind === 'refused') setState(answer.why.message);
      if (answer.kind !== 'thinnest') return;
      if (answer.found === 'already') setState('nothing thinner holds');
      else if (answer.found === null) setState('it cannot be worked out');
      else controller.edit(answer.found.edit);
    });
    client.current.ask({ kind: 'thinnest', asked: controller.askedOf(build), member: member.id });
  };
  return (
    <>
      <Button
        size="sm"
        variant="quiet"
        className="mt-1"
        disabled={state === 'asked'}
        aria-label={`Thinnest that holds: ${member.name}`}
        title="The thinnest of this stock after which nothing stands worse"
        onClick={find}
      >
        {state === 'asked' ? 'Trying …' : 'Thinnest that holds'}
      </Button>
      {state !== null && state !== 'asked' && (
        <span className="small muted" role="status">
          {' '}
          {state}
        </span>
      )}
    </>
  );
}

const shownAtFirst = 24;

export function MembersTable() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const armature = useBench((s) => s.picture?.armature);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  const [all, setAll] = useState(false);
  if (!armature || !report) return null;
  const members = all ? armature.members : armature.members.slice(0, shownAtFirst);
  return (
    <>
      <datalist id="stock-examples">
        <option value="3 mm annealed aluminium x2" />
        <option value="3/16 in annealed aluminium x3, splinted with nails" />
        <option value="2 mm galvanised steel" />
        <option value="1/2 pipe" />
        <option value="12 mm dowel" />
      </datalist>
      {armature.members.length === 0 ? (
        <p className="muted">Nothing is cut: it stands by its filling alone.</p>
      ) : (
        <Table size="sm" aria-label="Members" className="members">
          <thead>
            <tr>
              <th>Member, its stock and strands</th>
              <th className="n">Cut</th>
              <th className="n" title="Least between it and the face">
                Cover
              </th>
              <th>
                <span className="visually-hidden">Take away</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {members.map((m) => {
              const cut = report.cuts.find((c) => c.member === m.id);
              return (
                <tr key={m.id}>
                  <td>
                    {m.name}
                    <StockField member={m} />
                    <Thinner member={m} />
                    {build.armature.sizing === 'to-carry' && isMemberSetByHand(build, m.id) && (
                      <Button
                        size="sm"
                        variant="quiet"
                        className="mt-1"
                        aria-label={`Size it again: ${m.name}`}
                        title="Its size was set by hand"
                        onClick={() => controller.edit(sizeMemberAgain(build, m.id, m.name))}
                      >
                        Size it again
                      </Button>
                    )}
                  </td>
                  <td className="n">{cut ? formatLength(cut.cutLength, units) : ''}</td>
                  <CoverCell member={m.id} />
                  <td className="n">
                    <Button
                      size="sm"
                      variant="quiet"
                      aria-label={`Take away the ${m.name}`}
                      title="Take away"
                      onClick={() => controller.edit(removePart(build, armature, m.id, 'member'))}
                    >
                      ×
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      {armature.members.length > shownAtFirst && (
        <Button size="sm" variant="quiet" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `All ${armature.members.length} members`}
        </Button>
      )}
      {build.armature.removed.length > 0 && (
        <p className="mt-2 mb-0">
          {build.armature.removed.length} {build.armature.removed.length === 1 ? 'part is' : 'parts are'} taken away.{' '}
          <Button size="sm" variant="quiet" onClick={() => controller.edit(bringBack())}>
            Bring them back
          </Button>
        </p>
      )}
      <AddMember />
    </>
  );
}

/** A member or tie of one's own between two joints, or from a joint into the open. */
function AddMember() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const armature = useBench((s) => s.picture?.armature);
  const height = useBench((s) => s.report?.size.height ?? 0.3);
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [text, setText] = useState('3 mm annealed aluminium x2');
  const [wrong, setWrong] = useState('');
  if (!armature) return null;
  const act = (tie: boolean) => {
    const stock = parseStock(text);
    if (!stock.ok) {
      setWrong(stock.message);
      return;
    }
    const edit =
      to === 'out'
        ? branchOff(build, armature, from, [0.12 * height, 0, 0.06 * height], stock.value, [])
        : joinJoints(build, armature, from, to, stock.value, tie);
    const refused = controller.edit(edit)?.message ?? '';
    setWrong(refused);
    if (refused === '') setTo('');
  };
  const choices = armature.nodes.map((n) => (
    <option key={n.id} value={n.id}>
      {jointName(n.id)}
    </option>
  ));
  return (
    <details className="mt-3">
      <summary>Add a member or a tie</summary>
      <div className="pairs mt-2">
        <div className="field">
          <label htmlFor="add-from">From the joint</label>
          <Form.Select id="add-from" size="sm" value={from} onChange={(e) => setFrom(e.target.value)}>
            <option value="">Pick one …</option>
            {choices}
          </Form.Select>
        </div>
        <div className="field">
          <label htmlFor="add-to">To the joint</label>
          <Form.Select id="add-to" size="sm" value={to} onChange={(e) => setTo(e.target.value)}>
            <option value="">Pick one …</option>
            <option value="out">a new one, beside it</option>
            {choices}
          </Form.Select>
        </div>
      </div>
      <div className="field">
        <label htmlFor="add-stock">Stock and strands</label>
        <Form.Control
          id="add-stock"
          size="sm"
          value={text}
          list="stock-examples"
          onChange={(e) => setText(e.target.value)}
        />
      </div>
      {wrong !== '' && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
      <div className="d-flex gap-2">
        <Button size="sm" variant="quiet" disabled={from === '' || to === '' || from === to} onClick={() => act(false)}>
          Add a member
        </Button>
        <Button
          size="sm"
          variant="quiet"
          disabled={from === '' || to === '' || to === 'out' || from === to}
          onClick={() => act(true)}
          title="Only pulls: binding wire, a guy, a strap"
        >
          Add a tie
        </Button>
      </div>
    </details>
  );
}

/** How each bone is joined where it leaves, by bone. */
export function JoinsTable() {
  const controller = useController();
  const armature = useBench((s) => s.picture?.armature);
  const [all, setAll] = useState(false);
  if (!armature) return null;
  const joined = armature.bones.filter((b) => all || b.joinFrom !== 'welded' || b.joinTo !== 'welded');
  const set = (id: string, name: string, end: 'joinFrom' | 'joinTo', value: string) =>
    controller.edit({ label: `Join of the ${name}`, changes: [{ path: ['armature', 'edits', id, end], value }] });
  return (
    <details className="mt-3">
      <summary>Joins</summary>
      <Table size="sm" aria-label="Joins" className="mt-2">
        <thead>
          <tr>
            <th>Bone</th>
            <th>Where it starts</th>
            <th>Where it ends</th>
          </tr>
        </thead>
        <tbody>
          {joined.slice(0, 60).map((b) => (
            <tr key={b.id}>
              <td>{b.name}</td>
              {(['joinFrom', 'joinTo'] as const).map((end) => (
                <td key={end}>
                  <Form.Select
                    size="sm"
                    aria-label={`Join of the ${b.name}, ${end === 'joinFrom' ? 'start' : 'end'}`}
                    value={b[end]}
                    onChange={(e) => set(b.id, b.name, end, e.target.value)}
                  >
                    {joinKinds.map((j) => (
                      <option key={j.id} value={j.id}>
                        {j.name}
                      </option>
                    ))}
                  </Form.Select>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {!all && joined.length < armature.bones.length && (
        <Button size="sm" variant="quiet" onClick={() => setAll(true)}>
          Those in one piece too
        </Button>
      )}
    </details>
  );
}
