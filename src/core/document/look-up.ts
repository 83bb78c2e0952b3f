import { bulks, clays, stocks, wraps, type BulkKind, type ClayFamily, type Stock, type Wrap } from '../catalogue';
import { failure, success, type Result } from '../quantity';
import type { Build } from './document';

/** Materials of a build: its own snapshot first, then the catalogue. */
export function findClay(build: Build, id: string): Result<ClayFamily> {
  const found = own(build.materials.values.clays, id) ?? clays.get(id);
  return found ? success(found) : failure('unknown-clay', 'brief.clay', `there is no clay "${id}"`);
}

export function findBulk(build: Build, id: string): Result<BulkKind> {
  const found = own(build.materials.values.bulks, id) ?? bulks.get(id);
  return found
    ? success(found)
    : failure('unknown-bulk', 'armature.school.parameters.bulk', `there is no bulk "${id}"`);
}

export function findWrap(id: string): Result<Wrap> {
  const found = wraps.get(id);
  return found
    ? success(found)
    : failure('unknown-wrap', 'armature.school.parameters.wrap', `there is no wrap "${id}"`);
}

export function findStock(build: Build, id: string): Stock | undefined {
  return own(build.materials.values.stocks, id) ?? stocks.get(id);
}

function own<T>(record: Readonly<Record<string, T>>, id: string): T | undefined {
  return Object.hasOwn(record, id) ? record[id] : undefined;
}

/** The build with the catalogue values it uses kept in it, so that a later catalogue does not change its figures. */
export function withSnapshot(build: Build, used: { readonly bulk: string; readonly stocks: readonly string[] }): Build {
  const { values } = build.materials;
  const clay = clays.get(build.brief.clay);
  const bulk = bulks.get(used.bulk);
  const next = {
    clays: clay && !Object.hasOwn(values.clays, clay.id) ? { ...values.clays, [clay.id]: clay } : values.clays,
    bulks: bulk && !Object.hasOwn(values.bulks, bulk.id) ? { ...values.bulks, [bulk.id]: bulk } : values.bulks,
    stocks: { ...values.stocks },
  };
  for (const id of used.stocks) {
    const stock = stocks.get(id);
    if (stock && !Object.hasOwn(next.stocks, id)) next.stocks[id] = stock;
  }
  return { ...build, materials: { ...build.materials, values: next } };
}
