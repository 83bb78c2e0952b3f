import { newBust, type Build } from '../core/build';

/** The Lamplighter: the made-up Compagnia del Faro's bust for the foyer of its made-up Festa del Porto. */
export function lamplighter(startDate: string, deadline: string | null): Build {
  const base = newBust('The Lamplighter', startDate);
  return {
    ...base,
    brief: {
      ...base.brief, deadline, hoursPerWeek: 10, limits: { weight: 8, crack: 1, tipAngle: 15 },
      note: 'Bust of the old lamplighter for the foyer of the Festa del Porto. He looks down at the boats, so the head hangs well forward.',
    },
    room: { ...base.room, temperature: 19, relativeHumidity: 0.55 },
    form: { ...base.form, start: { kind: 'bust', size: 1, measures: { headForward: 0.09, neckGirth: 0.365, shoulderBreadth: 0.41 } } },
    armature: {
      ...base.armature,
      school: { kind: 'stuffed', parameters: { frameSize: '4.8mm', shoulderSize: '4.8mm', shoulderStrands: 3 } },
    },
    regions: { everywhere: { coats: [0.01] }, own: { chest: { coats: [0.012] } } },
    materials: { ...base.materials, pack: { mass: 1, price: 4.5 }, waste: 0.1 },
  };
}
