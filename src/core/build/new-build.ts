import { buildSchema, schemaVersion, type Build } from './document';

/** A life-size paper-clay bust on a stuffed frame: where a new build starts. */
export function newBust(name: string, startDate: string, size = 1): Build {
  return buildSchema.parse({
    schemaVersion, name,
    brief: { startDate },
    form: { start: { kind: 'bust', size, measures: {} } },
    armature: { school: { kind: 'stuffed', parameters: {} } },
    regions: { everywhere: { coats: [Math.max(0.001, Math.round(0.01 * size * 1e4) / 1e4)] } },
  });
}
