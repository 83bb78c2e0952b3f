import type { Member } from '../armature';
import { coatsOf, layersOf } from '../clay';
import { clays } from '../catalogue';
import type { Build, BuildEdit, Change, Layers } from '../document';
import { sensible } from '../quantity';
import type { Piece } from '../piece';
import type { Proposal } from './finding';

/** Changes that several rules propose. */
export function parameter(label: string, values: Readonly<Record<string, unknown>>): BuildEdit {
  return {
    label,
    changes: Object.entries(values).map(([k, value]): Change => ({
      path: ['armature', 'school', 'parameters', k],
      value,
    })),
  };
}

/**
 * The same change to each of these members. A size belongs to the stock it is sold in: that is said with it, or an armature
 * that is sized would take the size for that of another.
 */
export function memberChanges(
  members: readonly Pick<Member, 'id' | 'stock'>[],
  values: Readonly<Record<string, unknown>>,
): Change[] {
  return members.flatMap((m) =>
    Object.entries('size' in values && !('stock' in values) ? { stock: m.stock, ...values } : values).map(
      ([k, value]): Change => ({ path: ['armature', 'edits', m.id, k], value }),
    ),
  );
}

/** The regions' other layers stay; stages that were chosen for other coats do not. */
export function setCoats(
  build: Build,
  label: string,
  regions: readonly string[],
  coatsFor: (region: string, coats: readonly number[]) => readonly number[],
): BuildEdit {
  return {
    label,
    changes: regions.map((region): Change => {
      const { stages: _, ...kept } = layersOf(build, region);
      return {
        path: ['regions', 'own', region],
        value: { ...kept, coats: [...coatsFor(region, coatsOf(build, region))] },
      };
    }),
  };
}

export function allThinner(piece: Piece, factor: number, label: string): BuildEdit {
  const thin = (l: Layers) => ({
    ...l,
    coats: l.coats.map((t) => Math.max(0.0005, Math.round(t * factor * 1e4) / 1e4)),
  });
  const { regions } = piece.build;
  return {
    label,
    changes: [
      { path: ['regions', 'everywhere'], value: thin(regions.everywhere) },
      ...Object.entries(regions.own).map(([id, l]): Change => ({ path: ['regions', 'own', id], value: thin(l) })),
    ],
  };
}

export const thinnerEverywhere = (piece: Piece): Proposal => ({
  id: 'thinner',
  edit: allThinner(piece, 0.75, 'Thinner clay everywhere'),
  note: 'three quarters of what is planned',
});

/** Size changes take the clay's thickness with them; pipe and wire stay what they are. */
export function resizeEdit(build: Build, size: number): BuildEdit {
  const factor = size / build.form.start.size;
  const scaled = (l: Layers) => ({
    ...l,
    coats: l.coats.map((t) => Math.min(0.3, Math.max(0.0005, t * factor))),
  });
  return {
    label: `Make it ${sensible(size * 100)} % of life size`,
    changes: [
      { path: ['form', 'start', 'size'], value: size },
      { path: ['regions', 'everywhere'], value: scaled(build.regions.everywhere) },
      ...Object.entries(build.regions.own).map(([id, l]): Change => ({
        path: ['regions', 'own', id],
        value: scaled(l),
      })),
    ],
  };
}

export function otherClays(piece: Piece, ids: readonly string[]): Proposal[] {
  return ids
    .filter((id) => id !== piece.clay.id)
    .map((id) => ({
      id: `clay-${id}`,
      edit: { label: `Use ${clays.get(id)?.name ?? id}`, changes: [{ path: ['brief', 'clay'], value: id }] },
      note: 'another clay altogether: everything moves',
      another: true,
    }));
}
