import { add, cross, mix, norm, scale, subtract, unit, type Vec3 } from '../quantity';
import { reachInside, type SchoolContext } from './school';
import type { SettingOut } from './setting-out';

/**
 * Hoops across a beam and stringers along it, close under the face: the cage that stacked foam and wire mesh are tied
 * to. Spokes carry it on the beam.
 */
export interface Cage {
  readonly prefix: string;
  /** The beam it stands round, and the beam's joints by their short ids, in order. */
  readonly beam: readonly { readonly id: string; readonly at: Vec3 }[];
  /** Places along the beam, and round it. */
  readonly hoops: number;
  readonly around: number;
  /** Kept between the middle of a hoop and the finished face, metres. */
  readonly under: number;
  readonly stock: string;
  readonly size: string;
  /** Every so manieth place round it gets a spoke. */
  readonly spokeEvery: number;
  readonly masses: readonly string[];
  readonly most: number;
  /** Between its places bent to follow the face, where the straight would come too near it. */
  readonly bent: boolean;
}

interface HoopPlace {
  readonly id: string;
  readonly at: Vec3;
}

/** Returns the bones of the beam in order: `joints` of the beam get the hoops' stations between them. */
export function setOutCage(context: SchoolContext, out: SettingOut, cage: Cage): readonly string[] {
  const { beam, hoops, around, prefix, masses } = cage;
  const lengths = beam.slice(1).map((b, i) => norm(subtract(b.at, (beam[i] as HoopPlace).at)));
  const total = lengths.reduce((s, l) => s + l, 0);
  const stations = Array.from({ length: hoops }, (_, h) => ((h + 0.5) / hoops) * total);
  const beamBones: string[] = [];
  const rows: (HoopPlace | null)[][] = [];
  let along = 0;
  beam.slice(1).forEach((to, i) => {
    const from = beam[i] as HoopPlace;
    const length = lengths[i]!;
    const way = unit(subtract(to.at, from.at));
    let last = from.id;
    stations
      .filter((s) => s > along && s <= along + length)
      .forEach((s) => {
        const share = (s - along) / length;
        const at = mix(from.at, to.at, Math.min(0.999, share));
        const row = hoopPlaces(context, cage, rows.length, at, way);
        if (row.every((p) => p === null)) return;
        const id = `${prefix}-hub-${rows.length + 1}`;
        out.node(id, at);
        out.bone(id, `beam to hoop ${rows.length + 1}`, last, id, masses);
        beamBones.push(id);
        last = id;
        rows.push(row);
        for (const p of row) if (p) out.node(p.id, p.at);
        row.forEach((p, k) => {
          if (p && k % cage.spokeEvery === 0) spoke(out, cage, id, at, p, rows.length, k);
        });
      });
    const id = `${prefix}-${to.id}`;
    out.bone(id, `beam to the ${to.id.replaceAll('-', ' ')}`, last, to.id, masses);
    beamBones.push(id);
    along += length;
  });
  rows.forEach((row, r) => hoop(out, cage, row, r));
  for (let k = 0; k < around; k++)
    stringer(
      out,
      cage,
      rows.map((row) => row[k] ?? null),
      k,
    );
  return beamBones;
}

function hoopPlaces(context: SchoolContext, cage: Cage, row: number, at: Vec3, way: Vec3): (HoopPlace | null)[] {
  const side = unit(Math.abs(way[0]) < 0.9 ? cross(way, [1, 0, 0]) : cross(way, [0, 0, 1]));
  const up = cross(side, way);
  return Array.from({ length: cage.around }, (_, k) => {
    const a = (2 * Math.PI * k) / cage.around;
    const out = add(scale(side, Math.cos(a)), scale(up, Math.sin(a)));
    const far = reachInside(context, at, out, cage.under, cage.most);
    return far > 0.02 * cage.most ? { id: `${cage.prefix}-h${row + 1}-${k + 1}`, at: add(at, scale(out, far)) } : null;
  });
}

function spoke(out: SettingOut, cage: Cage, hub: string, at: Vec3, p: HoopPlace, row: number, k: number): void {
  const id = `${cage.prefix}-spoke-${row}-${k + 1}`;
  out.bone(id, `spoke ${k + 1} of hoop ${row}`, hub, p.id, cage.masses, { joinFrom: 'bound-glued', joinTo: 'bound' });
  out.member(id, `spoke ${k + 1} of hoop ${row}`, {
    stock: cage.stock,
    size: cage.size,
    sizedBy: { stock: 'hoopStock', size: 'hoopSize', together: true },
    path: [at, p.at],
    bones: [id],
    allowances: [{ what: 'turned over at both ends', length: 0.08 }],
  });
}

/** A hoop is one bar bent round; where the form leaves no room it is open. */
function hoop(out: SettingOut, cage: Cage, row: readonly (HoopPlace | null)[], r: number): void {
  const bones: string[] = [];
  let path: Vec3[] = [];
  const runs: { path: Vec3[]; bones: string[] }[] = [];
  for (let k = 0; k < row.length; k++) {
    const a = row[k],
      b = row[(k + 1) % row.length];
    if (a && b) {
      const id = `${cage.prefix}-hoop-${r + 1}-${k + 1}`;
      out.bone(id, `hoop ${r + 1}, part ${k + 1}`, a.id, b.id, cage.masses);
      bones.push(id);
      path = path.length === 0 ? [a.at, b.at] : [...path, b.at];
    } else if (path.length > 0) {
      runs.push({ path, bones: bones.splice(0) });
      path = [];
    }
  }
  if (path.length > 0) runs.push({ path, bones: bones.splice(0) });
  runs.forEach((run, i) =>
    out.member(
      `${cage.prefix}-hoop-${r + 1}${i > 0 ? `-${i + 1}` : ''}`,
      `hoop ${r + 1}${i > 0 ? `, piece ${i + 1}` : ''}`,
      {
        stock: cage.stock,
        size: cage.size,
        sizedBy: { stock: 'hoopStock', size: 'hoopSize', together: true },
        ...(cage.bent ? { drawnIn: cage.under } : {}),
        path: run.path,
        bones: run.bones,
        allowances: [{ what: 'overlap, bound', length: 0.06 }],
      },
    ),
  );
}

function stringer(out: SettingOut, cage: Cage, places: readonly (HoopPlace | null)[], k: number): void {
  let run: HoopPlace[] = [],
    bones: string[] = [],
    piece = 0;
  const close = () => {
    if (run.length > 1) {
      piece += 1;
      out.member(
        `${cage.prefix}-stringer-${k + 1}${piece > 1 ? `-${piece}` : ''}`,
        `stringer ${k + 1}${piece > 1 ? `, piece ${piece}` : ''}`,
        {
          stock: cage.stock,
          size: cage.size,
          sizedBy: { stock: 'hoopStock', size: 'hoopSize', together: true },
          ...(cage.bent ? { drawnIn: cage.under } : {}),
          path: run.map((p) => p.at),
          bones,
          allowances: [{ what: 'turned over at both ends', length: 0.08 }],
        },
      );
    }
    run = [];
    bones = [];
  };
  places.forEach((p, r) => {
    if (!p) {
      close();
      return;
    }
    const before = run[run.length - 1];
    if (before) {
      const id = `${cage.prefix}-stringer-${k + 1}-${r}`;
      out.bone(id, `stringer ${k + 1}, part ${r}`, before.id, p.id, cage.masses, {
        joinFrom: 'bound',
        joinTo: 'bound',
      });
      bones.push(id);
    }
    run.push(p);
  });
  close();
}
