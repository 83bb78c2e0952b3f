import {
  compatibilityRules,
  layers,
  processes,
  traitsOf,
  type BulkKind,
  type ClayFamily,
  type CompatibilityRule,
  type LayerKind,
  type Stock,
  type Trait,
} from '../catalogue';

/**
 * Whether the materials of a stack get on with each other, with what the piece goes through, and with heat. Rules are
 * data (`catalogue/compatibility.ts`); here is only how they are read over a stack.
 * Left out: how much of either there is, and for how long they meet.
 */
export interface StackPart {
  readonly id: string;
  readonly name: string;
  readonly traits: readonly Trait[];
  /** degrees C it stands when finished. */
  readonly standsTo: number;
  /** Lets no water past. */
  readonly seals: boolean;
}

export interface StackProcess {
  readonly name: string;
  readonly traits: readonly Trait[];
  readonly heat: number | null;
}

export interface Conflict {
  /** Rule and what meets, the same for as long as they do. */
  readonly id: string;
  readonly rule: string;
  readonly status: 'watch' | 'fails';
  readonly left: string;
  readonly right: string;
  readonly why: string;
  readonly instead: string;
  /** Regions it is true of; empty for the whole piece. */
  readonly regions: readonly string[];
}

/** From the armature out. */
export interface StackToCheck {
  readonly armature: readonly StackPart[];
  readonly layers: readonly StackPart[];
  readonly processes: readonly StackProcess[];
}

const has = (part: { readonly traits: readonly Trait[] }, wanted: readonly Trait[]): boolean =>
  wanted.some((t) => part.traits.includes(t));

export function conflictsIn(stack: StackToCheck): Conflict[] {
  const found: Conflict[] = [];
  const add = (rule: Pick<CompatibilityRule, 'id' | 'status' | 'why' | 'instead'>, left: string, right: string) => {
    const id = `${rule.id}/${left}/${right}`;
    if (!found.some((c) => c.id === id))
      found.push({
        id,
        rule: rule.id,
        status: rule.status,
        left,
        right,
        why: rule.why,
        instead: rule.instead,
        regions: [],
      });
  };
  const all = [...stack.armature, ...stack.layers];
  for (const rule of compatibilityRules) {
    if (rule.how === 'touching')
      for (const [a, b] of neighbours(stack)) {
        if (has(a, rule.left) && has(b, rule.right)) add(rule, a.name, b.name);
        else if (has(b, rule.left) && has(a, rule.right)) add(rule, b.name, a.name);
      }
    if (rule.how === 'reached') reached(stack, rule, add);
    if (rule.how === 'under')
      stack.layers.forEach((outer, i) => {
        if (!has(outer, rule.right)) return;
        for (const inner of [...stack.armature, ...stack.layers.slice(0, i)])
          if (has(inner, rule.left)) add(rule, inner.name, outer.name);
      });
    if (rule.how === 'process')
      for (const p of stack.processes)
        if (has(p, rule.right)) for (const part of all) if (has(part, rule.left)) add(rule, part.name, p.name);
    const face = stack.layers[stack.layers.length - 1];
    if (rule.how === 'face' && face && has(face, rule.left))
      for (const p of stack.processes) if (has(p, rule.right)) add(rule, face.name, p.name);
    // An armature of nothing but foil fails with the clay itself, whatever the piece goes through.
    if (rule.left.includes('no-wire'))
      for (const bare of stack.armature)
        if (has(bare, ['no-wire'])) for (const l of stack.layers) if (has(l, rule.right)) add(rule, bare.name, l.name);
  }
  for (const p of stack.processes) {
    if (p.heat === null) continue;
    for (const part of all) {
      if (part.standsTo >= p.heat) continue;
      add(
        {
          id: 'heat',
          status: 'fails',
          why: `it stands ${part.standsTo}°, and this is ${p.heat}°`,
          instead: 'a cooler way, another material, or take it out first',
        },
        part.name,
        p.name,
      );
    }
  }
  return found;
}

/** Pairs that lie against each other; the armature meets the innermost layer. */
function neighbours(stack: StackToCheck): [StackPart, StackPart][] {
  const out: [StackPart, StackPart][] = [];
  const first = stack.layers[0];
  if (first) for (const part of stack.armature) out.push([part, first]);
  for (let i = 1; i < stack.layers.length; i++) out.push([stack.layers[i - 1]!, stack.layers[i]!]);
  return out;
}

/** Damp goes inward from `right` until something shuts it out; what shuts it out is reached by it itself. */
function reached(
  stack: StackToCheck,
  rule: CompatibilityRule,
  add: (rule: CompatibilityRule, left: string, right: string) => void,
): void {
  stack.layers.forEach((wet, i) => {
    if (!has(wet, rule.right)) return;
    for (let k = i - 1; k >= -1; k--) {
      const inward = k < 0 ? stack.armature : [stack.layers[k]!];
      for (const part of inward) if (has(part, rule.left) && !part.seals) add(rule, part.name, wet.name);
      if (k >= 0 && stack.layers[k]!.seals) return;
    }
  });
}

export function stockPart(stock: Stock): StackPart {
  return {
    id: stock.id,
    name: stock.name,
    traits: traitsOf(stock.id),
    standsTo: stock.id === 'pvc-pipe' ? 70 : stock.brittle ? 150 : 400,
    seals: false,
  };
}

export function bulkPart(bulk: BulkKind): StackPart {
  return {
    id: bulk.id,
    name: bulk.name,
    traits: traitsOf(bulk.id),
    standsTo: bulk.standsTo,
    seals: bulk.innerFace === 0,
  };
}

export function layerPart(layer: LayerKind): StackPart {
  return { id: layer.id, name: layer.name, traits: traitsOf(layer.id), standsTo: layer.standsTo, seals: layer.seals };
}

/** A coat of clay; its colour is a trait of its own. Clay passes water on. */
export function clayPart(clay: ClayFamily, colour: 'own' | 'white' | 'dyed' = 'own'): StackPart {
  return {
    id: clay.id,
    name: colour === 'own' ? clay.name : `${colour} ${clay.name}`,
    traits: [...clay.traits, ...(colour === 'own' ? [] : [colour])],
    standsTo: clay.standsTo,
    seals: false,
  };
}

export function processOf(kind: string, temperature?: number): StackProcess | null {
  const known = processes.get(kind);
  return known
    ? { name: known.name, traits: known.traits, heat: known.heat === null ? null : (temperature ?? known.heat) }
    : null;
}

export function layerPartOf(id: string): StackPart | null {
  const layer = layers.get(id);
  return layer ? layerPart(layer) : null;
}

/** Conflicts of one that the other did not have. */
export function newConflicts(before: readonly Conflict[], after: readonly Conflict[]): Conflict[] {
  const known = new Set(before.map((c) => c.id));
  return after.filter((c) => !known.has(c.id));
}
