import { formatMass } from '../quantity';
import { finding, type Rule } from './finding';

/** How much clay goes on. */
export const quantity: Rule = {
  id: 'quantity',
  judge: ({ report, units }) => [
    finding(
      'clay',
      'quantity',
      'sound',
      'whole piece',
      `${formatMass(report.clay.onPiece, units)} of clay goes on.`,
      'Volume of the clay at the density it is laid with.',
      { measured: 0, limit: 1, unit: 'ratio' },
    ),
  ],
};
