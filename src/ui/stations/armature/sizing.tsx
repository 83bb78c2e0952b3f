'use client';
import { Button } from 'react-bootstrap';
import { anySetByHand, keepTheseSizes, sizeAllAgain } from '../../../core/school';
import { useBench, useController } from '../../bench/context';

/** Whether sizes are chosen or as they were set, and the way from the one to the other. */
export function Sizing() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const sizing = useBench((s) => s.report?.sizing);
  const made = useBench((s) => s.report?.logged.armatureIsMade) ?? false;
  const cover = useBench((s) => s.report?.cover);
  if (!sizing) return null;
  const toCarry = build.armature.sizing === 'to-carry';
  const { state, cannot, sizes } = sizing;
  const beyond = partsWithWires(cover ?? []);
  const again = (label: string) => (
    <Button size="sm" variant="quiet" onClick={() => controller.edit(sizeAllAgain(build))}>
      {label}
    </Button>
  );
  return (
    <section aria-label="Sizes" className="sizing">
      <p className="mb-1" role="status">
        {!toCarry
          ? made
            ? 'The log says it is cut: every size stays as it is.'
            : 'Every size is as it was set.'
          : state === 'being-chosen'
            ? 'Being sized …'
            : 'Sized to carry, again at each change. What you set yourself stays.'}
      </p>
      {beyond.length > 0 && (
        <p className="small mb-1">
          No joint runs through these, and their clay would not hold them alone, so each has a wire of its own:{' '}
          {beyond.join(', ')}.
        </p>
      )}
      {cannot !== null && toCarry && (
        <p className="status-fails mb-1">However it is sized, this way of building cannot do it: {cannot}</p>
      )}
      <p className="d-flex flex-wrap gap-2 mb-2">
        {toCarry ? (
          <>
            {anySetByHand(build) && again('Size all of it again')}
            {state === 'chosen' && (
              <Button
                size="sm"
                variant="quiet"
                onClick={() => controller.edit(keepTheseSizes(build, sizes, 'Sizes kept as they are'))}
              >
                Keep these sizes
              </Button>
            )}
          </>
        ) : (
          !made && again('Size it to carry')
        )}
      </p>
    </section>
  );
}

/** What the wires beyond the joints run in, both sides as one. */
function partsWithWires(cover: readonly { readonly member: string; readonly name: string }[]): string[] {
  const names = cover
    .filter((c) => c.member.startsWith('along/'))
    .map((c) => c.name.replace(/^wire in the ((left|right) )?/, ''));
  return [...new Set(names)];
}
