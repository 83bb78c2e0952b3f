import { baking } from './baking';
import { base } from './base';
import { carry } from './carry';
import { cover } from './cover';
import { crack } from './crack';
import { deadline } from './deadline';
import { door } from './door';
import { gettingOn } from './getting-on';
import { hanging } from './hanging';
import { liftOff } from './lift-off';
import { lostEdit } from './lost-edit';
import { member } from './member';
import { mouldReady } from './mould-ready';
import { noMetal } from './no-metal';
import { notByDrying } from './not-by-drying';
import { notForTheRoad } from './not-for-the-road';
import { offTheArmature } from './off-the-armature';
import { plan } from './plan';
import { proportion } from './proportion';
import { quantity } from './quantity';
import { ramp } from './ramp';
import { sag } from './sag';
import { roadStance } from './road-stance';
import { seam } from './seam';
import { skin } from './skin';
import { slip } from './slip';
import { squat } from './squat';
import { stayingPut } from './staying-put';
import { straps } from './straps';
import { thickCoat } from './thick-coat';
import { throughDry } from './through-dry';
import { tip } from './tip';
import { unsupported } from './unsupported';
import { vehicle } from './vehicle';
import { volumeError } from './volume-error';
import { wall } from './wall';
import { warming } from './warming';
import { weight } from './weight';
import { wind } from './wind';
import { worn } from './worn';
import type { Rule } from './finding';

/** Every rule there is, station by station; a new one is a file and a line here. */
export const rules: readonly Rule[] = [
  weight,
  deadline,
  volumeError,
  lostEdit,
  noMetal,
  offTheArmature,
  cover,
  unsupported,
  proportion,
  member,
  sag,
  skin,
  tip,
  base,
  wind,
  gettingOn,
  slip,
  stayingPut,
  squat,
  thickCoat,
  seam,
  warming,
  baking,
  quantity,
  crack,
  notByDrying,
  liftOff,
  throughDry,
  plan,
  hanging,
  wall,
  mouldReady,
  worn,
  straps,
  carry,
  door,
  vehicle,
  notForTheRoad,
  roadStance,
  ramp,
];
