import type { Status } from '../../core/piece';

export const statusWord: Record<Status, string> = {
  sound: 'Sound',
  watch: 'Watch',
  fails: 'Fails',
  unknown: 'Not known',
};

/** Verdict marks: a plumb bob hanging true, leaning, fallen, or only outlined. Never colour alone. An empty label: the word stands beside it. */
export function Plumb({ status, size = 30, label }: { status: Status; size?: number; label?: string }) {
  const colour = { sound: 'var(--sound)', watch: 'var(--watch)', fails: 'var(--fails)', unknown: 'var(--unknown)' }[
    status
  ];
  const said = label ?? statusWord[status];
  const named = said === '' ? { 'aria-hidden': true } : { role: 'img', 'aria-label': said };
  const common = { width: Math.round(size * 0.7), height: size, viewBox: '0 0 21 30', ...named } as const;
  if (status === 'fails') {
    return (
      <svg {...common}>
        <path d="M10 0c3 4-4 6 0 12" fill="none" stroke={colour} strokeWidth="1.7" />
        <path d="M1 28.500h19" stroke={colour} strokeWidth="1.8" />
        <path d="M3 20.500l9.500-1.500 7.500 4-7.500 4.500L3 26z" fill={colour} />
      </svg>
    );
  }
  if (status === 'watch') {
    return (
      <svg {...common}>
        <path d="M6 0v29" stroke="var(--slip)" strokeWidth="1.3" strokeDasharray="2 2.500" />
        <g transform="rotate(-19 6 0)">
          <path d="M6 0v13" stroke={colour} strokeWidth="1.7" />
          <path d="M2 13h8l-1 7-3 8-3-8z" fill="var(--paper)" stroke={colour} strokeWidth="1.9" />
        </g>
      </svg>
    );
  }
  return (
    <svg {...common}>
      <path d="M10.500 0v13" stroke={colour} strokeWidth="1.7" />
      <path
        d="M6 13h9l-1.200 7.500-3.300 8.500-3.300-8.500z"
        fill={status === 'sound' ? colour : 'none'}
        stroke={colour}
        strokeWidth="1.6"
      />
    </svg>
  );
}

/** The house mark: an upright with two loops. */
export function HouseMark() {
  return (
    <svg width="26" height="30" viewBox="0 0 26 30" aria-hidden="true">
      <path d="M13 12v16M6 28.500h14" stroke="var(--ink)" strokeWidth="2.200" />
      <path d="M13 18C2 12 5 2 13 2s11 10 0 16" fill="none" stroke="var(--fails)" strokeWidth="1.900" />
      <path d="M13 18c-4-6-4-13 0-16 4 3 4 10 0 16" fill="none" stroke="var(--iron)" strokeWidth="1.700" />
    </svg>
  );
}
