import type { MouldPart as MouldSaid } from '../../../core/document';
import { clayOverForm, putOn, type CastKind } from '../../../core/mould';
import type { GirthOfForm, Narrowest } from '../../../core/piece';
import { formatLength, sensible, type Range, type UnitSystem } from '../../../core/quantity';

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

/** Whether the head goes in at all, where the cast closes round it: on the bench and on paper. */
export function PutOnWords({
  narrowest,
  girth,
  cast,
  left,
  units,
}: {
  narrowest: Narrowest | null;
  girth: number | null;
  cast: CastKind;
  left: Range;
  units: UnitSystem;
}) {
  if (!narrowest || girth === null) return null;
  const { inside, stretch, goesOn } = putOn(narrowest.outside, girth, cast, left);
  const there = `Where it closes round the head most narrowly the cast is ${formatLength(inside, units)} round inside, and the head ${formatLength(girth, units)}: `;
  if (stretch === 0) return <p className="small mt-2">{there}it goes on.</p>;
  if (goesOn)
    return (
      <p className="small mt-2">
        {there}it has to stretch by {sensible(stretch * 100, 2)} %, which a skin does.
      </p>
    );
  return (
    <p className="small mt-2 status-fails" data-testid="does-not-go-on">
      {there}it does not go on in one piece. Make it wider there, leave it open behind, or cast it as two halves that
      are hinged or strapped together.
    </p>
  );
}
