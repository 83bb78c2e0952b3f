import { boardThickness, type PourBox } from '../../../core/mould';
import { formatLength, type UnitSystem } from '../../../core/quantity';

/** The boards of the box to pour in, as they are cut: head and rows of a table, on the bench and on paper. */
export function BoardRows({ box, units }: { box: PourBox; units: UnitSystem }) {
  return (
    <>
      <thead>
        <tr>
          <th>Board, {formatLength(boardThickness, units)}</th>
          <th className="n">How many</th>
          <th className="n">Cut to</th>
        </tr>
      </thead>
      <tbody>
        {box.boards.map((b) => (
          <tr key={b.name}>
            <td>{b.name}</td>
            <td className="n">{b.count}</td>
            <td className="n">
              {formatLength(b.sides[0], units)} by {formatLength(b.sides[1], units)}
            </td>
          </tr>
        ))}
      </tbody>
    </>
  );
}
