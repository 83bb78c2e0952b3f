import { length } from '../measure';
import { neckMasses } from './human-neck';
import { headTypes } from './head-types';
import { headEnvelope, headLandmarks, headMasses, headMeasures, jawJoint } from './human-head';
import { softestFirst, startForm } from './start-form';

export const head = startForm({
  kind: 'head',
  version: 2,
  name: 'head',
  when: 'A head on its neck alone: a portrait study, a mannequin, a puppet.',
  usualSize: 1,
  types: headTypes,
  finelyMade: true,
  measures: {
    ...headMeasures,
    headForward: length('Head hangs forward', -0.1, 0.2, 0.02),
    neckGirth: length('Neck, round', 0.15, 0.7, 0.38),
    neckLength: length('Neck showing', 0.01, 0.3, 0.08),
    standHeight: length('Bare upright below', 0.01, 0.5, 0.1),
  },
  make: (m) => {
    const collar = m.standHeight + 0.03;
    const chin = m.standHeight + m.neckLength;
    const axis = -m.headForward;
    return {
      joints: [
        { id: 'stand', name: 'foot of the upright', parent: null, at: [0, 0.012, 0], ground: true },
        { id: 'neck', name: 'foot of the neck', parent: 'stand', at: [0, 0.012, collar - 0.03] },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: [0, 0.007 - m.headForward * 0.6, chin + 0.03] },
        { id: 'crown', name: 'crown', parent: 'head', at: [0, axis, chin + m.headHeight - 0.02] },
        jawJoint(m, chin, axis),
      ],
      masses: softestFirst([...neckMasses(m, collar, chin, null), ...headMasses(m, chin, axis)]),
      landmarks: headLandmarks(m, chin, axis),
      envelopes: [headEnvelope(m, chin, axis)],
    };
  },
});
