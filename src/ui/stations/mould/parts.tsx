'use client';
import { Button, Form, ProgressBar, Table } from 'react-bootstrap';
import { castKinds, flangeOf, mouldChosen, mouldKinds, peelsOut } from '../../../core/mould';
import type { Parting } from '../../../core/parting';
import { formatLength, formatMass, sensible, type UnitSystem, type Vec3 } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { partShades, shownLocks } from '../../bench/mould-drawing';
import { partingKey } from '../../bench/mould-work';
import { useMould } from '../../bench/use-mould';
import { flangeWords } from './flange-words';
import { settingOf } from './setting';
import { cavityNames, drawnWords, filledWords, partNames } from '../../bench/mould-words';

/** The parts of the mould: drawn, opened by a slider, what holds them, where it is poured. */
export function Parts() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const formKey = useBench((s) => s.picture?.formKey ?? '');
  const status = useMould((s) => s.status);
  const done = useMould((s) => s.done);
  const message = useMould((s) => s.message);
  const again = () => controller.mould.part(controller.askedOf(build), partingKey(build, formKey));
  if (status === 'working')
    return (
      <div className="mb-2">
        <ProgressBar
          now={done * 100}
          aria-label="Finding how it parts"
          visuallyHidden
          label={`${Math.round(done * 100)} %`}
        />
        <p className="small muted mb-1" role="status">
          Looking for the parting, {Math.round(done * 100)} %
        </p>
        <Button size="sm" variant="quiet" onClick={() => controller.mould.stop()}>
          Stop
        </Button>
      </div>
    );
  if (status === 'stopped' || status === 'refused')
    return (
      <>
        {status === 'refused' && <p className="wrong status-fails">Not done: {message}</p>}
        <Button size="sm" variant="iron" className="mb-2" onClick={again}>
          Find how it parts
        </Button>
      </>
    );
  return <Shown />;
}

function Shown() {
  const controller = useController();
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const parted = useMould((s) => s.parted);
  const shell = useMould((s) => s.rows?.find((r) => r.chosen)?.figures.shell?.mass ?? null);
  const open = useMould((s) => s.open);
  if (!parted) return <p className="muted">Waiting for the piece …</p>;
  const { parting } = parted;
  const { one, two } = parting.undrawn;
  const names = partNames(parting.pieces.map((p) => p.direction));
  const kind = mouldKinds.find((k) => k.id === mouldChosen(build)?.kind);
  const gives = (kind?.stretches ?? 0) > 0;
  const chosen = mouldChosen(build);
  const setting = settingOf(build);
  const flange =
    kind && chosen ? flangeOf(kind, chosen.walls, parting.pieces.length > 1 ? parting.partingLength : 0) : null;
  const covered = parting.pieces.reduce((sum, p) => sum + p.area, 0);
  // Its walls and their flanges, as they are lifted off.
  const hard = shell === null ? null : shell + (flange?.mass ?? 0);
  const peels = !gives && kind !== undefined && chosen !== null && peelsOut(kind, chosen.cast, setting);
  const hollow = (castKinds.find((c) => c.id === mouldChosen(build)?.cast)?.wall ?? null) !== null;
  return (
    <section aria-label="Parts of the mould">
      <Form.Label htmlFor="open-mould">Open it</Form.Label>
      <Form.Range
        id="open-mould"
        min={0}
        max={1}
        step={0.02}
        value={open}
        onChange={(e) => controller.mould.setOpen(Number(e.target.value))}
        aria-valuetext={`${Math.round(open * 100)} % of the way`}
      />
      <Table size="sm" aria-label="Parts of the mould">
        <thead>
          <tr>
            <th>Part</th>
            <th>Drawn</th>
            <th className="n">Face</th>
            {hard !== null && <th className="n">Weighs</th>}
            <th>Comes off</th>
          </tr>
        </thead>
        <tbody>
          {parting.pieces.map((p, i) => (
            <tr key={i}>
              <td>
                <i className="shade" style={{ background: partShades[i % partShades.length] }} aria-hidden="true" />{' '}
                {names[i]}
              </td>
              <td>{drawnWords(p.direction)}</td>
              <td className="n">{areaWords(p.area, units)}</td>
              {hard !== null && <td className="n">{formatMass((hard * p.area) / covered, units)}</td>}
              <td>{offWords(p, units, gives, peels)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <ul className="facts-list">
        {parting.behind !== null && (
          <li>
            It lies over {shareWords(covered / (covered + parting.behind))} of the face, the piece lying on its back;
            its rim is {formatLength(parting.partingLength, units)} long: bed the piece up to there.
          </li>
        )}
        {parting.pieces.length > 1 && <li>The seam is {formatLength(parting.partingLength, units)} long.</li>}
        {flange && <li>{flangeWords(flange, units)}</li>}
        {parting.cavities.length > 1 && (
          <li>
            It has {parting.cavities.length} cavities, {cavityNames(parting.cavities.map((c) => c.at)).join(' and ')}:
            cut that into each before it is laid on, so that casts are told apart.
          </li>
        )}
        {parting.shim && <li>{shimWords(parting.shim, units)}</li>}
        {one !== null && two !== null && parting.pieces.length <= 2 && (
          <li>
            Of the face, one part would leave {shareWords(one)} behind, two leave {shareWords(two)}.
          </li>
        )}
        {parting.oneMore !== null && parting.oneMore >= 0.002 && (
          <li>One part more would free {shareWords(parting.oneMore)} of the face.</li>
        )}
        {peels && (
          <li>The clay is soft and the cast gives: what holds is dug out of the mould, and the cast peeled from it.</li>
        )}
        <li>
          {lockWords(parting.locked, parting.lockedVolume, units)}
          <Locks locked={parting.locked} units={units} />
        </li>
        {gives && <li>{stretchWords(parting.stretch, kind!.stretches, parting.pieces.length)}</li>}
        {steepShare(parting.pieces) > 0.01 && !gives && (
          <li>
            {shareWords(steepShare(parting.pieces))} of it stands within three degrees of the way it is drawn: it comes
            off, and scrapes.
          </li>
        )}
        <li>{filledWords(parting, hollow, parted.stands.includes(1))}</li>
      </ul>
      <p className="small muted">Found in {sensible(parted.seconds, 2)} s.</p>
    </section>
  );
}

/** Numbered as on the piece. */
function Locks({ locked, units }: { locked: Parting['locked']; units: UnitSystem }) {
  if (locked.length === 0) return null;
  return (
    <ol className="mb-0">
      {locked.slice(0, shownLocks).map((l, i) => (
        <li key={i}>
          {formatLength(l.depth, units)} deep, {ccWords(l.volume, units)}, {placeWords(l.at, units)}
        </li>
      ))}
    </ol>
  );
}

function ccWords(volume: number, units: UnitSystem): string {
  return units === 'metric' ? `${sensible(volume * 1e6, 2)} cm³` : `${sensible(volume * 61024, 2)} in³`;
}

function placeWords([x, , z]: Vec3, units: UnitSystem): string {
  const aside =
    Math.abs(x) < 0.005 ? 'in the middle' : `${formatLength(Math.abs(x), units)} to the ${x > 0 ? 'left' : 'right'}`;
  return `${formatLength(z, units)} up, ${aside}`;
}

function areaWords(area: number, units: UnitSystem): string {
  return units === 'metric' ? `${sensible(area * 100, 2)} dm²` : `${sensible(area * 1550, 2)} in²`;
}

function shareWords(share: number): string {
  return share < 0.002 ? 'next to nothing' : `${sensible(share * 100, 2)} %`;
}

function offWords(p: Parting['pieces'][number], units: UnitSystem, gives: boolean, peels: boolean): React.ReactNode {
  if (p.travel === Infinity) return p.undrawn > 0 ? 'yes, but for specks' : 'yes';
  const share = shareWords(p.undrawn / p.area);
  if (gives) return `gives way round ${share}`;
  if (peels) return `${share} is dug out`;
  return (
    <span className="status-fails">
      held by {share}
      {p.travel > 0.001 ? ` after ${formatLength(p.travel, units)}` : ''}
    </span>
  );
}

function lockWords(locked: Parting['locked'], volume: number, units: UnitSystem): string {
  const [deepest] = locked;
  if (!deepest) return 'No place is closed in from every side.';
  const many = locked.length === 1 ? 'One place is' : `${locked.length} places are`;
  return `${many} closed in whichever way it is drawn, the deepest ${formatLength(deepest.depth, units)}: fill ${ccWords(volume, units)} of clay there, or make it in more parts.`;
}

function stretchWords(stretch: Parting['stretch'], tears: number, parts: number): string {
  const handles =
    stretch.handles > 0
      ? ` There ${stretch.handles === 1 ? 'is a hole' : `are ${stretch.handles} holes`} through it: it is cut there.`
      : '';
  if (parts > 1) return `The skin gives round undercuts.${handles}`;
  const share = sensible(stretch.share * 100, 2);
  return stretch.share <= tears / 2
    ? `Drawn off in one it stretches by ${share} % at its narrowest, which it stands.${handles}`
    : `Drawn off in one it would stretch by ${share} %, more than half of what tears it: cut it open.${handles}`;
}

function shimWords(shim: NonNullable<Parting['shim']>, units: UnitSystem): string {
  const points = shim.outlines.flat();
  const span = (k: 0 | 1) => Math.max(...points.map((p) => p[k])) - Math.min(...points.map((p) => p[k]));
  return `The shim runs ${formatLength(shim.length, units)} along the face; it is cut from a strip that long, or from a sheet ${formatLength(span(0), units)} by ${formatLength(span(1), units)}.`;
}

function steepShare(pieces: Parting['pieces']): number {
  const sum = (k: 'steep' | 'area') => pieces.reduce((all, p) => all + p[k], 0);
  return sum('steep') / Math.max(1e-9, sum('area'));
}
