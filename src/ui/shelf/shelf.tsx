'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Dropdown, Form, Modal } from 'react-bootstrap';
import { clays } from '../../core/catalogue';
import { findStartForm, startForms } from '../../core/form';
import { formatDate, formatMass, sensible } from '../../core/quantity';
import type { BuildCard } from '../../core/evaluate';
import type { StationId } from '../../core/finding';
import { useWays, type Ways } from '../parts/appearance';
import { call } from '../parts/http';
import { useInUse } from '../parts/in-use';
import LongList, { type Place } from '../parts/long-list';
import { HouseMark, Plumb } from '../parts/plumb';

export interface ShelfPiece {
  readonly id: string;
  readonly name: string;
  readonly archived: boolean;
  readonly brief: { readonly clay: string; readonly size: number };
  readonly card: BuildCard;
  /** Else a newer card is being worked out. */
  readonly fresh: boolean;
}

/** The piece as it will look with its clay on. */
function Picture({ card, fresh }: Pick<ShelfPiece, 'card' | 'fresh'>) {
  if (card.picture === null)
    return <span className="muted p-3">{card.problem ?? (fresh ? 'No picture' : 'Being worked out …')}</span>;
  // The name stands under it, and says as much.
  return <img src={card.picture} alt="" width={270} height={176} loading="lazy" />;
}

const markNames: readonly (readonly [StationId, string])[] = [
  ['load', 'holds'],
  ['drying', 'dries'],
  ['brief', 'on time'],
];

function PieceCard({
  piece,
  ways,
  act,
  place,
}: {
  piece: ShelfPiece;
  ways: Ways;
  place: Place;
  act: (piece: ShelfPiece, what: 'copy' | 'archive' | 'unarchive' | 'delete') => void;
}) {
  const { summary, dates, verdicts } = piece.card;
  return (
    <li className="piece-card" {...place}>
      <div className="picture">
        <Picture card={piece.card} fresh={piece.fresh} />
      </div>
      <div className="body">
        <h2>
          <Link href={`/build/${piece.id}`}>{piece.name}</Link>
        </h2>
        <div className="muted small">
          {sensible(piece.brief.size * 100)} % of life · {clays.get(piece.brief.clay)?.name ?? piece.brief.clay}
        </div>
        <ul className="marks">
          {markNames.map(([id, name]) => (
            <li key={id}>
              <Plumb status={verdicts[id] ?? 'unknown'} size={19} /> {name}
            </li>
          ))}
        </ul>
        {summary && (
          <div className="small">
            {formatMass(summary.wet, ways.units)} wet, {formatMass(summary.dry, ways.units)} dry
            {dates?.ready && (
              <div data-testid="card-ready" className={piece.fresh ? '' : 'muted'}>
                ready {formatDate(dates.ready.likely)}
                {dates.dryThrough ? `, dry through ${formatDate(dates.dryThrough.likely)}` : ''}
              </div>
            )}
          </div>
        )}
        <div className="acts">
          <Link className="btn btn-iron btn-sm" href={`/build/${piece.id}`} aria-label={`Open ${piece.name}`}>
            Open
          </Link>
          <Button size="sm" variant="quiet" onClick={() => act(piece, 'copy')} aria-label={`Copy ${piece.name}`}>
            Copy
          </Button>
          <Button
            size="sm"
            variant="quiet"
            onClick={() => act(piece, piece.archived ? 'unarchive' : 'archive')}
            aria-label={`${piece.archived ? 'Bring back' : 'Put away'} ${piece.name}`}
          >
            {piece.archived ? 'Bring back' : 'Put away'}
          </Button>
          <Button size="sm" variant="quiet" onClick={() => act(piece, 'delete')} aria-label={`Delete ${piece.name}`}>
            Delete
          </Button>
        </div>
      </div>
    </li>
  );
}

function NewBuild({ open, onClose, today }: { open: boolean; onClose: () => void; today: string }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [kind, setKind] = useState('bust');
  const [type, setType] = useState('');
  const [size, setSize] = useState('100');
  const [start, setStart] = useState(today);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const chosen = findStartForm(kind);
  const choose = (id: string) => {
    setKind(id);
    setType('');
    setSize(sensible((findStartForm(id)?.usualSize ?? 1) * 100));
  };
  const make = async () => {
    const share = Number(size.replace('%', '').replace(',', '.').trim()) / 100;
    if (!Number.isFinite(share)) {
      setWrong('The size is a percentage of life size, such as 75.');
      return;
    }
    setBusy(true);
    const answer = await call<{ id: string }>('POST', '/api/builds', {
      name,
      startDate: start,
      size: share,
      form: kind,
      ...(type === '' ? {} : { type }),
    });
    setBusy(false);
    if (answer.ok) router.push(`/build/${answer.value.id}`);
    else setWrong(`${answer.path ? `${answer.path}: ` : ''}${answer.message}`);
  };
  return (
    <Modal show={open} onHide={onClose} centered aria-labelledby="new-title">
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="new-title" as="h2" className="h5">
            A new build
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p className="muted">
            A few answers are enough to start; everything else has a sensible beginning and can be changed on the bench.
          </p>
          <div className="field">
            <label htmlFor="new-name">What do you call it?</label>
            <Form.Control
              id="new-name"
              autoFocus
              value={name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
          </div>
          <div className="field">
            <label htmlFor="new-form">What is it?</label>
            <Form.Select id="new-form" value={kind} onChange={(e) => choose(e.target.value)}>
              {startForms.map((f) => (
                <option key={f.kind} value={f.kind}>
                  {f.name}
                </option>
              ))}
            </Form.Select>
            <div className="hint">{chosen?.when}</div>
          </div>
          {chosen?.types && (
            <div className="field">
              <label htmlFor="new-type">To the measures of</label>
              <Form.Select id="new-type" value={type} onChange={(e) => setType(e.target.value)}>
                {chosen.types.map((t, i) => (
                  <option key={t.id} value={i === 0 ? '' : t.id}>
                    {t.name}
                  </option>
                ))}
              </Form.Select>
            </div>
          )}
          <div className="pairs">
            <div className="field">
              <label htmlFor="new-size">Size, % of life</label>
              <Form.Control id="new-size" inputMode="decimal" value={size} onChange={(e) => setSize(e.target.value)} />
            </div>
            <div className="field">
              <label htmlFor="new-start">Clay goes on</label>
              <Form.Control id="new-start" type="date" value={start} onChange={(e) => setStart(e.target.value)} />
            </div>
          </div>
          {wrong && (
            <p className="status-fails" role="alert">
              {wrong}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="quiet" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" variant="iron" disabled={busy}>
            Put it on the bench
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}

const cardColumns = { least: 255, gap: 17.6 };

/** Cards that are old are worked out beside the server when they are looked at, and asked for again until they are there. */
function useNewerCards(seen: readonly ShelfPiece[], pieces: readonly ShelfPiece[]): ReadonlyMap<string, ShelfPiece> {
  const [newer, setNewer] = useState<ReadonlyMap<string, ShelfPiece>>(new Map());
  // What the page brings anew takes the place of what was asked for before it.
  useEffect(() => setNewer(new Map()), [pieces]);
  const old = seen.filter((p) => !(newer.get(p.id) ?? p).fresh).map((p) => p.id);
  const ids = old.join();
  useEffect(() => {
    if (ids === '') return;
    let over = false;
    const ask = async () => {
      const answer = await call<ShelfPiece[]>('GET', `/api/cards?ids=${ids}`);
      if (answer.ok && !over) setNewer((m) => new Map([...m, ...answer.value.map((p) => [p.id, p] as const)]));
    };
    void ask();
    const timer = setInterval(() => void ask(), 1500);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [ids]);
  return newer;
}

/** The shelf of builds. */
export default function Shelf({
  pieces,
  ways: initial,
  today,
  aside = [],
}: {
  pieces: readonly ShelfPiece[];
  ways: Ways;
  today: string;
  /** What was kept, could not be read and was set aside. */
  aside?: readonly { readonly name: string; readonly at: string }[];
}) {
  const router = useRouter();
  const { ways, change } = useWays(initial);
  const [making, setMaking] = useState(false);
  const [away, setAway] = useState(false);
  const [tray, setTray] = useState<{ text: string; undo: (() => void) | null } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const [search, setSearch] = useState('');
  const [seen, setSeen] = useState<readonly ShelfPiece[]>([]);
  const newer = useNewerCards(seen, pieces);
  const mark = async (id: string, what: string) => {
    const answer = await call('POST', `/api/builds/${id}/mark`, { mark: what });
    if (!answer.ok) setTray({ text: answer.message, undo: null });
    router.refresh();
    return answer.ok;
  };
  const act = async (piece: ShelfPiece, what: 'copy' | 'archive' | 'unarchive' | 'delete') => {
    if (what === 'copy') {
      const answer = await call<{ id: string }>('POST', `/api/builds/${piece.id}/copy`);
      setTray({ text: answer.ok ? `${piece.name} copied.` : answer.message, undo: null });
      router.refresh();
      return;
    }
    if (!(await mark(piece.id, what))) return;
    const back = { archive: 'unarchive', unarchive: 'archive', delete: 'restore' }[what];
    const said = { archive: 'put away', unarchive: 'back on the shelf', delete: 'deleted' }[what];
    setTray({ text: `${piece.name} ${said}.`, undo: () => void mark(piece.id, back).then(() => setTray(null)) });
  };
  const bringIn = async (chosen: File | undefined) => {
    if (!chosen) return;
    const packed = chosen.name.endsWith('.gz');
    if (!packed && chosen.size > 8_000_000) {
      setTray({ text: `${chosen.name}: a build file is at most 8 MB.`, undo: null });
      return;
    }
    setTray({ text: `Bringing in ${chosen.name} …`, undo: null });
    const answer = packed
      ? await call<{ id: string }>('POST', '/api/builds/import', chosen)
      : await call<{ id: string }>('POST', '/api/builds?file', await chosen.text());
    if (answer.ok) {
      setTray({ text: `${chosen.name} is on the shelf.`, undo: null });
      router.refresh();
    } else
      setTray({
        text: `${chosen.name}: ${answer.path ? `${answer.path}: ` : ''}${answer.message}. Nothing was changed.`,
        undo: null,
      });
  };
  const wanted = search.trim().toLowerCase();
  const shown = useMemo(
    () =>
      pieces
        .filter((p) => p.archived === away)
        .filter(
          (p) => wanted === '' || `${p.name} ${clays.get(p.brief.clay)?.name ?? ''}`.toLowerCase().includes(wanted),
        ),
    [pieces, away, wanted],
  );
  const inUse = useInUse();
  const awayCount = pieces.filter((p) => p.archived).length;
  return (
    <div className="shelf">
      <header>
        <HouseMark />
        <h1>Sostegno</h1>
        <span className="muted">what holds it up, and when it is dry</span>
        <span className="grow" />
        <Button variant="iron" disabled={!inUse} onClick={() => setMaking(true)}>
          New build
        </Button>
        <Button variant="quiet" disabled={!inUse} onClick={() => file.current?.click()}>
          Bring in a file
        </Button>
        <Link className="btn btn-quiet" href="/stock">
          Stock
        </Link>
        <input
          ref={file}
          type="file"
          accept="application/json,.json,.gz"
          hidden
          aria-label="Build file"
          onChange={(e) => {
            void bringIn(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
        <Dropdown align="end">
          <Dropdown.Toggle variant="quiet" id="shelf-ways">
            {ways.units === 'metric' ? 'mm, kg' : 'in, lb'}
          </Dropdown.Toggle>
          <Dropdown.Menu>
            <Dropdown.Item onClick={() => change({ units: 'metric' })}>Millimetres, kilograms</Dropdown.Item>
            <Dropdown.Item onClick={() => change({ units: 'imperial' })}>Inches, pounds</Dropdown.Item>
            <Dropdown.Divider />
            <Dropdown.Item onClick={() => change({ theme: 'day' })}>Day colours</Dropdown.Item>
            <Dropdown.Item onClick={() => change({ theme: 'evening' })}>Evening colours</Dropdown.Item>
            <Dropdown.Item onClick={() => change({ theme: 'system' })}>As this machine</Dropdown.Item>
            <Dropdown.Divider />
            <Dropdown.Item onClick={() => void call('POST', '/api/demo').then(() => router.refresh())}>
              Load the demo data again
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </header>
      <main>
        {aside.map(({ name, at }) => (
          <p key={at} className="status-watch" role="status">
            {name}: what was kept could not be read on {formatDate(at.slice(0, 10))} and was set aside; the usual
            stands. Set it again, or put a backup in.
          </p>
        ))}
        {pieces.length > 12 && (
          <Form.Control
            type="search"
            className="mb-3"
            style={{ maxWidth: '20rem' }}
            aria-label="Find on the shelf"
            placeholder="find a piece or a clay"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        )}
        {shown.length === 0 && wanted !== '' ? (
          <p className="muted">No piece here has “{search}” in it.</p>
        ) : shown.length === 0 ? (
          <div className="empty">
            <h2 className="h4">{away ? 'Nothing is put away.' : 'The shelf is empty.'}</h2>
            {!away && (
              <>
                <p>Start a bust with three answers, or bring in a build file somebody gave you.</p>
                <Button variant="iron" disabled={!inUse} onClick={() => setMaking(true)}>
                  New build
                </Button>
              </>
            )}
          </div>
        ) : (
          <LongList items={shown} className="boards" estimate={385} gap={22} columns={cardColumns} onShown={setSeen}>
            {(p, _, place) => (
              <PieceCard
                key={p.id}
                piece={newer.get(p.id) ?? p}
                ways={ways}
                place={place}
                act={(x, w) => void act(x, w)}
              />
            )}
          </LongList>
        )}
        {(awayCount > 0 || away) && (
          <p className="mt-4">
            <Button variant="quiet" size="sm" onClick={() => setAway(!away)}>
              {away ? 'Back to the shelf' : `Put away: ${awayCount}`}
            </Button>
          </p>
        )}
      </main>
      {tray && (
        <div className="tray" role="status">
          <span>{tray.text}</span>
          {tray.undo && (
            <button type="button" onClick={tray.undo}>
              Undo
            </button>
          )}
          <button type="button" onClick={() => setTray(null)}>
            Close
          </button>
        </div>
      )}
      <NewBuild open={making} onClose={() => setMaking(false)} today={today} />
    </div>
  );
}
