'use client';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { Button, ButtonGroup, Form, Table } from 'react-bootstrap';
import { formatForce, formatLength, formatMass, sensible } from '../../../core/quantity';
import { whenHardWords } from '../../../core/catalogue';
import { findClay } from '../../../core/document';
import { engineerDecides, liftingCaution } from '../../../core/finding';
import { letGoWords, statusOf } from '../../../core/piece';
import { useBench, useController } from '../../bench/context';
import { StationPanel } from '../../parts/judgement';
import { Plumb } from '../../parts/plumb';
import { jointName } from '../../../core/school';
import { InTheWind, Situations, StandingTables } from './standing';

const Strengthen = dynamic(() => import('./strengthen'), { ssr: false });

export function LifeStageSwitch() {
  const controller = useController();
  const stages = useBench((s) => s.report?.lifeStages);
  const current = useBench((s) => s.lifeStage);
  if (!stages) return null;
  return (
    <ButtonGroup aria-label="Stage of the piece’s life" className="switch-row">
      {stages.map((m) => (
        <Button
          key={m.stage}
          variant="quiet"
          active={m.stage === current}
          aria-pressed={m.stage === current}
          onClick={() => controller.showStage(m.stage)}
        >
          {m.name}
        </Button>
      ))}
    </ButtonGroup>
  );
}

function Props() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const clay = findClay(build, build.brief.clay);
  const hard = clay.ok ? whenHardWords(clay.value.setting) : null;
  const props = useBench((s) => s.build.armature.props);
  const nodes = useBench((s) => s.picture?.armature.nodes);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  const [node, setNode] = useState('');
  const free = (nodes ?? []).filter((n) => !n.held && !props.some((p) => p.node === n.id));
  const nameOf = jointName;
  const push = (id: string) => report?.lifeStages.reduce((m, c) => Math.max(m, c.props[id] ?? 0), 0) ?? 0;
  return (
    <>
      <h3>When may I let go of it?</h3>
      {report && (
        <p>
          {letGoWords(report.letGo)}
          {report.letGo.when === 'at-once' && props.length > 0
            ? ' Props that are set all the same stay as long as is said here, in the plan too.'
            : ''}
        </p>
      )}
      {props.length > 0 && (
        <Table size="sm" aria-label="Props">
          <thead>
            <tr>
              <th>Prop under</th>
              <th>Until</th>
              <th className="n">Takes</th>
              <th>
                <span className="visually-hidden">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {props.map((p, i) => (
              <tr key={p.id}>
                <td>{nameOf(p.node)}</td>
                <td>
                  <Form.Select
                    size="sm"
                    aria-label={`Prop under ${nameOf(p.node)} stays until`}
                    value={p.until}
                    onChange={(e) =>
                      controller.edit({
                        label: 'How long the prop stays',
                        changes: [{ path: ['armature', 'props', i, 'until'], value: e.target.value }],
                      })
                    }
                  >
                    <option value="through-dry">{hard ?? 'it is hard, which it never is'}</option>
                    <option value="always">for good</option>
                  </Form.Select>
                </td>
                <td className="n">{push(p.node) > 0 ? formatForce(push(p.node), units) : 'nothing'}</td>
                <td className="n">
                  <Button
                    size="sm"
                    variant="quiet"
                    aria-label={`Take away the prop under ${nameOf(p.node)}`}
                    onClick={() =>
                      controller.edit({
                        label: 'Prop taken away',
                        changes: [{ path: ['armature', 'props', i], value: undefined }],
                      })
                    }
                  >
                    Take away
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <div className="d-flex gap-2 mt-2">
        <Form.Select size="sm" aria-label="Joint to prop" value={node} onChange={(e) => setNode(e.target.value)}>
          <option value="">Put a prop under …</option>
          {free.map((n) => (
            <option key={n.id} value={n.id}>
              {nameOf(n.id)}
            </option>
          ))}
        </Form.Select>
        <Button
          size="sm"
          variant="quiet"
          disabled={node === ''}
          onClick={() => {
            controller.edit({
              label: `Prop under the ${nameOf(node)}`,
              changes: [
                {
                  path: ['armature', 'props', props.length],
                  value: {
                    id: `prop-${node.replaceAll('/', '-')}`,
                    name: `prop under the ${nameOf(node)}`,
                    node,
                    until: 'through-dry',
                  },
                },
              ],
            });
            setNode('');
          }}
        >
          Add
        </Button>
      </div>
    </>
  );
}

const mostShown = 30;

export default function LoadStation() {
  const report = useBench((s) => s.report);
  const build = useBench((s) => s.build);
  const stage = useBench((s) => s.lifeStage);
  const units = useBench((s) => s.units);
  const nodes = useBench((s) => s.picture?.armature);
  const check = report?.lifeStages.find((m) => m.stage === stage);
  const nameOf = new Map(nodes?.bones.map((b) => [b.id, b.name]));
  const [all, setAll] = useState(false);
  // In a cage of hundreds the hardest-pressed stand first.
  const shown =
    !check || all || check.bones.length <= mostShown
      ? (check?.bones ?? [])
      : [...check.bones]
          .sort((a, b) => Math.max(b.utilisation, b.buckling) - Math.max(a.utilisation, a.buckling))
          .slice(0, mostShown);
  const cautions = report
    ? [engineerDecides(build, report), liftingCaution(report.summary.wet)].filter((c) => c !== null)
    : [];
  return (
    <StationPanel
      station="load"
      title="Load"
      cautions={cautions}
      how={
        <>
          <p>
            The armature is solved as a frame in space: along each bone run wires, pipe, bulk and the clay round it,
            each with its stiffness and strength. Every small cube of clay and bulk hangs on the nearest bone of its
            mass, at the weight it has at the chosen stage of its life. A member&rsquo;s figure is 1.5 times (2 on the
            road, 3 worn or overhead) what it carries over what it can bear in bending, twist and pull together; below
            0.6 is sound, over 1 it fails.
          </p>
          <p>
            What it weighs lies between the two figures beside it nine times in ten: hands lay clay 15 % thicker or
            thinner than they mean to, and pack a core a quarter more or less.
          </p>
          <p>
            Joins let through part of the metal&rsquo;s strength and turn a little: a hose clamp 60 %, bound and glued
            70 %. Clay counts with the strength it has when fresh, also once it is dry. Left out: knocks, wires bent
            back and forth, clay that was patched on.
          </p>
          <p>
            Weight on a frame that has moved bends it further, so it is solved as it stands then: under the load times
            its safety for what each member is asked, under the load alone for how far it moves. Where that is more than
            the frame can stand under at all, it bows out, and the figure says by how much. Ties only pull, props only
            push; one that would do otherwise is let go.
          </p>
          <p>
            Outdoors, a gust of v presses with 0.625 v² times 1.3 on its outline, at the middle of that, from whichever
            of eight sides is worst. What holds it down must hold half as much again, and the frame three times what the
            gust asks. Left out: bursts that rock it, shelter, ice, cloth that flaps.
          </p>
          <p className="mb-0">
            It tips when its centre of gravity passes the edge of the board. Sources: Przemieniecki,{' '}
            <em>Theory of Matrix Structural Analysis</em>; Roark&rsquo;s <em>Formulas for Stress and Strain</em>; USDA{' '}
            <em>Wood Handbook</em> for screws.
          </p>
        </>
      }
    >
      {report?.worst && <p className={`worst status-${report.worst.status}`}>{report.worst.sentence}</p>}
      <h3>Members, stage by stage</h3>
      <LifeStageSwitch />
      {check && (
        <Table size="sm" aria-label={`Members, ${check.name}`}>
          <thead>
            <tr>
              <th>Member</th>
              <th className="n">Carries</th>
              <th className="n">Of what it bears</th>
              <th className="n">Moves</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((b) => (
              <tr key={b.bone}>
                <td>{nameOf.get(b.bone) ?? b.bone}</td>
                <td className="n">{formatMass(b.carries, units)}</td>
                <td className="n">
                  <Plumb status={statusOf(Math.max(b.utilisation, b.buckling))} size={15} />{' '}
                  {sensible(Math.max(b.utilisation, b.buckling), 2)}
                  {b.buckling > b.utilisation ? (
                    <div className="small">bows out</div>
                  ) : b.set > 0 ? (
                    <div className="small">
                      {b.set >= 99 ? 'folds' : `keeps ${sensible(b.set * 100, 2)} % of the bend`}
                    </div>
                  ) : null}
                </td>
                <td className="n">{b.sag < 0.00005 ? '0' : formatLength(b.sag, units)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {check && check.bones.length > mostShown && (
        <Button size="sm" variant="quiet" onClick={() => setAll(!all)}>
          {all ? 'The hardest-pressed only' : `All ${check.bones.length} members`}
        </Button>
      )}
      <Props />
      <Strengthen />
      {report && (
        <>
          <StandingTables />
          <InTheWind />
          <Situations />
          <h3>Weight, part by part</h3>
          <Table size="sm" aria-label="Weight ledger">
            <thead>
              <tr>
                <th>Part</th>
                <th className="n">Wet</th>
                <th className="n">Dry</th>
              </tr>
            </thead>
            <tbody>
              {report.ledger.items.map((i) => (
                <tr key={i.id}>
                  <td>{i.name}</td>
                  <td className="n">{formatMass(i.wet, units)}</td>
                  <td className="n">{formatMass(i.dry, units)}</td>
                </tr>
              ))}
              <tr>
                <td>
                  <strong>All of it</strong>
                </td>
                <td className="n">
                  <strong>{formatMass(report.ledger.wet, units)}</strong>
                  <Span of={report.wetRange} />
                </td>
                <td className="n">
                  <strong>{formatMass(report.ledger.dry, units)}</strong>
                  <Span of={report.weightRange} />
                </td>
              </tr>
            </tbody>
          </Table>
        </>
      )}
    </StationPanel>
  );
}

/** From the least to the most it is likely to weigh. */
function Span({ of }: { of: { readonly low: number; readonly high: number } }) {
  const units = useBench((s) => s.units);
  return (
    <div className="small muted">
      {formatMass(of.low, units)} to {formatMass(of.high, units)}
    </div>
  );
}
