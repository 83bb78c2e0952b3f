import type { Stock } from '../catalogue';
import { distance, type Vec3 } from '../quantity';
import { sectionGeometry } from './cross-section';
import type { Allowance, Member } from './types';

export interface Cut {
  readonly member: string;
  readonly name: string;
  readonly stock: string;
  readonly sizeLabel: string;
  /** Stock and size by id: "mild-steel/6mm". */
  readonly key: string;
  /** Of a pair, which of the sculpture's sides it is for. */
  readonly side: 'left' | 'right' | null;
  readonly pieces: number;
  /** Along the bend, one piece. */
  readonly netLength: number;
  readonly allowances: readonly Allowance[];
  /** What to cut, one piece, trim included. */
  readonly cutLength: number;
  readonly mass: number;
}

const trim = 0.05;

export function pathLength(path: readonly Vec3[]): number {
  let sum = 0;
  for (let i = 1; i < path.length; i++) sum += distance(path[i - 1]!, path[i]!);
  return sum;
}

/** kg of the finished member, allowances included: they stay on the piece. Trim does not. */
export function memberMass(member: Member, stock: Stock): number {
  const size = stock.sizes.find((s) => s.id === member.size);
  if (!size) throw new Error(`${stock.id} has no size ${member.size}`);
  const kept = pathLength(member.path) + member.allowances.reduce((sum, a) => sum + a.length, 0);
  return kept * sectionGeometry(size.section).area * stock.density * member.strands;
}

function sideOf(id: string): Cut['side'] {
  return /(^|[-/])left($|[-/])/.test(id) ? 'left' : /(^|[-/])right($|[-/])/.test(id) ? 'right' : null;
}

export function cutList(members: readonly Member[], stocks: ReadonlyMap<string, Stock>): Cut[] {
  return members.map((member) => {
    const stock = stocks.get(member.stock);
    const size = stock?.sizes.find((s) => s.id === member.size);
    if (!stock || !size) throw new Error(`no stock ${member.stock} ${member.size}`);
    const netLength = pathLength(member.path);
    const before = netLength + member.allowances.reduce((sum, a) => sum + a.length, 0);
    return {
      member: member.id,
      name: member.name,
      stock: stock.name,
      sizeLabel: size.label,
      key: `${member.stock}/${member.size}`,
      side: sideOf(member.id),
      pieces: member.strands,
      netLength,
      allowances: [...member.allowances, { what: 'trim', length: before * trim }],
      cutLength: before * (1 + trim),
      mass: memberMass(member, stock),
    };
  });
}
