'use client';
import { useState } from 'react';
import dynamic from 'next/dynamic';
import { Button, Form } from 'react-bootstrap';
import { formatDuration, type UnitSystem } from '../../core/quantity';
import { useBench, useController } from '../bench/context';
import type { Draft, DraftLists } from './drafts';

const PieceView = dynamic(() => import('../bench/piece-view'), {
  ssr: false,
  loading: () => <p className="muted">Setting it on the turntable …</p>,
});

/** Fields of the kind of entry that is being written. */
interface Props {
  readonly draft: Draft;
  readonly units: UnitSystem;
  readonly lists: DraftLists;
  readonly tareHint: string;
  readonly places: readonly string[];
  readonly onChange: (d: Draft) => void;
  readonly onFile: (file: File | null) => void;
}

function Text({
  id,
  label,
  value,
  placeholder,
  onChange,
  list,
  most = 80,
}: {
  id: string;
  label: string;
  value: string;
  placeholder?: string;
  list?: string;
  most?: number;
  onChange: (v: string) => void;
}) {
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <Form.Control
        id={id}
        className="big"
        autoComplete="off"
        inputMode={id === 'log-where' ? 'text' : 'decimal'}
        value={value}
        placeholder={placeholder}
        list={list}
        maxLength={most}
        onChange={(e) => onChange(e.target.value)}
      />
    </div>
  );
}

export function EntryFields({ draft, units, lists, tareHint, places, onChange, onFile }: Props) {
  const metric = units === 'metric';
  const first = (v: string) => onChange({ ...draft, first: v }),
    second = (v: string) => onChange({ ...draft, second: v }),
    text = (v: string) => onChange({ ...draft, text: v }),
    pick = (v: string) => onChange({ ...draft, pick: v });
  const where = (
    <>
      <Text id="log-where" label="Where on the piece" value={draft.text} list="log-places" onChange={text} />
      <datalist id="log-places">
        {places.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
    </>
  );
  switch (draft.kind) {
    case 'weigh-in':
      return (
        <div className="pairs">
          <Text
            id="log-first"
            label="On the scale"
            value={draft.first}
            placeholder={metric ? '6.85' : '15 lb 2 oz'}
            onChange={first}
          />
          <Text
            id="log-second"
            label="Tare: board, stand"
            value={draft.second}
            placeholder={tareHint}
            onChange={second}
          />
        </div>
      );
    case 'shrink-mark':
      return (
        <>
          <div className="pairs">
            <Text
              id="log-first"
              label="Between the marks, as laid"
              value={draft.first}
              placeholder={metric ? '100 mm' : '4 in'}
              onChange={first}
            />
            <Text
              id="log-second"
              label="Now"
              value={draft.second}
              placeholder={metric ? '96.5' : '3 7/8'}
              onChange={second}
            />
          </div>
          {where}
        </>
      );
    case 'room':
      return (
        <div className="pairs">
          <Text
            id="log-first"
            label="Temperature"
            value={draft.first}
            placeholder={metric ? '19' : '66'}
            onChange={first}
          />
          <Text id="log-second" label="Humidity, %" value={draft.second} placeholder="55" onChange={second} />
        </div>
      );
    case 'photo':
      return (
        <>
          <div className="field">
            <label htmlFor="log-first">Picture</label>
            <Form.Control
              id="log-first"
              className="big"
              type="file"
              accept="image/*"
              capture="environment"
              onChange={(e) => onFile((e.target as HTMLInputElement).files?.[0] ?? null)}
            />
          </div>
          <Text id="log-where" label="What it shows" value={draft.text} most={300} onChange={text} />
        </>
      );
    case 'note':
      return (
        <div className="field">
          <label htmlFor="log-first">Note</label>
          <Form.Control
            id="log-first"
            as="textarea"
            rows={4}
            value={draft.text}
            maxLength={4000}
            onChange={(e) => text(e.target.value)}
          />
        </div>
      );
    case 'crack':
      return (
        <>
          <div className="pairs">
            <div className="field">
              <label htmlFor="log-pick">What it is</label>
              <Form.Select id="log-pick" className="big" value={draft.pick} onChange={(e) => pick(e.target.value)}>
                <option value="crack">a crack</option>
                <option value="lifting">clay lifting off</option>
                <option value="dent">a dent</option>
                <option value="break">a break</option>
              </Form.Select>
            </div>
            <Text
              id="log-first"
              label="How wide"
              value={draft.first}
              placeholder={metric ? '0.5 mm' : '1/64 in'}
              onChange={first}
            />
          </div>
          <Form.Check
            id="log-through"
            type="checkbox"
            className="mb-2"
            label="It goes right through"
            checked={draft.through}
            onChange={(e) => onChange({ ...draft, through: e.target.checked })}
          />
          {where}
          <OnThePiece draft={draft} onChange={onChange} />
        </>
      );
    case 'repair':
      return (
        <>
          <div className="field">
            <label htmlFor="log-pick">What was mended</label>
            <Form.Select id="log-pick" className="big" value={draft.pick} onChange={(e) => pick(e.target.value)}>
              <option value="">something not in the log</option>
              {lists.damage.map((d) => (
                <option key={d.id} value={d.id}>
                  {d.where}
                </option>
              ))}
            </Form.Select>
          </div>
          {draft.pick === '' && <Text id="log-where" label="Where on the piece" value={draft.first} onChange={first} />}
          <div className="field">
            <label htmlFor="log-how">How</label>
            <Form.Control
              id="log-how"
              as="textarea"
              rows={2}
              value={draft.text}
              maxLength={1000}
              onChange={(e) => text(e.target.value)}
            />
          </div>
        </>
      );
    case 'step':
      return (
        <>
          <div className="field">
            <label htmlFor="log-pick">Which step</label>
            <Form.Select id="log-pick" className="big" value={draft.pick} onChange={(e) => pick(e.target.value)}>
              <option value="">choose</option>
              {lists.steps.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </Form.Select>
          </div>
          <Text
            id="log-first"
            label="Hours it took, if you know"
            value={draft.first}
            placeholder={
              draft.pick === ''
                ? '1.5'
                : `reckoned ${formatDuration((lists.steps.find((s) => s.id === draft.pick)?.hours ?? 0) * 3600)}`
            }
            onChange={first}
          />
          {lists.steps.length === 0 && <p className="muted small">Reading the plan …</p>}
        </>
      );
    case 'used':
      return (
        <>
          <div className="field">
            <label htmlFor="log-pick">What was used</label>
            <Form.Select id="log-pick" className="big" value={draft.pick} onChange={(e) => pick(e.target.value)}>
              <option value="">choose</option>
              {lists.items.map((i) => (
                <option key={i.item} value={i.item}>
                  {i.name}
                </option>
              ))}
            </Form.Select>
          </div>
          <Text
            id="log-first"
            label={`How much${draft.pick === '' ? '' : `, ${lists.items.find((i) => i.item === draft.pick)?.unit ?? ''}`}`}
            value={draft.first}
            onChange={first}
          />
        </>
      );
  }
}

/** The piece itself, to put a finger on the place. */
function OnThePiece({ draft, onChange }: { draft: Draft; onChange: (d: Draft) => void }) {
  const controller = useController();
  const at = useBench((s) => s.damageAt);
  const [open, setOpen] = useState(false);
  const dark = typeof document !== 'undefined' && document.documentElement.dataset['theme'] === 'evening';
  const show = () => {
    controller.pickFor(open ? null : 'damage');
    if (!open) controller.setDamageAt(draft.at);
    setOpen(!open);
  };
  return (
    <div className="placing mb-2">
      <Button type="button" variant="quiet" className="big w-100" aria-expanded={open} onClick={show}>
        {open ? 'Put the piece away' : 'Show it on the piece'}
      </Button>
      {open && (
        <div className="placing-view">
          <PieceView dark={dark} />
        </div>
      )}
      {open && (
        <p className="small muted mb-1">
          {at ? 'Marked. Touch another place to move the mark.' : 'Touch the place on the piece.'}
        </p>
      )}
      {open && at && at !== draft.at && (
        <Button type="button" size="sm" variant="quiet" onClick={() => onChange({ ...draft, at })}>
          Take this place
        </Button>
      )}
      {draft.at && (
        <p className="small mb-0">
          The place on the piece is kept with it.{' '}
          <button
            type="button"
            className="btn btn-link btn-sm p-0"
            onClick={() => {
              controller.setDamageAt(null);
              onChange({ ...draft, at: null });
            }}
          >
            Without a place
          </button>
        </p>
      )}
    </div>
  );
}
