'use client';
import { useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { needKinds, type OwnStep } from '../../../core/document';
import type { BuildPlan } from '../../../core/plan';
import { formatWork } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { call } from '../../parts/http';

/** Steps of one's own, and lists of them kept for other builds. */
interface StepList {
  readonly name: string;
  readonly steps: readonly OwnStep[];
}

function slugOf(name: string, taken: readonly string[]): string {
  const bare =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60) || 'step';
  for (let i = 1; ; i++) {
    const id = i === 1 ? bare : `${bare}-${i}`;
    if (!taken.includes(id)) return id;
  }
}

export function OwnSteps({ own }: { own: BuildPlan | null }) {
  const controller = useController();
  const steps = useBench((s) => s.build.plan.own);
  const [lists, setLists] = useState<readonly StepList[]>([]);
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState('');
  useEffect(() => {
    void call<StepList[]>('GET', '/api/step-lists').then((a) => {
      if (a.ok) setLists(a.value);
    });
  }, []);
  const set = (label: string, next: readonly OwnStep[]) =>
    controller.edit({ label, changes: [{ path: ['plan', 'own'], value: next }] });
  const bringIn = (list: StepList) => {
    const names = new Map<string, string>();
    const taken = steps.map((s) => s.id);
    for (const s of list.steps) {
      const id = slugOf(s.id, [...taken, ...names.values()]);
      names.set(`own/${s.id}`, `own/${id}`);
    }
    const known = new Set([...(own?.steps.map((s) => s.id) ?? []), ...names.values()]);
    const renamed = (id: string) => names.get(id) ?? id;
    const refused = set(`Steps of “${list.name}”`, [
      ...steps,
      ...list.steps.map((s) => ({
        ...s,
        id: (names.get(`own/${s.id}`) ?? s.id).replace(/^own\//, ''),
        after: s.after.map((w) => ({ ...w, step: renamed(w.step) })).filter((w) => known.has(w.step)),
        before: s.before.map(renamed).filter((b) => known.has(b)),
      })),
    ]);
    setSaid(refused ? refused.message : `${list.steps.length} steps brought in.`);
  };
  const keep = async (name: string) => {
    const answer = await call<StepList[]>('POST', '/api/step-lists', { name, steps });
    setSaid(answer.ok ? `Kept as “${name}”.` : answer.message);
    if (answer.ok) setLists(answer.value);
  };
  return (
    <>
      <h3>Your own steps</h3>
      {steps.length === 0 && (
        <p className="small muted">
          What the build cannot know: fetching the timber, a photograph for the programme, a rehearsal with the wearer.
        </p>
      )}
      <ul className="plain">
        {steps.map((s) => (
          <li key={s.id} className="d-flex gap-2 align-items-center mb-1">
            <span className="flex-grow-1">
              {s.name}, {formatWork(s.hours)}
              {s.after[0]
                ? `, after ${own?.steps.find((x) => x.id === s.after[0]?.step)?.name ?? s.after[0].step}`
                : ''}
            </span>
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Take away ${s.name}`}
              onClick={() =>
                set(
                  `${s.name} taken away`,
                  steps.filter((x) => x.id !== s.id),
                )
              }
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
      <Button size="sm" variant="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
        Add a step
      </Button>
      {open && (
        <NewStep
          own={own}
          taken={steps.map((s) => s.id)}
          onAdd={(s) => {
            const refused = set(`${s.name} added`, [...steps, s]);
            if (!refused) setOpen(false);
            return refused?.message ?? null;
          }}
        />
      )}
      <div className="d-flex gap-2 mt-2 flex-wrap">
        {steps.length > 0 && <KeepAs onKeep={(name) => void keep(name)} />}
        {lists.map((l) => (
          <Button key={l.name} size="sm" variant="quiet" onClick={() => bringIn(l)}>
            Bring in “{l.name}”
          </Button>
        ))}
      </div>
      {said && (
        <p className="small muted mb-0" role="status">
          {said}
        </p>
      )}
    </>
  );
}

function KeepAs({ onKeep }: { onKeep: (name: string) => void }) {
  const [name, setName] = useState('');
  return (
    <div className="d-flex gap-1">
      <Form.Control
        size="sm"
        aria-label="Name of the list"
        placeholder="name of the list"
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
      />
      <Button size="sm" variant="quiet" disabled={name.trim() === ''} onClick={() => onKeep(name.trim())}>
        Keep as a list
      </Button>
    </div>
  );
}

function NewStep({
  own,
  taken,
  onAdd,
}: {
  own: BuildPlan | null;
  taken: readonly string[];
  onAdd: (s: OwnStep) => string | null;
}) {
  const [name, setName] = useState('');
  const [hours, setHours] = useState('1');
  const [after, setAfter] = useState('');
  const [before, setBefore] = useState('');
  const [wait, setWait] = useState('0');
  const [whole, setWhole] = useState(false);
  const [needs, setNeeds] = useState<readonly string[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const add = () => {
    const h = Number(hours.replace(',', '.')),
      w = Number(wait.replace(',', '.'));
    if (name.trim() === '') return setWrong('Give it a name.');
    if (!(h >= 0.02 && h <= 400)) return setWrong('Its hours are between a minute and 400.');
    if (!(w >= 0 && w <= 5000)) return setWrong('The wait is a number of hours.');
    setWrong(
      onAdd({
        id: slugOf(name, taken),
        name: name.trim(),
        kind: 'own',
        hours: h,
        whole,
        people: needs.includes('two people') ? 2 : 1,
        needs: needs as OwnStep['needs'],
        after: after === '' ? [] : [{ step: after, least: w, most: null }],
        before: before === '' ? [] : [before],
        region: null,
      }),
    );
  };
  const choices = [
    <option key="" value="">
      nothing
    </option>,
    ...(own?.steps.map((s) => (
      <option key={s.id} value={s.id}>
        {s.name}
      </option>
    )) ?? []),
  ];
  return (
    <div className="shaping mt-2">
      <div className="field">
        <label htmlFor="own-name">What is to be done</label>
        <Form.Control id="own-name" size="sm" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
      </div>
      <div className="pairs">
        <div className="field">
          <label htmlFor="own-hours">Hours</label>
          <Form.Control
            id="own-hours"
            size="sm"
            inputMode="decimal"
            value={hours}
            onChange={(e) => setHours(e.target.value)}
          />
        </div>
        <div className="field">
          <label htmlFor="own-wait">Hours to wait before it</label>
          <Form.Control
            id="own-wait"
            size="sm"
            inputMode="decimal"
            value={wait}
            onChange={(e) => setWait(e.target.value)}
          />
        </div>
        <div className="field">
          <label htmlFor="own-after">Comes after</label>
          <Form.Select id="own-after" size="sm" value={after} onChange={(e) => setAfter(e.target.value)}>
            {choices}
          </Form.Select>
        </div>
        <div className="field">
          <label htmlFor="own-before">Comes before</label>
          <Form.Select id="own-before" size="sm" value={before} onChange={(e) => setBefore(e.target.value)}>
            {choices}
          </Form.Select>
        </div>
      </div>
      <Form.Check
        id="own-whole"
        type="checkbox"
        label="In one sitting"
        checked={whole}
        onChange={(e) => setWhole(e.target.checked)}
      />
      <fieldset className="field mt-1">
        <legend className="label">Needs</legend>
        {needKinds.map((n) => (
          <label key={n} className="me-3">
            <input
              type="checkbox"
              checked={needs.includes(n)}
              onChange={(e) => setNeeds(e.target.checked ? [...needs, n] : needs.filter((x) => x !== n))}
            />{' '}
            {n}
          </label>
        ))}
      </fieldset>
      {wrong && (
        <p className="wrong status-fails" role="alert">
          {wrong}
        </p>
      )}
      <Button size="sm" variant="iron" onClick={add}>
        Put it in the plan
      </Button>
    </div>
  );
}
