'use client';
import { Button, Form } from 'react-bootstrap';
import { layersOver, layersUnder, type LayerKind } from '../../../core/catalogue';
import type { Layers } from '../../../core/document';
import {
  coatColours,
  coatsOf,
  fromTheBaseUp,
  layersOf,
  layersOverClay,
  layersUnderClay,
  stagesOf,
} from '../../../core/clay';
import { formatLength } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { ChoiceInput, QuantityInput } from '../../parts/fields';

const colours = [
  { id: 'own', name: 'its own' },
  { id: 'white', name: 'white' },
  { id: 'dyed', name: 'dyed' },
];

/** A list of layers with what may be added to it. */
function Stacked({
  label,
  has,
  may,
  none,
  onSet,
}: {
  label: string;
  has: readonly LayerKind[];
  may: readonly LayerKind[];
  none: string;
  onSet: (ids: string[]) => void;
}) {
  return (
    <div className="field stacked">
      <span className="label">{label}</span>
      {has.length === 0 && <p className="muted small mb-1">{none}</p>}
      <ol>
        {has.map((l, i) => (
          <li key={`${l.id}-${i}`}>
            <span>
              {l.name}
              {l.note ? <span className="muted small">: {l.note}</span> : null}
            </span>
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Take away: ${l.name}`}
              onClick={() => onSet(has.filter((_, k) => k !== i).map((x) => x.id))}
            >
              Take away
            </Button>
          </li>
        ))}
      </ol>
      <Form.Select
        size="sm"
        aria-label={`${label}: add`}
        value=""
        onChange={(e) => {
          if (e.target.value) onSet([...has.map((x) => x.id), e.target.value]);
        }}
      >
        <option value="">Add …</option>
        {may.map((l) => (
          <option key={l.id} value={l.id}>
            {l.name}
          </option>
        ))}
      </Form.Select>
    </div>
  );
}

/** One region from the core out: what lies under the clay, its coats and the stage each goes on in, what lies over it. */
export function StackOf({ region, name, open }: { region: string; name: string; open: boolean }) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const coats = coatsOf(build, region);
  const stages = stagesOf(build, region);
  const shades = coatColours(build, region);
  const under = layersUnderClay(build, region);
  const over = layersOverClay(build, region);
  const wraps = useBench((s) => s.picture?.armature);
  const schoolWrap = layersUnder.filter((l) => l.id === wraps?.wrap);
  const put = (by: Partial<Layers>, label: string) => {
    const next: Record<string, unknown> = { ...layersOf(build, region), ...by };
    for (const k of Object.keys(next)) if (next[k] === undefined) delete next[k];
    return controller.edit({ label, changes: [{ path: ['regions', 'own', region], value: next }] })?.message ?? null;
  };
  const setCoats = (next: readonly number[], label: string, more: Partial<Layers> = {}) =>
    put({ coats: [...next], ...more }, label);
  const below = under ?? schoolWrap;
  return (
    <details className="region-stack" open={open}>
      <summary>
        <strong>{name}</strong>: {coats.map((t) => formatLength(t, units)).join(' and ')} over{' '}
        {below.length > 0 ? below.map((l) => l.name).join(', ') : 'its filling'}
        {over.length > 0 ? `, under ${over.map((l) => l.name).join(', ')}` : ''}
      </summary>
      <fieldset className="mb-2">
        <legend className="visually-hidden">{name}</legend>
        <Stacked
          label="Under the clay"
          has={below}
          may={layersUnder}
          none="nothing: the clay lies on the filling"
          onSet={(ids) => put({ under: ids.slice(0, 5) }, `${name}: layers under the clay`)}
        />
        {coats.map((t, i) => (
          <div className="pairs" key={i}>
            <QuantityInput
              label={coats.length > 1 ? `Coat ${i + 1}` : 'Thickness'}
              kind="length"
              value={t}
              onCommit={(v) =>
                v === null
                  ? 'A coat needs a thickness.'
                  : setCoats(
                      coats.map((c, k) => (k === i ? v : c)),
                      `${name}, coat ${i + 1}`,
                    )
              }
            />
            <QuantityInput
              label="Goes on in stage"
              kind="number"
              value={stages[i] ?? i + 1}
              onCommit={(v) =>
                v === null || !Number.isInteger(v)
                  ? 'A whole number, from 1.'
                  : put({ stages: stages.map((s, k) => (k === i ? v : s)) }, `${name}, coat ${i + 1} in stage ${v}`)
              }
            />
            <ChoiceInput
              label="Colour"
              value={shades[i] ?? 'own'}
              choices={colours}
              onChoose={(c) =>
                put(
                  { colours: shades.map((s, k) => (k === i ? (c as typeof s) : s)) },
                  `${name}, coat ${i + 1}: colour`,
                )
              }
            />
          </div>
        ))}
        <div className="beside">
          {coats.length < 4 && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() =>
                setCoats([...coats, coats[coats.length - 1] ?? 0.005], `${name}: one more coat`, { stages: undefined })
              }
            >
              Add a coat
            </Button>
          )}
          {coats.length > 1 && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() => setCoats(coats.slice(0, -1), `${name}: one coat fewer`, { stages: undefined })}
            >
              Take one away
            </Button>
          )}
          {under && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() => put({ under: undefined }, `${name}: as the armature has it`)}
            >
              Under it as the armature has it
            </Button>
          )}
        </div>
        <Stacked
          label="Over the clay"
          has={over}
          may={layersOver}
          none="nothing"
          onSet={(ids) => put({ over: ids.slice(0, 3) }, `${name}: layers over the clay`)}
        />
      </fieldset>
    </details>
  );
}

/** Regions from the base up, each a stage after the one below. */
export function LayingOrder() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  if (!report || report.regions.length < 2) return null;
  const rising = fromTheBaseUp(report.regions.filter((r) => r.clayVolume > 0));
  const byRegion = () =>
    controller.edit({
      label: 'Laid from the base upward',
      changes: rising.map((r, n) => ({
        path: ['regions', 'own', r.id],
        value: { ...layersOf(build, r.id), stages: coatsOf(build, r.id).map((_, k) => Math.min(8, n + 1 + k)) },
      })),
    });
  const together = () =>
    controller.edit({
      label: 'All regions laid together',
      changes: rising.map((r) => ({
        path: ['regions', 'own', r.id],
        value: Object.fromEntries(Object.entries(layersOf(build, r.id)).filter(([k]) => k !== 'stages')),
      })),
    });
  return (
    <p className="small">
      From the base upward the order is {rising.map((r) => r.name).join(', ')}: what is below carries what comes.{' '}
      <Button size="sm" variant="quiet" onClick={byRegion}>
        A stage for each, from the base
      </Button>{' '}
      <Button size="sm" variant="quiet" onClick={together}>
        All in one stage
      </Button>
    </p>
  );
}

/** Thicker and thinner places, painted on the piece. */
export function Painting() {
  const controller = useController();
  const painted = useBench((s) => s.build.regions.painted);
  const brush = useBench((s) => s.brush);
  const picking = useBench((s) => s.picking);
  const units = useBench((s) => s.units);
  const size = useBench((s) => s.build.form.start.size);
  const outward = useBench(
    (s) => s.picture?.masses.some((m) => m.role === 'core' || m.shape.kind === 'shell') ?? false,
  );
  if (outward)
    return (
      <p className="muted small">On this form the clay stands outside an object: its thickness is typed, by region.</p>
    );
  return (
    <>
      <h3>Thicker and thinner places</h3>
      <div className="pairs">
        <QuantityInput
          label="Brush"
          kind="length"
          value={brush.radius}
          onCommit={(v) => {
            if (v === null || v < 0.004) return 'At least 4 mm.';
            controller.setBrush({ ...brush, radius: v });
            return null;
          }}
        />
        <QuantityInput
          label="Thicker by (minus for thinner)"
          kind="length"
          value={brush.by}
          onCommit={(v) => {
            if (v === null || Math.abs(v) > 0.05) return 'At most 50 mm either way.';
            controller.setBrush({ ...brush, by: v });
            return null;
          }}
        />
      </div>
      <div className="beside">
        <Button
          size="sm"
          variant="quiet"
          active={picking === 'paint'}
          aria-pressed={picking === 'paint'}
          onClick={() => controller.pickFor(picking === 'paint' ? null : 'paint')}
        >
          {picking === 'paint' ? 'Touch the piece …' : 'Paint on the piece'}
        </Button>
        {painted.length > 0 && (
          <Button
            size="sm"
            variant="quiet"
            onClick={() =>
              controller.edit({
                label: 'Painted thickness cleared',
                changes: [{ path: ['regions', 'painted'], value: [] }],
              })
            }
          >
            Clear them
          </Button>
        )}
      </div>
      {painted.length > 0 && (
        <ul className="small">
          {painted.map((p, i) => (
            <li key={i}>
              {p.by > 0 ? '+' : '−'}
              {formatLength(Math.abs(p.by * size), units)} within {formatLength(p.radius * size, units)},{' '}
              {formatLength(p.at[2] * size, units)} up, {formatLength(Math.abs(p.at[0] * size), units)} to the{' '}
              {p.at[0] >= 0 ? 'left' : 'right'}{' '}
              <Button
                size="sm"
                variant="quiet"
                aria-label={`Take away stroke ${i + 1}`}
                onClick={() =>
                  controller.edit({
                    label: 'Stroke taken away',
                    changes: [{ path: ['regions', 'painted'], value: painted.filter((_, k) => k !== i) }],
                  })
                }
              >
                Take away
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

const seamKinds = [
  { id: 'scored-slipped', name: 'scored and slipped' },
  { id: 'slipped', name: 'slip alone' },
  { id: 'scored', name: 'scored, dry' },
  { id: 'pressed', name: 'pressed alone' },
];

export function Seams() {
  const controller = useController();
  const seams = useBench((s) => s.build.regions.seams);
  const regions = (useBench((s) => s.report?.regions) ?? []).filter((r) => r.clayVolume > 0);
  if (regions.length < 2 && seams.length === 0) return null;
  const set = (next: typeof seams, label: string) =>
    controller.edit({ label, changes: [{ path: ['regions', 'seams'], value: next }] })?.message ?? null;
  const choices = regions.map((r) => ({ id: r.id, name: r.name }));
  return (
    <>
      <h3>Seams</h3>
      {seams.map((s, i) => {
        const put = (by: Partial<typeof s>) =>
          set(
            seams.map((x, k) => (k === i ? { ...x, ...by } : x)),
            `Seam ${s.name}`,
          );
        return (
          <div className="pairs" key={i}>
            <ChoiceInput
              label={`${s.name}: between`}
              value={s.regions[0]}
              choices={choices}
              onChoose={(r) => put({ regions: [r, s.regions[1]] })}
            />
            <ChoiceInput
              label="and"
              value={s.regions[1]}
              choices={choices}
              onChoose={(r) => put({ regions: [s.regions[0], r] })}
            />
            <ChoiceInput
              label="Made"
              value={s.made}
              choices={seamKinds}
              onChoose={(made) => put({ made: made as typeof s.made })}
            />
            <div className="beside">
              <Button
                size="sm"
                variant="quiet"
                onClick={() =>
                  set(
                    seams.filter((_, k) => k !== i),
                    'Seam taken away',
                  )
                }
              >
                Take away
              </Button>
            </div>
          </div>
        );
      })}
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          set(
            [
              ...seams,
              {
                name: `seam ${seams.length + 1}`,
                regions: [regions[0]?.id ?? 'head', regions[1]?.id ?? 'neck'],
                made: 'scored-slipped',
              },
            ],
            'A seam placed',
          )
        }
      >
        Place a seam
      </Button>
    </>
  );
}
