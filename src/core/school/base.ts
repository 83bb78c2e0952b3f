import { z } from 'zod';
import { standings, type BaseBoard } from '../armature';
import type { Vec3 } from '../quantity';
import type { SchoolContext, SchoolField } from './school';

/** The board under a piece, with what every school asks about it. */
export const boardParameters = {
  boardStock: z.string().default('plywood'),
  boardSize: z.string().default('18mm'),
  /** Metres; zero lets the form decide. */
  boardWidth: z.number().min(0).max(6).default(0),
  boardDepth: z.number().min(0).max(6).default(0),
  /** How far the board's middle lies behind the upright; below zero in front. */
  boardBack: z.number().min(-3).max(3).default(0),
  standing: z.enum(standings).default('flat'),
  /** kg fixed under or on the board, and how far behind its middle. */
  ballast: z.number().min(0).max(500).default(0),
  ballastBack: z.number().min(-3).max(3).default(0),
  /** What is screwed down: metres across; zero lets what stands in it decide. */
  plateWidth: z.number().min(0).max(1).default(0),
  screwDiameter: z.number().min(0.002).max(0.012).default(0.004),
  screwLength: z.number().min(0.008).max(0.1).default(0.016),
};

export interface BoardParameters {
  readonly boardStock: string;
  readonly boardSize: string;
  readonly boardWidth: number;
  readonly boardDepth: number;
  readonly boardBack: number;
  readonly standing: BaseBoard['standing'];
  readonly ballast: number;
  readonly ballastBack: number;
  readonly plateWidth: number;
  readonly screwDiameter: number;
  readonly screwLength: number;
}

export const boardFields: readonly SchoolField[] = [
  { kind: 'heading', label: 'Base' },
  { kind: 'stock', key: 'boardStock', size: 'boardSize', label: 'Board', from: 'board' },
  { kind: 'length', key: 'boardWidth', label: 'Board, across', hint: '0: from the form' },
  { kind: 'length', key: 'boardDepth', label: 'Board, front to back', hint: '0: from the form' },
  { kind: 'length', key: 'boardBack', label: 'Board set back by', hint: 'of the upright' },
  {
    kind: 'choice',
    key: 'standing',
    label: 'Stands',
    choices: [
      { id: 'flat', name: 'flat' },
      { id: 'slats', name: 'on two slats' },
      { id: 'feet', name: 'on four feet' },
      { id: 'casters', name: 'on casters' },
      { id: 'own', name: 'on its own feet, no board' },
    ],
  },
  { kind: 'mass', key: 'ballast', label: 'Weight fixed to it' },
  { kind: 'length', key: 'ballastBack', label: 'Weight behind its middle' },
  { kind: 'length', key: 'plateWidth', label: 'Foot plate, across', hint: '0: from what stands in it' },
  { kind: 'length', key: 'screwDiameter', label: 'Screws, thick' },
  { kind: 'length', key: 'screwLength', label: 'Screw thread in the board' },
];

/** Boards are cut to whole centimetres. */
export function roundUp(metres: number): number {
  return Math.ceil(metres * 100 - 1e-9) / 100;
}

export interface Plate {
  readonly diameter: number;
  readonly mass: number;
  readonly circle: number;
  readonly screws: number;
}

/** A board as wide and deep as asked, or as `needs`; the upright or feet fixed by a plate of `plate` across. */
export function boardUnder(
  context: SchoolContext,
  p: BoardParameters,
  at: Vec3,
  needs: { readonly width: number; readonly depth: number },
  plate: Plate,
): BaseBoard {
  const thickness = context.across(p.boardStock, p.boardSize);
  // A wider plate is as thick, and its screws stand as near its edge.
  const wider = p.plateWidth > 0 ? p.plateWidth / plate.diameter : 1;
  return {
    stock: p.boardStock,
    size: p.boardSize,
    width: p.boardWidth || roundUp(needs.width),
    depth: p.boardDepth || roundUp(needs.depth),
    thickness,
    at: [0, p.boardBack],
    standing: p.standing,
    ballast: p.ballast,
    ballastAt: [0, p.boardBack + p.ballastBack],
    flangeAt: at,
    flangeDiameter: plate.diameter * wider,
    flangeMass: plate.mass * wider ** 2,
    screws: {
      count: plate.screws,
      diameter: p.screwDiameter,
      circle: plate.circle * wider,
      threadLength: Math.min(p.screwLength, thickness),
    },
  };
}

/** A floor flange for a pipe, or a plate for a post, by what stands in it. */
export function plateFor(across: number, screws = 4): Plate {
  const diameter = Math.max(0.03, Math.min(0.25, across * 4.2));
  return {
    diameter,
    circle: diameter * 0.78,
    mass: Math.round(7850 * 0.006 * (Math.PI / 4) * diameter ** 2 * 0.8 * 100) / 100,
    screws,
  };
}
