import { z } from 'zod';
import type { Trait } from './traits';

/** What a piece may be put through, as far as it bears on what it is made of. */
export interface Process {
  readonly id: string;
  readonly name: string;
  readonly traits: readonly Trait[];
  /** Usual temperature of the piece, degrees C, where it gets hot. */
  readonly heat: number | null;
}

export const processList = [
  { id: 'bake', name: 'baked in an oven', traits: ['heat'], heat: 135 },
  { id: 'heat-gun', name: 'a heat gun on it', traits: ['heat'], heat: 120 },
  { id: 'spray-paint', name: 'sprayed with solvent paint', traits: ['solvent', 'solvent-coat'], heat: null },
  { id: 'solvent', name: 'smoothed or cleaned with solvent', traits: ['solvent'], heat: null },
  {
    id: 'styrene-resin',
    name: 'coated in polyester resin',
    traits: ['solvent', 'solvent-coat', 'styrene'],
    heat: null,
  },
  { id: 'hot-van', name: 'driven in a van in summer', traits: ['warm'], heat: 60 },
  { id: 'outdoors', name: 'left out in rain and sun', traits: ['rain', 'warm'], heat: 60 },
  { id: 'sea-air', name: 'shown in sea air', traits: ['salt'], heat: null },
  {
    id: 'silicone-addition',
    name: 'moulded in addition-cure silicone',
    traits: ['silicone', 'addition-silicone'],
    heat: null,
  },
  { id: 'silicone-condensation', name: 'moulded in condensation-cure silicone', traits: ['silicone'], heat: null },
  { id: 'latex-mould', name: 'moulded in latex', traits: ['wet-latex'], heat: null },
  { id: 'plaster-mould', name: 'moulded in plaster', traits: ['fresh-plaster'], heat: null },
  { id: 'cement-pour', name: 'cement poured on or in it', traits: ['cement'], heat: null },
] as const satisfies readonly Process[];
export type ProcessId = (typeof processList)[number]['id'];
export const processes: ReadonlyMap<string, Process> = new Map(processList.map((p) => [p.id, p]));
export const processIdSchema = z.enum(processList.map((p) => p.id) as [ProcessId, ...ProcessId[]]);
