'use client';
import { passesOver } from '../../../core/plan';
import { formatDuration } from '../../../core/quantity';
import { useBench } from '../../bench/context';

/** Passes over the face before the mould is laid on, in order: what is left of each in all of the piece, or that it is done. */
export function SurfaceFirst() {
  const steps = useBench((s) => s.report?.plan?.steps);
  const rows = passesOver(steps ?? []);
  if (rows.length === 0) return null;
  return (
    <details className="mb-2">
      <summary>
        Its surface first:{' '}
        {rows.every((r) => r.left === 0)
          ? 'every pass is done'
          : `${rows.filter((r) => r.left > 0).length} passes, ${formatDuration(rows.reduce((sum, r) => sum + r.left, 0) * 3600)} of work`}
      </summary>
      <ol className="small mb-0">
        {rows.map(({ pass, left }) => (
          <li key={pass.id}>
            {pass.name}: {left > 0 ? formatDuration(left * 3600) : 'done'}. {pass.tools}.
            {pass.wipes === 'nothing' ? '' : ` It takes away ${pass.wipes}.`}
          </li>
        ))}
      </ol>
    </details>
  );
}
