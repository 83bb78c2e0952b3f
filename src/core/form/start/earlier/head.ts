import { length } from '../../measure';
import { neckMass } from './bust';
import { headEnvelope, headLandmarks, headMasses, headMeasures } from './human-head';
import { ball, startForm } from '../start-form';

export const head = startForm({
  kind: 'head',
  version: 1,
  name: 'head',
  when: 'A head on its neck alone: a portrait study, a mannequin, a puppet.',
  usualSize: 1,
  measures: {
    ...headMeasures,
    headForward: length('Head hangs forward', -0.1, 0.2, 0.02),
    neckGirth: length('Neck, round', 0.15, 0.7, 0.37),
    neckLength: length('Neck showing', 0.01, 0.3, 0.08),
    nose: length('Nose stands out', 0, 0.08, 0.024),
    ears: length('Ears, top to lobe', 0, 0.12, 0.062),
    standHeight: length('Bare upright below', 0.01, 0.5, 0.1),
  },
  make: (m) => {
    const collar = m.standHeight + 0.03;
    const chin = m.standHeight + m.neckLength;
    const axis = -m.headForward;
    const face = axis - m.headDepth * 0.45;
    const middle = chin + m.headHeight * 0.45;
    const features = [];
    if (m.nose > 0.001)
      features.push(
        ball(
          { id: 'nose', name: 'nose', region: 'features', joint: 'head', blend: 0.008, turn: [14, 0, 0] },
          [0, face, chin + m.headHeight * 0.38],
          [0.016, m.nose, m.headHeight * 0.1],
        ),
      );
    if (m.ears > 0.001)
      features.push(
        ball(
          { id: 'ear-left', name: 'ear, left', region: 'features', joint: 'head', blend: 0.004, turn: [-10, 0, 15] },
          [m.headBreadth * 0.49, axis + 0.008, middle],
          [0.007, m.ears * 0.32, m.ears / 2],
        ),
      );
    return {
      joints: [
        { id: 'stand', name: 'foot of the upright', parent: null, at: [0, 0.012, 0], ground: true },
        { id: 'neck', name: 'foot of the neck', parent: 'stand', at: [0, 0.012, collar - 0.03] },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: [0, 0.007 - m.headForward * 0.6, chin + 0.03] },
        { id: 'crown', name: 'crown', parent: 'head', at: [0, axis, chin + m.headHeight - 0.02] },
      ],
      masses: [neckMass(m, collar, chin), ...headMasses(m, chin, axis), ...features],
      landmarks: headLandmarks(m, chin, axis),
      envelopes: [headEnvelope(m, chin, axis)],
    };
  },
});
