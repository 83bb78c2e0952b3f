'use client';
import { useEffect } from 'react';
import { Button, Form } from 'react-bootstrap';
import {
  castKinds,
  mouldChosen,
  mouldKinds,
  opensBehind,
  takeMould,
  takeNoMould,
  wallsAreOf,
} from '../../../core/mould';
import { useBench, useController } from '../../bench/context';
import { partingKey } from '../../bench/mould-work';
import { useMould } from '../../bench/use-mould';
import { ChoiceAt, ChoiceInput, NumberAt, QuantityInput } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { CastInHand } from './cast-in-hand';
import { EveryKind } from './every-kind';
import { Out } from './out';
import { Parts } from './parts';
import { SizeOfCast } from './size-of-cast';
import { SurfaceFirst } from './surface-first';
import { WhatItTakes } from './takes';

/** Mould and cast: which, how it parts, what goes into it and what comes out. */
const none = 'none';

/** Both works are begun as the station is opened, and again when what they are of has changed and the bench is still. */
const stillFor = 700;

function useMouldWork(): void {
  const controller = useController();
  const build = useBench((s) => s.build);
  const formKey = useBench((s) => s.picture?.formKey ?? '');
  const reckoning = useBench((s) => s.reckoning);
  const key = partingKey(build, formKey);
  const of = useMould((s) => s.of);
  const rowsOf = useMould((s) => s.rowsOf);
  const parting = useMould((s) => s.status === 'working');
  const rowsKey = JSON.stringify([key, build.mould, build.finish, build.plan]);
  useEffect(() => {
    if (formKey === '') return undefined;
    const timer = setTimeout(
      () => {
        if (of !== key) controller.mould.part(controller.askedOf(build), key);
        // What every kind comes to waits for the plan, which is a kind's too, and for the parting.
        else if (rowsOf !== rowsKey && reckoning !== 'nominal' && !parting)
          controller.mould.compare(controller.askedOf(build), rowsKey);
      },
      of === '' ? 0 : stillFor,
    );
    return () => clearTimeout(timer);
  }, [controller, build, formKey, key, of, rowsOf, rowsKey, reckoning, parting]);
  useEffect(() => {
    controller.mould.begin();
    return () => controller.mould.leave();
  }, [controller]);
}

function Choose() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const open = kind ? opensBehind(kind.id) : false;
  const own = chosen !== null && wallsAreOf(build.mould, chosen.kind);
  const casts = castKinds.filter((c) => (kind?.takes as readonly string[] | undefined)?.includes(c.id));
  const take = (id: string) => {
    const edit = id === none ? takeNoMould(build) : takeMould(build, id as (typeof mouldKinds)[number]['id']);
    return controller.edit(edit)?.message ?? null;
  };
  return (
    <>
      <h3>The mould</h3>
      <ChoiceInput
        label="Taken of it"
        value={chosen?.kind ?? none}
        choices={[{ id: none, name: 'no mould' }, ...mouldKinds.map(({ id, name }) => ({ id, name }))]}
        onChoose={take}
        hint={kind?.wants}
      />
      {chosen && kind && (
        <div className="pairs">
          {!kind.block && !open && (
            <ChoiceAt
              label="While it is laid on"
              path={['mould', 'posture']}
              choices={[
                { id: 'standing', name: 'the piece stands' },
                { id: 'lying', name: 'it lies on a bed' },
              ]}
            />
          )}
          <ChoiceInput
            label="Cast in it"
            value={chosen.cast}
            choices={casts.map(({ id, name }) => ({ id, name }))}
            onChoose={(id) =>
              controller.edit({
                label: `Cast: ${casts.find((c) => c.id === id)?.name ?? id}`,
                changes: [{ path: ['mould', 'cast'], value: id }],
              })?.message ?? null
            }
          />
          {own && kind.skin && (
            <NumberAt
              label="Skin, thick"
              path={['mould', 'skin']}
              kind="length"
              optional
              placeholder={usual(kind.skin.thickness)}
            />
          )}
          {own && kind.shell && (
            <NumberAt
              label={kind.skin ? 'Shell, thick' : 'Wall, thick'}
              path={['mould', 'shell']}
              kind="length"
              optional
              placeholder={usual(kind.shell.thickness)}
            />
          )}
          {own && kind.block && (
            <NumberAt
              label="Round it, thick"
              path={['mould', 'margin']}
              kind="length"
              optional
              placeholder={usual(kind.block.margin)}
            />
          )}
        </div>
      )}
    </>
  );
}

const usual = (metres: number) => `${metres * 1000} mm`;

function Seams() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const regions = useBench((s) => s.report?.regions);
  const picking = useBench((s) => s.picking);
  const brush = useBench((s) => s.brush);
  const { parts, keepFree } = build.mould;
  useEffect(() => () => controller.pickFor(null), [controller]);
  const keep = (region: string, on: boolean) =>
    controller.edit({
      label: on ? 'No seam there' : 'A seam may run there',
      changes: [
        {
          path: ['mould', 'keepFree', 'regions'],
          value: on ? [...keepFree.regions, region] : keepFree.regions.filter((r) => r !== region),
        },
      ],
    });
  const counts = [1, 2, 3, 4, 5, 6];
  return (
    <>
      <ChoiceInput
        label="Parts"
        value={String(parts ?? 0)}
        choices={[
          { id: '0', name: 'as its kind and the piece want' },
          ...counts.map((n) => ({ id: String(n), name: String(n) })),
        ]}
        onChoose={(id) =>
          controller.edit({
            label: 'Parts of the mould',
            changes: [{ path: ['mould', 'parts'], value: id === '0' ? null : Number(id) }],
          })?.message ?? null
        }
      />
      <fieldset className="field">
        <legend className="label">No seam over</legend>
        <div className="d-flex flex-wrap column-gap-3">
          <Form.Check
            id="keep-free-face"
            type="checkbox"
            label="its face"
            checked={keepFree.face}
            onChange={(e) =>
              controller.edit({
                label: e.target.checked ? 'No seam over its face' : 'A seam may run over its face',
                changes: [{ path: ['mould', 'keepFree', 'face'], value: e.target.checked }],
              })
            }
          />
          {(regions ?? []).map((r) => (
            <Form.Check
              key={r.id}
              id={`keep-free-${r.id}`}
              type="checkbox"
              label={r.name}
              checked={keepFree.regions.includes(r.id)}
              onChange={(e) => keep(r.id, e.target.checked)}
            />
          ))}
        </div>
        <div className="d-flex align-items-end gap-2 mt-1">
          <Button
            size="sm"
            variant="quiet"
            active={picking === 'no-seam'}
            aria-pressed={picking === 'no-seam'}
            onClick={() => controller.pickFor(picking === 'no-seam' ? null : 'no-seam')}
          >
            {picking === 'no-seam' ? 'Touch the piece …' : 'Paint it on the piece'}
          </Button>
          <QuantityInput
            label="So wide about a touch"
            kind="length"
            value={brush.radius}
            onCommit={(v) => {
              if (v === null || !(v >= 0.003 && v <= 2)) return 'It is 3 mm to 2 m.';
              controller.setBrush({ ...brush, radius: v });
              return null;
            }}
          />
          {keepFree.spots.length > 0 && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() =>
                controller.edit({
                  label: 'Seams may run where it was painted',
                  changes: [{ path: ['mould', 'keepFree', 'spots'], value: [] }],
                })
              }
            >
              Take off {keepFree.spots.length === 1 ? 'the spot' : `all ${keepFree.spots.length}`}
            </Button>
          )}
        </div>
      </fieldset>
    </>
  );
}

export default function MouldStation() {
  useMouldWork();
  const build = useBench((s) => s.build);
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const cast = castKinds.find((c) => c.id === chosen?.cast);
  return (
    <StationPanel
      station="mould"
      title="Mould and cast"
      cautions={[...(kind?.cautions ?? []), ...(cast ? [cast.caution] : [])]}
      how={
        <>
          <p>
            The face is taken as some forty thousand triangles. Along 81 pairs of opposite directions, then along those
            beside the best, it is looked both ways, and each triangle is told to come off, or not: it leans back by
            less than two degrees, and nothing of the piece stands in its way. The cheapest pairs are cut exactly: what
            cannot be drawn costs its area, a seam its length, thirty times as much over what is to be kept free, half
            along a sharp edge. The best is turned about a little, then rays say for good what comes off. Further parts
            are added while each frees more than a hundredth of the face.
          </p>
          <p>
            What holds the mould fast is counted in cells: places outside the piece from which it is met along every
            part&rsquo;s direction. A skin that gives passes over what is wider than its opening, by half of what would
            tear it. Air stays at the tops of the cavity that have no way out upward, over 3 mm.
          </p>
          <p>
            Skins, shells and walls are counted by their distance from the face, within two hundredths; a tenth more is
            bought, for the bowl. Shrinkages of mould and cast follow one upon the other. Wear is a rule of thumb.
          </p>
          <p>
            A hard cast is tried as a thin shell of some five thousand flat triangles that stretch and bend (Batoz,
            Bathe and Ho 1980; Felippa 2003), held by nothing: what presses on it, over 30 mm, is balanced by its own
            inertia. In a fall what it has fallen from 0.75 m goes into bending it, half the force times the way it
            gives. Strengths are rules of thumb, within half as much again or half.
          </p>
          <p className="mb-0">
            Plaster is taken to set within a quarter of an hour and to lose its heat to both sides; opened, it dries
            from both faces in the room the brief gives, by the same equations as clay. Hard parts to print are where a
            place is nearer to a part&rsquo;s face than to another&rsquo;s, so thick off it, on a lattice. Left out:
            rubber&rsquo;s own weight while it runs, what a flange adds to the load. Sources: Boykov and Kolmogorov
            (2004); Boykov, Veksler and Zabih (2001); Edelsbrunner and Harer, <em>Computational Topology</em>.
          </p>
        </>
      }
    >
      <Choose />
      {chosen && <SurfaceFirst />}
      {chosen && <WhatItTakes />}
      {chosen && <SizeOfCast />}
      {chosen && <CastInHand />}
      <h3>How it parts</h3>
      <Seams />
      <Parts />
      <EveryKind />
      <Out />
    </StationPanel>
  );
}
