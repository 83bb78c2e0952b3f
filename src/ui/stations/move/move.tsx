'use client';
import { Button, Table } from 'react-bootstrap';
import type { Build, Mount } from '../../../core/document';
import { bandToCut, usualWornLimits, vehicles } from '../../../core/load';
import { usualUse, wearersGirth } from '../../../core/mould';
import { formatForce, formatLength, formatMass, formatSize, sensible, type Vec3 } from '../../../core/quantity';
import { engineerDecides, isRolled, leverWords, liftingCaution } from '../../../core/finding';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, ChoiceInput, NumberAt, QuantityInput, TextAt, YesNoAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { WearersFields } from '../form/measure-field';
import { WhatSticksOut } from './what-sticks-out';

/** Moving, mounting and wearing it: what it goes through on its way, and how it meets the world. */
const travel = (key: string) => ['brief', 'travel', key] as const;
const mountAt = (key: string) => ['armature', 'mount', key] as const;
const kinds = [
  { id: 'stands', name: 'stands on its base' },
  { id: 'hangs', name: 'hangs from lines' },
  { id: 'wall', name: 'on a plate on the wall' },
  { id: 'worn', name: 'is worn' },
];
const places = [
  { id: 'head', name: 'the head' },
  { id: 'shoulder', name: 'a shoulder' },
  { id: 'chest', name: 'the chest' },
  { id: 'back', name: 'the back' },
  { id: 'hand', name: 'a hand' },
];

function PointFields({ path, at, label }: { path: readonly (string | number)[]; at: Vec3; label: string }) {
  const controller = useController();
  return (
    <div className="pairs">
      {(['left of the middle', 'behind the middle', 'above the board'] as const).map((axis, k) => (
        <QuantityInput
          key={axis}
          label={`${label}, ${axis}`}
          kind="length"
          value={at[k as 0 | 1 | 2]}
          onCommit={(v) =>
            v === null
              ? null
              : (controller.edit({ label: `${label} moved`, changes: [{ path: [...path, k], value: v }] })?.message ??
                null)
          }
        />
      ))}
    </div>
  );
}

/** Metres of band for a mask held at two points; null where it is not worn on the head, or nobody's head was measured. */
function bandOf(build: Build, mount: Extract<Mount, { kind: 'worn' }>): number | null {
  const [from, to] = mount.straps;
  const girth = wearersGirth(build);
  return mount.where === 'head' && from && to && girth !== null ? bandToCut(girth, from.at, to.at, [0, 0]) : null;
}

function Worn({ mount }: { mount: Extract<Mount, { kind: 'worn' }> }) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const report = useBench((s) => s.report?.mount);
  const finished = useBench((s) => s.report?.finished);
  const usual = usualWornLimits[mount.where];
  const worn = report?.kind === 'worn' ? report : null;
  const band = useBench(({ build }) => bandOf(build, mount));
  const add = () => {
    const n = mount.straps.length;
    const c = finished?.centre ?? [0, 0, 0.1];
    const at: Vec3 = [c[0] + (n % 2 === 0 ? 0.06 : -0.06), c[1], c[2]];
    controller.edit({
      label: 'Strap added',
      changes: [
        {
          path: ['armature', 'mount', 'straps', n],
          value: { id: `strap-${Date.now().toString(36)}`, name: `strap ${n + 1}`, at: [...at] },
        },
      ],
    });
  };
  return (
    <>
      <WearersFields />
      <div className="pairs">
        <ChoiceAt label="Worn on" path={mountAt('where')} choices={places} />
        <NumberAt label="At a stretch" path={mountAt('hours')} kind="hours" />
        <NumberAt
          label="Watched from"
          path={mountAt('watchFrom')}
          kind="mass"
          optional
          placeholder={formatMass(usual.watchFrom, units)}
          hint="empty: the usual"
        />
        <NumberAt
          label="Too much from"
          path={mountAt('failsFrom')}
          kind="mass"
          optional
          placeholder={formatMass(usual.failsFrom, units)}
          hint="empty: the usual"
        />
      </div>
      {mount.straps.length > 0 && worn && (
        <Table size="sm" aria-label="Straps">
          <thead>
            <tr>
              <th>Strap or stitch</th>
              <th className="n">Share</th>
              <th className="n">Pull</th>
              <th>
                <span className="visually-hidden">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {mount.straps.map((s, i) => {
              const own = worn.straps.find((w) => w.id === s.id);
              return (
                <tr key={s.id}>
                  <td>
                    <details>
                      <summary>{s.name}</summary>
                      <TextAt label="Name" path={['armature', 'mount', 'straps', i, 'name']} />
                      <PointFields path={['armature', 'mount', 'straps', i, 'at']} at={s.at} label="Place" />
                    </details>
                  </td>
                  <td className="n">{own ? `${sensible(own.share * 100, 2)} %` : ''}</td>
                  <td className="n">{own ? formatForce(own.pull, units) : ''}</td>
                  <td className="n">
                    <Button
                      size="sm"
                      variant="quiet"
                      aria-label={`Take away ${s.name}`}
                      onClick={() =>
                        controller.edit({
                          label: 'Strap taken away',
                          changes: [{ path: ['armature', 'mount', 'straps', i], value: undefined }],
                        })
                      }
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
      <Button size="sm" variant="quiet" onClick={add} disabled={mount.straps.length >= 12}>
        Add a strap or stitch point
      </Button>
      {band !== null && (
        <p className="mt-2 mb-1">
          Cut the band from {mount.straps[0]?.name} to {mount.straps[1]?.name} round the back of the head{' '}
          {formatLength(band, units)} long, 30 mm at each end turned over; elastic a fifth shorter. Try it on first.
        </p>
      )}
      {worn && <p className="mt-2">{leverWords(worn.leverage, worn.towards, units)}</p>}
    </>
  );
}

function MountFields() {
  const controller = useController();
  const mount = useBench((s) => s.build.armature.mount);
  const top = useBench((s) => s.report?.size.height ?? 0.5);
  const form = useBench((s) => s.build.form.start.kind);
  const choose = (id: string) => {
    const fresh: Record<string, unknown> = {
      stands: { kind: 'stands' },
      hangs: {
        kind: 'hangs',
        points: [
          [0.05, 0, top],
          [-0.05, 0, top],
        ],
      },
      wall: { kind: 'wall' },
      worn: { kind: 'worn', where: usualUse(form) === 'head' ? 'head' : 'shoulder', straps: [] },
    };
    return (
      controller.edit({
        label: `Finished, it ${kinds.find((k) => k.id === id)?.name ?? id}`,
        changes: [{ path: ['armature', 'mount'], value: fresh[id] }],
      })?.message ?? null
    );
  };
  return (
    <>
      <h3>How it meets the world</h3>
      <ChoiceInput
        label="Finished, it"
        value={mount.kind}
        choices={kinds}
        onChoose={choose}
        hint={mount.kind === 'stands' ? 'A piece that is worn or hung leaves its board behind.' : undefined}
      />
      {mount.kind === 'hangs' && (
        <>
          {mount.points.map((p, i) => (
            <div key={i} className="d-flex align-items-end gap-2">
              <PointFields path={['armature', 'mount', 'points', i]} at={p} label={`Point ${i + 1}`} />
              {mount.points.length > 1 && (
                <Button
                  size="sm"
                  variant="quiet"
                  className="mb-2"
                  aria-label={`Take away point ${i + 1}`}
                  onClick={() =>
                    controller.edit({
                      label: 'Hanging point taken away',
                      changes: [{ path: ['armature', 'mount', 'points', i], value: undefined }],
                    })
                  }
                >
                  ×
                </Button>
              )}
            </div>
          ))}
          <Button
            size="sm"
            variant="quiet"
            disabled={mount.points.length >= 12}
            onClick={() =>
              controller.edit({
                label: 'Hanging point added',
                changes: [
                  {
                    path: ['armature', 'mount', 'points', mount.points.length],
                    value: [0, 0.05 * mount.points.length, top],
                  },
                ],
              })
            }
          >
            Add a point
          </Button>
        </>
      )}
      {mount.kind === 'wall' && (
        <div className="pairs">
          <NumberAt label="Plate, high" path={mountAt('height')} kind="length" />
          <NumberAt label="Screws" path={mountAt('screws')} kind="number" />
          <NumberAt
            label="One screw may be pulled with, N"
            path={mountAt('pull')}
            kind="number"
            hint="by wall and plug; ask who knows the wall"
          />
        </div>
      )}
      {mount.kind === 'worn' && <Worn mount={mount} />}
    </>
  );
}

function Parts() {
  const handling = useBench((s) => s.report?.handling);
  const units = useBench((s) => s.units);
  if (!handling) return null;
  const rows = handling.parts.length > 0 ? handling.parts : [handling.whole];
  const people = (n: number) => (n === 1 ? 'one' : Number.isFinite(n) ? String(n) : 'a hoist');
  return (
    <Table size="sm" aria-label="Parts as they are carried">
      <thead>
        <tr>
          <th>Part</th>
          <th className="n">Weight</th>
          <th className="n">Size</th>
          <th className="n">People</th>
          <th>Door</th>
          {handling.vehicleName !== null && <th>Vehicle</th>}
        </tr>
      </thead>
      <tbody>
        {rows.map((p) => (
          <tr key={p.name}>
            <td>
              {p.name}
              {p.heldBy !== '' && <div className="small muted">{p.heldBy}</div>}
            </td>
            <td className="n">{formatMass(p.mass, units)}</td>
            <td className="n">{formatSize([p.size.width, p.size.depth, p.size.height], units)}</td>
            <td className="n">{isRolled(handling, p) ? 'rolled' : people(p.lift.people)}</td>
            <td>{p.door ? 'goes through' : <span className="status-fails">does not</span>}</td>
            {handling.vehicleName !== null && (
              <td>{p.vehicle ? 'fits' : <span className="status-fails">does not</span>}</td>
            )}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

export default function MoveStation() {
  const vehicle = useBench((s) => s.build.brief.travel.vehicle);
  const report = useBench((s) => s.report);
  const build = useBench((s) => s.build);
  const heavy = report ? liftingCaution(report.finished.mass) : null;
  const cautions = [
    ...(report && engineerDecides(build, report) ? [engineerDecides(build, report)!] : []),
    ...(heavy ? [heavy] : []),
    'Carry it by the armature or its board, never by the clay; clear the way first.',
  ];
  return (
    <StationPanel
      station="move"
      title="Moving, mounting, wearing"
      cautions={cautions}
      how={
        <>
          <p>
            Lifting: the revised equation of NIOSH (1994), for one lift from floor to table, held as near as the
            piece&rsquo;s depth allows, with a fair grip. Two together bear two thirds of what both would alone, three
            half (HSE L23); past that it takes a hoist.
          </p>
          <p>
            On the road: EN 12195-1, 0.8 g braking, 0.5 g to the sides and back, and a bump of 2 g; those are under Load
            when the brief says it is carried and driven.
          </p>
          <p>
            What sticks out: a push aside at its end, the finished clay as a beam cut square across where it is weakest,
            hollow where there is a core. What clay bears as it is bent is our own estimate, half as much or half as
            much again. Left out: what the core bears, cracks that are there already, how deep a wire is set in.
          </p>
          <p className="mb-0">
            Hanging and straps: shares by statics about the centre of gravity. Left out: swing, jumps, how a wearer
            stands.
          </p>
        </>
      }
    >
      <h3>The way there</h3>
      <div className="pairs">
        <NumberAt label="Door, wide" path={travel('doorWidth')} kind="length" />
        <NumberAt label="Door, high" path={travel('doorHeight')} kind="length" />
        <NumberAt label="Ramp" path={travel('ramp')} kind="angle" hint="0: none" />
        <ChoiceAt
          label="Vehicle"
          path={travel('vehicle')}
          choices={[
            { id: 'none', name: 'none' },
            ...vehicles.map((v) => ({ id: v.id, name: v.name })),
            { id: 'own', name: 'one I have measured' },
          ]}
        />
        <YesNoAt label="A hoist or tackle at both ends" path={travel('hoist')} fallback={false} />
        {report?.handling.road && <YesNoAt label="Lashed down on the way" path={travel('lashed')} fallback={false} />}
      </div>
      {vehicle === 'own' && (
        <div className="pairs">
          {['long', 'wide', 'high'].map((w, k) => (
            <NumberAt key={w} label={`Inside, ${w}`} path={['brief', 'travel', 'inside', k]} kind="length" />
          ))}
        </div>
      )}
      <Parts />
      <MountFields />
      <WhatSticksOut />
    </StationPanel>
  );
}
