import { bentPipe } from './bent-pipe';
import { boardFoamMesh } from './board-foam-mesh';
import { branching } from './branching';
import { dense } from './dense';
import { dowelAndBall } from './dowel-and-ball';
import { foilOnly } from './foil-only';
import { headForm } from './head-form';
import { jointed } from './jointed';
import { objectCore } from './object-core';
import { shell } from './shell';
import { steelMeshFoam } from './steel-mesh-foam';
import { stuffed } from './stuffed';
import { undercoat } from './undercoat';
import { wireFigure } from './wire-figure';
import type { School } from './school';

/** Every school there is; a new one is a file and a line here. */
export const schools: readonly School<never>[] = [
  stuffed,
  dense,
  bentPipe,
  dowelAndBall,
  wireFigure,
  jointed,
  branching,
  foilOnly,
  undercoat,
  objectCore,
  shell,
  headForm,
  boardFoamMesh,
  steelMeshFoam,
] as unknown as readonly School<never>[];
