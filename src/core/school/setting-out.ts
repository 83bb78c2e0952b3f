import type { Allowance, Armature, ArmatureNode, BaseBoard, Bone, Hardware, Hole, Member, SizedBy } from '../armature';
import type { JoinKindId } from '../catalogue';
import type { Vec3 } from '../quantity';

interface BoneOptions {
  readonly joinFrom?: JoinKindId;
  readonly joinTo?: JoinKindId;
  readonly tie?: boolean;
}
interface MemberOptions {
  readonly stock: string;
  readonly size: string;
  readonly strands?: number;
  readonly bonded?: boolean;
  /** Bones it runs along, by their short ids. */
  readonly bones: readonly string[];
  readonly path: readonly Vec3[];
  readonly allowances?: readonly Allowance[];
  readonly drawnIn?: number;
  readonly bare?: boolean;
  readonly sizedBy?: SizedBy;
}

/** Sets an armature out piece by piece; every id gets the school's own prefix. */
export class SettingOut {
  readonly nodes: ArmatureNode[] = [];
  readonly bones: Bone[] = [];
  readonly members: Member[] = [];
  readonly hardware: Hardware[] = [];
  readonly holes: Hole[] = [];

  constructor(private readonly prefix: string) {}

  id(short: string): string {
    return `${this.prefix}/${short}`;
  }

  has(short: string): boolean {
    return this.nodes.some((n) => n.id === this.id(short));
  }

  node(short: string, at: Vec3, held = false): void {
    this.nodes.push({ id: this.id(short), at, held });
  }

  bone(
    short: string,
    name: string,
    from: string,
    to: string,
    masses: readonly string[],
    options: BoneOptions = {},
  ): void {
    const { joinFrom = 'welded', joinTo = 'welded', tie } = options;
    this.bones.push({
      id: this.id(short),
      name,
      from: this.id(from),
      to: this.id(to),
      masses,
      joinFrom,
      joinTo,
      ...(tie ? { tie } : {}),
    });
  }

  member(short: string, name: string, m: MemberOptions): void {
    this.members.push({
      id: this.id(short),
      name,
      stock: m.stock,
      size: m.size,
      strands: m.strands ?? 1,
      bonded: m.bonded ?? false,
      path: m.path,
      bones: m.bones.map((b) => this.id(b)),
      allowances: m.allowances ?? [],
      ...(m.drawnIn ? { drawnIn: m.drawnIn } : {}),
      ...(m.bare ? { bare: true } : {}),
      ...(m.sizedBy ? { sizedBy: m.sizedBy } : {}),
    });
  }

  fitting(short: string, name: string, count: number, massEach: number, at: Vec3): void {
    this.hardware.push({ id: this.id(short), name, count, massEach, at });
  }

  hole(hole: Hole): void {
    this.holes.push(hole);
  }

  /** Masses no bone has are hung on `bone`, so that none is carried by nothing. */
  adopt(masses: readonly { readonly id: string }[], short: string): void {
    const had = new Set(this.bones.flatMap((b) => b.masses));
    const left = masses.map((m) => m.id).filter((id) => !had.has(id));
    const i = this.bones.findIndex((b) => b.id === this.id(short));
    const bone = this.bones[i];
    if (bone && left.length > 0) this.bones[i] = { ...bone, masses: [...bone.masses, ...left] };
  }

  finish(
    base: BaseBoard,
    core: { readonly bulk: string; readonly wrap: string },
    more: Partial<Pick<Armature, 'comesOut' | 'sections'>> = {},
  ): Armature {
    const { nodes, bones, members, hardware, holes } = this;
    return {
      nodes,
      bones,
      members,
      hardware,
      base,
      bulk: core.bulk,
      wrap: core.wrap,
      ...(holes.length > 0 ? { holes } : {}),
      ...more,
    };
  }
}
