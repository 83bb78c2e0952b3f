import { z } from 'zod';
import { newId } from './ids';

test('an id of one’s own, also where the browser makes none', () => {
  const made = [newId(), newId()];
  const { randomUUID } = crypto;
  Object.defineProperty(crypto, 'randomUUID', { value: undefined, configurable: true });
  try {
    made.push(newId(), newId());
  } finally {
    Object.defineProperty(crypto, 'randomUUID', { value: randomUUID, configurable: true });
  }
  for (const id of made) expect(z.uuid().safeParse(id).success).toBe(true);
  expect(new Set(made).size).toBe(4);
});
