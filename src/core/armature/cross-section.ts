import type { SectionShape, Stock } from '../catalogue';

/** Geometry of one strand, metres. Inertia is about the weaker axis. */
export interface SectionGeometry {
  readonly area: number;
  readonly inertia: number;
  readonly torsion: number;
  readonly plasticModulus: number;
  readonly elasticModulus: number;
}

/** Roark's *Formulas for Stress and Strain* for torsion of a rectangle. */
export function sectionGeometry(s: SectionShape): SectionGeometry {
  if (s.shape === 'round') {
    const d = s.diameter;
    return {
      area: (Math.PI * d * d) / 4,
      inertia: (Math.PI * d ** 4) / 64,
      torsion: (Math.PI * d ** 4) / 32,
      plasticModulus: d ** 3 / 6,
      elasticModulus: (Math.PI * d ** 3) / 32,
    };
  }
  if (s.shape === 'tube') {
    const d = s.diameter;
    const inner = Math.max(0, d - 2 * s.wall);
    const inertia = (Math.PI * (d ** 4 - inner ** 4)) / 64;
    return {
      area: (Math.PI * (d * d - inner * inner)) / 4,
      inertia,
      torsion: 2 * inertia,
      plasticModulus: (d ** 3 - inner ** 3) / 6,
      elasticModulus: (2 * inertia) / d,
    };
  }
  if (s.shape === 'square-tube') {
    const inner = Math.max(0, s.width - 2 * s.wall);
    const middle = s.width - s.wall;
    const inertia = (s.width ** 4 - inner ** 4) / 12;
    return {
      area: s.width ** 2 - inner ** 2,
      inertia,
      torsion: middle ** 3 * s.wall,
      plasticModulus: (s.width ** 3 - inner ** 3) / 4,
      elasticModulus: (2 * inertia) / s.width,
    };
  }
  const thin = Math.min(s.width, s.height);
  const wide = Math.max(s.width, s.height);
  const ratio = thin / wide;
  return {
    area: thin * wide,
    inertia: (wide * thin ** 3) / 12,
    torsion: wide * thin ** 3 * (1 / 3 - 0.21 * ratio * (1 - ratio ** 4 / 12)),
    plasticModulus: (wide * thin * thin) / 4,
    elasticModulus: (wide * thin * thin) / 6,
  };
}

/**
 * What a thread leaves of a pipe: half of its wall all round, outside diameter less one wall. Other stock is not cut, and
 * threaded rod is told by its stress area.
 */
export function threaded(s: SectionShape): SectionShape {
  return s.shape === 'tube' ? { ...s, diameter: s.diameter - s.wall, wall: s.wall / 2 } : s;
}

/** Outside size across, for pictures and clearances. */
export function sectionAcross(s: SectionShape): number {
  return s.shape === 'round' || s.shape === 'tube'
    ? s.diameter
    : s.shape === 'flat'
      ? Math.min(s.width, s.height)
      : s.width;
}

/** Wires, pipe, rod or timber that run along a bone. */
export interface MetalPart {
  readonly section: SectionShape;
  readonly youngs: number;
  /** Pa a design may use: yield for metal, the allowed bending stress for timber. */
  readonly strength: number;
  readonly brittle: boolean;
  readonly strands: number;
  /** Splinted or glued together, so that strands share a composite inertia. */
  readonly bonded: boolean;
}

export interface BulkPart {
  readonly diameter: number;
  readonly stiffness: number;
  readonly crushing: number;
}

export interface ClaySleeve {
  readonly outer: number;
  /** Diameter of the core under it, 0 for solid clay. */
  readonly core: number;
  /** Pa; and what its capacity is divided by, for what it gives with the hours. */
  readonly yieldStress: number;
  readonly margin: number;
  /** Grip on the core; under 0.4 the sleeve slides and carries nothing. */
  readonly grip: number;
}

/** Everything that runs along one bone, in parallel. */
export interface CompositeParts {
  readonly metal: readonly MetalPart[];
  readonly bulk: BulkPart | null;
  readonly clay: ClaySleeve | null;
}

export interface CompositeSection {
  readonly EA: number;
  readonly EI: number;
  readonly GJ: number;
  readonly metalEI: number;
  readonly bulkEI: number;
  /** Nm each part can take at full join efficiency. */
  readonly metalMoment: number;
  readonly bulkMoment: number;
  readonly clayMoment: number;
  readonly metalAxial: number;
  /** The same where pipes are cut with a thread. */
  readonly threadedMoment: number;
  readonly threadedAxial: number;
  readonly bulkAxial: number;
  /** Nm at which a brittle part breaks, as a share of the whole; Infinity where none is brittle. */
  readonly brittleMoment: number;
}

/** Nm one strand bears: fully bent where it yields, to its first crack where it is brittle. */
export function strandMoment(
  { strength, allowed, brittle }: Pick<Stock, 'strength' | 'allowed' | 'brittle'>,
  section: SectionShape,
): number {
  const g = sectionGeometry(section);
  return strength.nominal * allowed * (brittle ? g.elasticModulus : g.plasticModulus);
}

const clayStiffnessPerYield = 100;
/** Pa, while it is plastic, from its yield stress. */
export function clayStiffness(yieldStress: number): number {
  return clayStiffnessPerYield * yieldStress;
}

const leastGrip = 0.4;
const bondedShare = 0.7;

/** Inertia of `n` equal strands: side by side they add; bonded they work as a ring of their own size. */
function bundleInertia(g: SectionGeometry, n: number, bonded: boolean, across: number): number {
  if (n < 2 || !bonded) return n * g.inertia;
  const ring = across / (2 * Math.sin(Math.PI / n));
  const composite = n * g.inertia + (n * g.area * ring * ring) / 2;
  return Math.max(n * g.inertia, bondedShare * composite);
}

/**
 * Stiffness is the sum; capacity adds plastically where parts are ductile, and breaks at the first brittle one.
 * Round, tube and flat plastic moments after Roark; the clay sleeve is a plastic tube that creeps.
 */
export function compositeSection(parts: CompositeParts): CompositeSection {
  let EA = 0,
    EI = 0,
    GJ = 0,
    metalEI = 0,
    bulkEI = 0,
    metalMoment = 0,
    metalAxial = 0,
    threadedMoment = 0,
    threadedAxial = 0;
  const brittle: { moment: number; ei: number }[] = [];
  for (const part of parts.metal) {
    const g = sectionGeometry(part.section);
    const ei = part.youngs * bundleInertia(g, part.strands, part.bonded, sectionAcross(part.section));
    EA += part.youngs * g.area * part.strands;
    EI += ei;
    metalEI += ei;
    GJ += (part.youngs / 2.6) * g.torsion * part.strands;
    metalAxial += g.area * part.strength * part.strands;
    const cut = sectionGeometry(threaded(part.section));
    threadedAxial += cut.area * part.strength * part.strands;
    if (part.brittle) brittle.push({ moment: part.strength * g.elasticModulus * part.strands, ei });
    else {
      metalMoment += part.strength * g.plasticModulus * part.strands;
      threadedMoment += part.strength * cut.plasticModulus * part.strands;
    }
  }
  let bulkMoment = 0,
    bulkAxial = 0,
    clayMoment = 0;
  if (parts.bulk && parts.bulk.diameter > 0) {
    const { diameter: d, stiffness, crushing } = parts.bulk;
    EA += (stiffness * Math.PI * d * d) / 4;
    bulkEI = (stiffness * Math.PI * d ** 4) / 64;
    EI += bulkEI;
    GJ += ((stiffness / 3) * Math.PI * d ** 4) / 32;
    bulkMoment = (crushing * d ** 3) / 6;
    bulkAxial = (crushing * Math.PI * d * d) / 4;
  }
  if (parts.clay && parts.clay.outer > parts.clay.core) {
    const { outer, core, yieldStress, margin, grip } = parts.clay;
    const E = clayStiffness(yieldStress);
    EA += (E * Math.PI * (outer ** 2 - core ** 2)) / 4;
    EI += (E * Math.PI * (outer ** 4 - core ** 4)) / 64;
    GJ += ((E / 3) * Math.PI * (outer ** 4 - core ** 4)) / 32;
    if (core === 0 || grip >= leastGrip) clayMoment = (2 * yieldStress * (outer ** 3 - core ** 3)) / 6 / margin;
  }
  const brittleMoment = brittle.reduce((least, b) => Math.min(least, (b.moment * EI) / b.ei), Infinity);
  return {
    EA,
    EI,
    GJ,
    metalEI,
    bulkEI,
    metalMoment,
    bulkMoment,
    clayMoment,
    metalAxial,
    threadedMoment,
    threadedAxial,
    bulkAxial,
    brittleMoment,
  };
}

export interface Capacity {
  readonly moment: number;
  readonly axial: number;
}

/** Nm of metal and timber, of bulk and of clay in what a section takes; they add up to it. */
export interface CapacityParts {
  readonly metal: number;
  readonly bulk: number;
  readonly clay: number;
}

/**
 * Where a join lets `efficiency` of the metal and timber through; a pipe bears less where it is threaded. Where a brittle
 * part breaks first, each bears by its stiffness.
 */
export function capacityParts(s: CompositeSection, efficiency: number, isThreaded = false): CapacityParts {
  const metal = (isThreaded ? s.threadedMoment : s.metalMoment) * efficiency;
  const broken = s.brittleMoment * efficiency;
  if (!Number.isFinite(broken) || broken <= metal + s.bulkMoment + s.clayMoment)
    return { metal, bulk: s.bulkMoment, clay: s.clayMoment };
  const each = broken / s.EI;
  return { metal: each * s.metalEI, bulk: each * s.bulkEI, clay: each * (s.EI - s.metalEI - s.bulkEI) };
}

export function capacityAt(s: CompositeSection, efficiency: number, isThreaded = false): Capacity {
  const { metal, bulk, clay } = capacityParts(s, efficiency, isThreaded);
  return {
    moment: metal + bulk + clay,
    axial: (isThreaded ? s.threadedAxial : s.metalAxial) * efficiency + s.bulkAxial,
  };
}

/** Nm/rad of a join of efficiency below 1: e/(1 - e) x 4EI/L of the weaker bone. Infinity when it is one piece. */
export function joinSpring(efficiency: number, weakestEIperLength: number): number {
  return efficiency >= 1 ? Infinity : (efficiency / (1 - efficiency)) * 4 * weakestEIperLength;
}

/**
 * Curvature a ductile section has left after unloading, as a share of its elastic curvature; 0 below first yield
 * (1/1.5 of the plastic moment), Infinity when it has collapsed. Elastic, perfectly plastic.
 */
export function setShare(momentOverPlastic: number): number {
  const m = 1.5 * momentOverPlastic;
  if (m <= 1) return 0;
  if (m >= 1.5) return Infinity;
  return 1 / (m * Math.sqrt(3 - 2 * m)) - 1;
}
