import { mouldChosen } from '../mould';
import { underMouldName } from '../piece';
import { formatLength } from '../quantity';
import type { Judging, Proposal } from './finding';

/** Thinnest that holds its shape, with gauze or fibre in it. */
const thinnestShell = 0.012;

/** What helps a frame under its mould, where that is when it is asked for most. */
export function underMouldRemedies({ piece, units }: Judging, stage: string | undefined): Proposal[] {
  const chosen = mouldChosen(piece.build);
  if (stage !== underMouldName || !chosen) return [];
  const now = chosen.walls.shell ?? 0;
  const thinner = Math.max(thinnestShell, Math.round(now * 600) / 1000);
  return [
    {
      id: 'lay-down',
      edit: { label: 'Lay it down for its mould', changes: [{ path: ['mould', 'posture'], value: 'lying' }] },
      note: 'on a bed of foam or sand that bears it, half by half; turned by two, with the first half on',
    },
    ...(thinner < now - 1e-4
      ? [
          {
            id: 'thinner-shell',
            edit: {
              label: `Lay its plaster ${formatLength(thinner, units)} thick`,
              changes: [{ path: ['mould', 'shell'], value: thinner }],
            },
            note: 'with gauze or fibre in every coat, ribs over the long sides',
          },
        ]
      : []),
  ];
}
