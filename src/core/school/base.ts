import { z } from 'zod';
import type { BaseBoard } from '../armature';
import type { Vec3 } from '../quantity';
import type { SchoolContext } from './school';

/** The board under a piece, with what every school asks about it. */
export const boardParameters = {
  boardStock: z.string().default('plywood'),
  boardSize: z.string().default('18mm'),
  /** Metres; zero lets the form decide. */
  boardWidth: z.number().min(0).max(3).default(0),
  boardDepth: z.number().min(0).max(3).default(0),
  /** kg fixed under or on the board. */
  ballast: z.number().min(0).max(500).default(0),
  screwDiameter: z.number().min(0.002).max(0.012).default(0.004),
  screwLength: z.number().min(0.008).max(0.1).default(0.016),
};

export interface BoardParameters {
  readonly boardStock: string; readonly boardSize: string; readonly boardWidth: number; readonly boardDepth: number;
  readonly ballast: number; readonly screwDiameter: number; readonly screwLength: number;
}

/** Boards are cut to whole centimetres. */
export function roundUp(metres: number): number {
  return Math.ceil(metres * 100 - 1e-9) / 100;
}

/** A board as wide and deep as asked, or as `needs`; the upright or feet fixed by a plate of `plate` across. */
export function boardUnder(
  context: SchoolContext, p: BoardParameters, at: Vec3, needs: { readonly width: number; readonly depth: number }, plate: { readonly diameter: number; readonly mass: number; readonly circle: number; readonly screws: number },
): BaseBoard {
  const thickness = context.across(p.boardStock, p.boardSize);
  return {
    stock: p.boardStock, size: p.boardSize, width: p.boardWidth || roundUp(needs.width), depth: p.boardDepth || roundUp(needs.depth), thickness,
    flangeAt: at, flangeDiameter: plate.diameter, flangeMass: plate.mass, ballast: p.ballast,
    screws: { count: plate.screws, diameter: p.screwDiameter, circle: plate.circle, threadLength: Math.min(p.screwLength, thickness) },
  };
}
