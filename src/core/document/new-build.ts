import { buildSchema, schemaVersion, type Build } from './document';

/** A paper-clay bust on a stuffed frame: where a new build starts. Small ones start with thinner pipe and wire. */
export function newBust(name: string, startDate: string, size = 1): Build {
  return buildSchema.parse({
    schemaVersion,
    name,
    brief: { startDate },
    form: { start: { kind: 'bust', size, measures: {} } },
    armature: {
      school: {
        kind: 'stuffed',
        parameters: size < 0.6 ? { pipeSize: '3-8', frameSize: '2.5mm', shoulderSize: '3mm', frameInset: 0.003 } : {},
      },
    },
    regions: { painted: [], seams: [], everywhere: { coats: [Math.max(0.001, Math.round(0.01 * size * 1e4) / 1e4)] } },
  });
}
