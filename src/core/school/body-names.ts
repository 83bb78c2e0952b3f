/**
 * What a body calls the stretch between two of its joints, and the wire through a limb: "left upper arm", "right shin",
 * "neck wire". Left is the sculpture's own.
 */

/** Parent joint, child joint, name; sides left off. Of a person, of four legs, of a bird. */
const stretches: readonly (readonly [from: string, to: string, name: string])[] = [
  ['pelvis', 'spine', 'waist'],
  ['spine', 'chest', 'ribs'],
  ['chest', 'neck', 'base of the neck'],
  ['neck', 'head', 'neck'],
  ['head', 'crown', 'head'],
  ['chest', 'shoulder', 'shoulder'],
  ['shoulder', 'elbow', 'upper arm'],
  ['elbow', 'wrist', 'forearm'],
  ['wrist', 'fingers', 'hand'],
  ['wrist', 'palm', 'hand'],
  ['pelvis', 'hip', 'hip'],
  ['hip', 'knee', 'thigh'],
  ['knee', 'ankle', 'shin'],
  ['ankle', 'sole', 'foot'],
  ['ankle', 'toe', 'foot'],
  ['loin', 'rump', 'loins'],
  ['loin', 'chest', 'ribs'],
  ['head', 'brow', 'head'],
  ['brow', 'nose', 'muzzle'],
  ['rump', 'hip', 'hip'],
  ['hip', 'stifle', 'thigh'],
  ['stifle', 'hock', 'hind shin'],
  ['hock', 'hind-foot', 'hind foot'],
  ['elbow', 'fore-knee', 'lower foreleg'],
  ['fore-knee', 'fore-foot', 'fore foot'],
  ['rump', 'tail', 'root of the tail'],
  ['tail', 'tail-middle', 'tail, near its root'],
  ['tail-middle', 'tail-end', 'middle of the tail'],
  ['tail-end', 'tail-tip', 'end of the tail'],
  ['back', 'hip', 'hip'],
  ['hip', 'hock', 'thigh'],
  ['hock', 'foot', 'shank'],
  ['back', 'tail', 'rump'],
  ['tail', 'tail-tip', 'tail'],
  ['back', 'neck', 'base of the neck'],
  ['neck', 'neck-bend', 'lower neck'],
  ['neck-bend', 'neck-top', 'upper neck'],
  ['neck-top', 'head', 'head'],
  ['head', 'beak', 'beak'],
  ['back', 'wing', 'root of the wing'],
  ['wing', 'wing-elbow', 'upper arm of the wing'],
  ['wing-elbow', 'pinion', 'forearm of the wing'],
  ['pinion', 'wing-tip', 'hand of the wing'],
];
const named = new Map(stretches.map(([from, to, name]) => [`${from}>${to}`, name]));

/** Of the limb a wire runs on into, by the joint it ends at. */
const limbs: readonly (readonly [end: string, limb: string])[] = [
  ['fingers', 'arm'],
  ['palm', 'arm'],
  ['wrist', 'arm'],
  ['elbow', 'arm'],
  ['sole', 'leg'],
  ['toe', 'leg'],
  ['ankle', 'leg'],
  ['knee', 'leg'],
  ['fore-foot', 'foreleg'],
  ['fore-knee', 'foreleg'],
  ['hind-foot', 'hind leg'],
  ['foot', 'leg'],
  ['hock', 'hind leg'],
  ['tail-tip', 'tail'],
  ['tail-end', 'tail'],
  ['crown', 'neck'],
  ['head', 'neck'],
  ['nose', 'neck'],
  ['brow', 'neck'],
  ['beak', 'neck'],
  ['wing-tip', 'wing'],
];
const limbAt = new Map(limbs);

/** A joint's id without what it belongs to and its side. */
function bare(id: string): { readonly joint: string; readonly side: string } {
  const side = /-(left|right)$/.exec(id)?.[1] ?? '';
  return { joint: id.replace(/^sitter-/, '').replace(/-(left|right)$/, ''), side };
}

const sided = (side: string, name: string) => (side ? `${side} ${name}` : name);

/** Of a branching piece and of a ring, whose joints are counted. */
function counted(from: string, to: string): string | null {
  const tip = /^tip-(\d+)-(\d+)$/.exec(to);
  if (tip) return `tip ${tip[2]!} of branch ${tip[1]!}`;
  const branch = /^(bend|crotch)-(\d+)$/.exec(to);
  if (branch) {
    const half = branch[1] === 'bend' ? 'lower' : from.startsWith('bend-') ? 'upper' : 'whole';
    return half === 'whole' ? `branch ${branch[2]!}` : `${half} half of branch ${branch[2]!}`;
  }
  const fork = /^fork-(\d+)$/.exec(from);
  if (/^fork-\d+$/.test(to)) return fork ? `trunk above fork ${fork[1]!}` : 'trunk';
  const ring = /^ring-(\d+)-(left|right)$/.exec(to);
  return ring ? `${ring[2]!} of the ring, part ${ring[1]!}` : null;
}

/** Null where a body has no name for it. A four-legged animal's upper arm is its upper foreleg. */
export function bodyPart(from: string, to: string, joints: readonly { readonly id: string }[]): string | null {
  const a = bare(from),
    b = bare(to);
  const name = named.get(`${a.joint}>${b.joint}`);
  if (name === undefined) return counted(from, to);
  const onFours = name === 'upper arm' && joints.some((j) => bare(j.id).joint === 'fore-knee');
  return sided(b.side, onFours ? 'upper foreleg' : name);
}

/** One key for a part and its twin on the other side: what is done to the left is done to the right. */
export function twinKey(id: string): string {
  return id.replace(/-(left|right)(?=$|\/|-)/g, '-side');
}

/** What a wire through a run of bones goes through: a limb as a body calls it, or what the bones are called. */
export function limbOfRun(run: readonly { readonly name: string; readonly to: string }[]): string[] {
  const end = run[run.length - 1]?.to ?? '';
  const limb = run.length > 1 ? bodyLimb(end.slice(end.indexOf('/') + 1)) : null;
  return limb ? [limb] : run.map((b) => b.name);
}

/** "left arm", from the joint its wire ends at; null where a body has no name for it. */
export function bodyLimb(end: string): string | null {
  const { joint, side } = bare(end);
  const limb = limbAt.get(joint);
  return limb === undefined ? null : sided(side, limb);
}

/** "left horn" of what the form calls "horn, part 1, left". */
export function bodySide(name: string): string {
  const side = /, (left|right)$/.exec(name)?.[1] ?? '';
  return sided(side, name.replace(/, (left|right)$/, '').replace(/, part 1$/, ''));
}
