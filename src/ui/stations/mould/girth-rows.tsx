import type { MouldPart as MouldSaid } from '../../../core/document';
import { clayOverForm, type CastKind } from '../../../core/mould';
import type { GirthOfForm } from '../../../core/piece';
import { formatLength, type Range, type UnitSystem } from '../../../core/quantity';

type Said = Pick<MouldSaid, 'gap' | 'oversize'>;

/** Clay that lets the cast go over its wearer there. */
function wanted({ girth }: GirthOfForm, { gap, oversize }: Said, cast: CastKind, left: Range): Range {
  return clayOverForm(girth / oversize, gap, cast, left, oversize);
}

/** Even with a thin wall and little shrinkage it comes out tighter than the head. */
export const isTight = (at: GirthOfForm, mould: Said, cast: CastKind, left: Range): boolean =>
  at.mean < wanted(at, mould, cast, left).low;

/** Girth by girth what clay is wanted and how much there is: head and rows of a table, on the bench and on paper. */
export function GirthRows({
  girths,
  mould,
  cast,
  left,
  units,
}: {
  girths: readonly GirthOfForm[];
  mould: Said;
  cast: CastKind;
  left: Range;
  units: UnitSystem;
}) {
  return (
    <>
      <thead>
        <tr>
          <th>At</th>
          <th className="n">Form, round</th>
          <th className="n">Wanted</th>
          <th className="n">Thinnest</th>
          <th className="n">Mean</th>
        </tr>
      </thead>
      <tbody>
        {girths.map((g) => {
          const clay = wanted(g, mould, cast, left);
          const status = isTight(g, mould, cast, left)
            ? 'status-fails'
            : g.thinnest < clay.nominal
              ? 'status-watch'
              : '';
          return (
            <tr key={g.id}>
              <td>{g.name}</td>
              <td className="n">{formatLength(g.girth, units)}</td>
              <td className="n">{formatLength(clay.nominal, units)}</td>
              <td className="n">
                <span className={status}>{formatLength(g.thinnest, units)}</span>
              </td>
              <td className="n">{formatLength(g.mean, units)}</td>
            </tr>
          );
        })}
      </tbody>
    </>
  );
}
