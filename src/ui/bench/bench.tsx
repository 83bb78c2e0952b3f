'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { Redo2, Undo2 } from 'lucide-react';
import { clays } from '../../core/catalogue';
import { sensible } from '../../core/quantity';
import { useWays, type Ways } from '../parts/appearance';
import { HouseMark, Plumb } from '../parts/plumb';
import { stationStatus } from '../parts/judgement';
import { stations } from '../stations/stations';
import { SessionFeed } from '../session/feed';
import { BenchController, type OpenedBuild } from './controller';
import { BenchProvider, useBench, useController } from './context';
import PieceView from './piece-view';
import { ScaleBeam } from './scale-beam';
import { ShortcutsCard } from './shortcuts';

function Rail() {
  const controller = useController();
  const report = useBench((s) => s.report);
  const current = useBench((s) => s.station);
  // On a phone the rail runs sideways: keep the current station in sight.
  useEffect(() => {
    // Braces matter: newer browsers return a promise here, which is no clean-up.
    document.querySelector('.rail [aria-current="step"]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [current]);
  return (
    <nav className="rail" aria-label="Stations">
      <ol>
        {stations.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              aria-current={s.id === current ? 'step' : undefined}
              onClick={() => controller.go(s.id)}
            >
              <Plumb
                status={s.marked ? stationStatus(report, s.id) : 'unknown'}
                size={28}
                label={s.marked ? undefined : 'No verdict'}
              />{' '}
              {s.name}
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}

function SaveLine() {
  const save = useBench((s) => s.save);
  const savedAt = useBench((s) => s.savedAt);
  const message = useBench((s) => s.saveMessage);
  const time = savedAt ? new Date(savedAt).toTimeString().slice(0, 5) : '';
  const words = {
    saved: time ? `Saved ${time}` : 'Saved',
    waiting: 'Not saved yet',
    saving: 'Saving …',
    unreachable: 'Server not reached: trying again',
    refused: `Not saved: ${message}`,
  }[save];
  return (
    <span className="save" role="status" data-testid="save">
      {words}
    </span>
  );
}

function Head({ ways, change, onKeys }: { ways: Ways; change: (w: Partial<Ways>) => void; onKeys: () => void }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const past = useBench((s) => s.history.past);
  const future = useBench((s) => s.history.future);
  const units = useBench((s) => s.units);
  const clay =
    build.materials.values.clays[build.brief.clay]?.name ?? clays.get(build.brief.clay)?.name ?? build.brief.clay;
  return (
    <header className="bench-head">
      <Link href="/" aria-label="To the shelf">
        <HouseMark />
      </Link>
      <h1>{build.name}</h1>
      <span className="facts">
        {sensible(build.form.start.size * 100)} % of life · {clay}
      </span>
      <span className="grow" />
      <SaveLine />
      <Button
        size="sm"
        variant="quiet"
        disabled={past.length === 0}
        onClick={() => controller.undo()}
        aria-label={past.length > 0 ? `Undo: ${past[past.length - 1]?.label ?? ''}` : 'Undo'}
        title={past[past.length - 1]?.label}
      >
        <Undo2 size={16} /> <span className="word">Undo</span>
      </Button>
      <Button
        size="sm"
        variant="quiet"
        disabled={future.length === 0}
        onClick={() => controller.redo()}
        aria-label={future.length > 0 ? `Do again: ${future[0]?.label ?? ''}` : 'Do again'}
        title={future[0]?.label}
      >
        <Redo2 size={16} /> <span className="word">Again</span>
      </Button>
      <Dropdown align="end">
        <Dropdown.Toggle size="sm" variant="quiet" id="ways">
          {units === 'metric' ? 'mm, kg' : 'in, lb'}
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Item
            onClick={() => {
              change({ units: 'metric' });
              controller.setUnits('metric');
            }}
          >
            Millimetres, kilograms
          </Dropdown.Item>
          <Dropdown.Item
            onClick={() => {
              change({ units: 'imperial' });
              controller.setUnits('imperial');
            }}
          >
            Inches, pounds
          </Dropdown.Item>
          <Dropdown.Divider />
          <Dropdown.Item onClick={() => change({ theme: 'day' })}>Day colours</Dropdown.Item>
          <Dropdown.Item onClick={() => change({ theme: 'evening' })}>Evening colours</Dropdown.Item>
          <Dropdown.Item onClick={() => change({ theme: 'system' })}>As this machine</Dropdown.Item>
          <Dropdown.Divider />
          <Dropdown.Item onClick={() => change({ motion: !ways.motion })}>
            {ways.motion ? 'Keep things still' : 'Let things move'}
          </Dropdown.Item>
          <Dropdown.Item href={`/api/builds/${controller.id}/export`}>Take this build out as a file</Dropdown.Item>
          <Dropdown.Item href={`/api/builds/${controller.id}/export?whole`}>
            The same with its log and pictures
          </Dropdown.Item>
          <Dropdown.Item href={`/build/${controller.id}/print`} target="_blank">
            Cut list and shopping, to print
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      <Button size="sm" variant="quiet" onClick={onKeys} aria-label="Keys">
        ?
      </Button>
    </header>
  );
}

function Sibling() {
  const controller = useController();
  const sibling = useBench((s) => s.sibling);
  if (!sibling) return null;
  return (
    <div className="tray" role="alert">
      <span>This build was changed elsewhere meanwhile; that version is shown. Yours is kept as “{sibling.name}”.</span>
      <button
        type="button"
        onClick={() => {
          window.location.href = `/build/${sibling.id}`;
        }}
      >
        Open mine
      </button>
      <button type="button" onClick={() => controller.dismissSibling()}>
        Stay here
      </button>
    </div>
  );
}

function Notice() {
  const controller = useController();
  const notice = useBench((s) => s.notice);
  if (!notice) return null;
  return (
    <div className="tray" role="note">
      <span>{notice}</span>
      <button type="button" onClick={() => controller.dismissNotice()}>
        Close
      </button>
    </div>
  );
}

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);

function useKeys(controller: BenchController, onKeys: () => void, change: (w: Partial<Ways>) => void) {
  useEffect(() => {
    const act = (event: KeyboardEvent) => {
      const meta = event.ctrlKey || event.metaKey;
      if (meta && event.key.toLowerCase() === 'z' && !typing(event.target)) {
        if (event.shiftKey) controller.redo();
        else controller.undo();
        event.preventDefault();
        return;
      }
      if (meta || event.altKey || typing(event.target)) return;
      const station = stations.find((s) => s.key === event.key);
      if (station) controller.go(station.id);
      else if (event.key === '?') onKeys();
      else if (event.key === 'c') window.location.href = `/build/${controller.id}/tonight`;
      else if (event.key === 'p') window.open(`/build/${controller.id}/print`, '_blank');
      else if (event.key === 'u') {
        const units = controller.state.units === 'metric' ? 'imperial' : 'metric';
        controller.setUnits(units);
        change({ units });
      } else if (event.key === 'm') {
        const stages = controller.state.report?.lifeStages ?? [];
        const at = stages.findIndex((m) => m.stage === controller.state.lifeStage);
        const next = stages[(at + 1) % Math.max(1, stages.length)];
        if (next) controller.showStage(next.stage);
      } else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', act);
    return () => window.removeEventListener('keydown', act);
  });
}

function Shell({ dark, ways, change }: { dark: boolean; ways: Ways; change: (w: Partial<Ways>) => void }) {
  const controller = useController();
  const station = useBench((s) => s.station);
  const announcement = useBench((s) => s.announcement);
  const [keys, setKeys] = useState(false);
  useKeys(controller, () => setKeys(true), change);
  const at = stations.find((s) => s.id === station) ?? stations[0]!;
  const Panel = at.panel;
  return (
    <div className="bench" data-station={station}>
      <Head ways={ways} change={change} onKeys={() => setKeys(true)} />
      <Rail />
      {at.shows === 'nothing' ? <div className="view" hidden /> : <PieceView dark={dark} shows={at.shows} />}
      <main className="panel">
        <Panel key={station} />
      </main>
      <ScaleBeam />
      <Sibling />
      <Notice />
      <div className="visually-hidden" role="status" aria-live="polite">
        {announcement}
      </div>
      <ShortcutsCard open={keys} onClose={() => setKeys(false)} />
    </div>
  );
}

/** One build open on the bench. */
export default function Bench({
  opened,
  ways: initial,
  station,
}: {
  opened: OpenedBuild;
  ways: Ways;
  station: string | null;
}) {
  const { ways, dark, change } = useWays(initial);
  const controller = useMemo(
    () => new BenchController(opened, initial.units, stations.find((s) => s.id === station)?.id ?? 'brief'),
    // One controller for the life of the page: later props are echoes of its own saves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [opened.id],
  );
  useEffect(() => controller.start(), [controller]);
  return (
    <BenchProvider value={controller}>
      <SessionFeed latest={opened.latest}>
        <Shell dark={dark} ways={ways} change={change} />
      </SessionFeed>
    </BenchProvider>
  );
}
