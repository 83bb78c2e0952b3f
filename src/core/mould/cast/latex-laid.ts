import type { CastStep } from './cast';

/** Latex laid into a plaster mould that drinks its water. */
export const latexLaid: CastStep = {
  id: 'lay',
  name: 'Lay in the latex: filled and poured back, or some ten coats brushed in',
  share: 0.5,
  wait: 24,
  until: 'the latex is dry through',
  lays: 0,
};

export const latexTaken: CastStep = {
  id: 'take',
  name: 'Powder it, peel it out, trim its edge',
  share: 0.15,
  wait: 0,
  until: '',
};
