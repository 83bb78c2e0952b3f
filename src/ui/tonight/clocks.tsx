'use client';
import { useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { clocksOf, type Clock, type LogEntry } from '../../core/log';
import { logEntry, newEntry } from '../session/outbox';

/**
 * Running clocks. A clock is an entry of the log: it says when it was set, so a reload, a restart or a night's sleep of
 * the machine changes nothing; what is shown is the wall clock less that.
 */
export function leftText(seconds: number): string {
  const s = Math.max(0, Math.ceil(Math.abs(seconds)));
  const h = Math.floor(s / 3600),
    m = Math.floor((s % 3600) / 60);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${seconds < 0 ? '−' : ''}${h > 0 ? `${h}:${two(m)}` : m}:${two(s % 60)}`;
}

/** Three rising tones, made here: nothing is fetched. */
function ring(context: AudioContext): void {
  [660, 880, 1100].forEach((pitch, i) => {
    const tone = context.createOscillator(),
      loud = context.createGain();
    const at = context.currentTime + i * 0.35;
    tone.frequency.value = pitch;
    loud.gain.setValueAtTime(0.0001, at);
    loud.gain.exponentialRampToValueAtTime(0.4, at + 0.03);
    loud.gain.exponentialRampToValueAtTime(0.0001, at + 0.32);
    tone.connect(loud).connect(context.destination);
    tone.start(at);
    tone.stop(at + 0.34);
  });
}

/** Said once for each clock, also after a reload. */
const rungKey = 'sostegno-rung';
function alreadyRung(id: string): boolean {
  try {
    const rung = JSON.parse(localStorage.getItem(rungKey) ?? '[]') as string[];
    if (rung.includes(id)) return true;
    localStorage.setItem(rungKey, JSON.stringify([...rung, id].slice(-60)));
  } catch {
    // Without a place to remember it, it rings again: better than not at all.
  }
  return false;
}

function useSeconds(): number {
  const [now, setNow] = useState(() => Date.now() / 1000);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now() / 1000), 250);
    return () => clearInterval(timer);
  }, []);
  return now;
}

const usual = [
  { name: 'Batch', minutes: 60 },
  { name: 'Coat', minutes: 30 },
  { name: 'Oven', minutes: 15 },
];
/** Past clocks that ran out this long ago are put away. */
const forgetAfter = 12 * 3600;

export interface ClockProps {
  readonly buildId: string;
  readonly entries: readonly LogEntry[];
  readonly onChanged: () => void;
}

/** A page may sound only after it was pressed: the press that sets a clock opens this. */
let sound: AudioContext | null = null;

/** To be called from a press. */
export function letItSound(): void {
  sound ??= 'AudioContext' in window ? new AudioContext() : null;
  if ('Notification' in window && Notification.permission === 'default') void Notification.requestPermission();
}

export function RunningClocks({ buildId, entries, onChanged }: ClockProps) {
  const now = useSeconds();
  const running = clocksOf(entries).filter((c) => c.stopped === null && now < c.started + c.seconds + forgetAfter);
  useEffect(() => {
    for (const c of running) {
      if (now < c.started + c.seconds || now > c.started + c.seconds + 3600 || alreadyRung(c.id)) continue;
      if (sound) ring(sound);
      navigator.vibrate?.([300, 150, 300]);
      if ('Notification' in window && Notification.permission === 'granted')
        new Notification(`${c.name}: time`, { body: 'The clock has run out.', tag: c.id });
    }
  });
  const stop = async (c: Clock) => {
    await logEntry(buildId, newEntry('clock-stop', { clock: c.id }));
    onChanged();
  };
  return running.map((c) => {
    const left = c.started + c.seconds - now;
    return (
      <div
        key={c.id}
        className={`clock${left <= 0 ? ' over' : left < c.seconds * 0.2 ? ' soon' : ''}`}
        data-testid="clock"
      >
        <div className="clock-name">{c.name}</div>
        <div className="clock-time" role="timer" aria-label={`${c.name}, ${left > 0 ? 'left' : 'over by'}`}>
          {leftText(left)}
        </div>
        <div className="clock-word">
          {left <= 0 ? 'over: stop working it' : left < c.seconds * 0.2 ? 'nearly over' : 'left'}
        </div>
        <Button variant="quiet" className="big" onClick={() => void stop(c)} aria-label={`Stop the clock ${c.name}`}>
          Stop
        </Button>
      </div>
    );
  });
}

export function SetClock({ buildId, onChanged }: Omit<ClockProps, 'entries'>) {
  const [name, setName] = useState('');
  const [minutes, setMinutes] = useState('');
  const [said, setSaid] = useState('');
  const start = async (label: string, seconds: number) => {
    letItSound();
    const refused = await logEntry(buildId, newEntry('clock', { name: label, seconds: Math.round(seconds) }));
    setSaid(refused ?? '');
    onChanged();
  };
  const own = Number(minutes.replace(',', '.'));
  return (
    <section aria-label="Clocks" className="card-part">
      <h3>Set a clock</h3>
      <div className="clock-new">
        {usual.map((u) => (
          <Button key={u.name} variant="quiet" className="big" onClick={() => void start(u.name, u.minutes * 60)}>
            {u.name}, {u.minutes} min
          </Button>
        ))}
        <Form.Control
          className="big"
          aria-label="Name of a clock"
          placeholder="for what"
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
        />
        <Form.Control
          className="big"
          aria-label="Minutes"
          placeholder="minutes"
          inputMode="decimal"
          value={minutes}
          onChange={(e) => setMinutes(e.target.value)}
        />
        <Button
          variant="quiet"
          className="big"
          disabled={!(own > 0 && own < 57600)}
          onClick={() => void start(name.trim() || 'Clock', own * 60)}
        >
          Start
        </Button>
      </div>
      {said && (
        <p className="status-fails" role="alert">
          {said}
        </p>
      )}
    </section>
  );
}
