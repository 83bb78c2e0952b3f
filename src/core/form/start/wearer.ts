import type { Mass } from '../../document';
import type { Vec3 } from '../../quantity';
import { headOfType } from './head-types';
import { headMasses, skullRoot, type HeadMeasures } from './human-head';
import { limb } from './start-form';

/** A wearer's head as a tape reads it, and the life form made to it: what a mask or a helmet is built out over. */
export interface WearersHead {
  /** Round above the brows; chin to crown; round the neck. */
  readonly headGirth: number;
  readonly chinToCrown: number;
  readonly neckGirth: number;
}

/** Measures of start forms that are read off the wearer, as a tape reads them. */
export const wearersKeys = ['headGirth', 'chinToCrown', 'neckGirth', 'armGirth'] as const;

/** Breadth and depth of a head of a given girth, taking it for an ellipse 0.78 as broad as it is deep. */
export function breadthOfGirth(girth: number): { breadth: number; depth: number } {
  const ratio = 0.78;
  // Ramanujan's first formula for the girth of an ellipse.
  const h = 3 * (1 + ratio) - Math.sqrt((3 + ratio) * (1 + 3 * ratio));
  const depth = (2 * girth) / (Math.PI * h);
  return { breadth: depth * ratio, depth };
}

/** Girth above the brows of the head that all measures start from, by the tape. */
const usualGirth = 0.5748;

/** Measures of a head of that girth and height; the rest of its face goes along. */
export function wearersMeasures(w: WearersHead): HeadMeasures {
  const usual = headOfType('man');
  const round = w.headGirth / usualGirth;
  const high = w.chinToCrown / usual.headHeight;
  return {
    ...usual,
    headHeight: w.chinToCrown,
    headBreadth: usual.headBreadth * round,
    headDepth: usual.headDepth * round,
    cheekbones: usual.cheekbones * round,
    jawBreadth: usual.jawBreadth * round,
    eyesApart: usual.eyesApart * round,
    mouthBreadth: usual.mouthBreadth * round,
    noseBreadth: usual.noseBreadth * round,
    faceHeight: usual.faceHeight * high,
    noseLength: usual.noseLength * high,
    ears: usual.ears * high,
    years: 0,
  };
}

/** Fine parts that no life form keeps, and no clay over one shows. */
const tooFine = /^(ear-rim|ear-lid|ear-lobe|lid-fold|upper-gum|lower-gum|upper-tooth|lower-tooth)/;

/** The life form with its neck on a stand: all of it object, none of it clay yet. `chin` is a height, `axis` its middle. */
export function lifeForm(w: WearersHead, chin: number, axis: number, standHeight: number): Mass[] {
  const own = wearersMeasures(w);
  const neck = w.neckGirth / (2 * Math.PI);
  const part = (id: string, name: string, joint: string, blend: number) => ({
    id,
    name,
    region: 'head-form',
    joint,
    blend,
  });
  return [
    limb(part('neck', 'neck', 'stand', 0.02), [0, axis + 0.03, standHeight], [0, axis + 0.02, chin + 0.03], neck, neck),
    skullRoot(own, chin, axis),
    ...headMasses(own, chin, axis).filter((m) => !tooFine.test(m.id)),
  ].map((m): Mass => ({
    ...m,
    id: `form-${m.id}`,
    name: `${m.name} (form)`,
    region: 'head-form',
    joint: m.joint === 'stand' ? 'stand' : 'head',
    role: 'bare',
  }));
}

/** Where the features of a wearer's face lie. */
export function facePlaces(w: WearersHead, chin: number, axis: number) {
  const own = wearersMeasures(w);
  const front = axis - own.headDepth / 2;
  const u = own.headHeight / 0.232;
  const at = (x: number, y: number, z: number): Vec3 => [x, y, z];
  return {
    own,
    front,
    eye: at(own.eyesApart / 2, front + 0.02 * u, chin + own.faceHeight - 0.007 * u),
    brow: chin + own.faceHeight + 0.0115 * u,
    noseFoot: chin + own.faceHeight - own.noseLength,
    noseTip: front - own.nose * 0.8,
    mouth: chin + (own.faceHeight - own.noseLength) * 0.68,
    ear: chin + own.faceHeight * 0.823,
    crown: chin + own.headHeight,
  };
}
