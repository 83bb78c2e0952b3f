import { startForms } from '../../src/core/form';
import { seeded } from '../../src/core/quantity';
import { draw, faultsOf } from '../support/drawn-forms';

/** Hundreds were drawn when the forms were made; a few of each are drawn again with every run. */
test.each(startForms.map((f) => [f.kind]))('%s: closed, in one piece, mirrored, steady and above ground', (kind) => {
  const random = seeded(kind.length * 31 + 7);
  for (let n = 0; n < 2; n++) {
    const drawn = draw(kind, random);
    expect([drawn, faultsOf(drawn, random)]).toEqual([drawn, []]);
  }
});
