import { z } from 'zod';
import { failure, formatTemperature, parseNumber, parseTemperature, sensible, success } from '../quantity';
import { entryKind, textIn } from './kind';
import { roomAsItWasSchema } from './room-as-it-was';

/** The room as it was read: from then on it is that much warmer or damper than the build says. `room` is what the build said. */
export const room = entryKind({
  id: 'room',
  name: 'Room',
  schema: z.strictObject({
    temperature: z.number().min(-20).max(70),
    relativeHumidity: z.number().min(0).max(1),
    room: roomAsItWasSchema.optional(),
  }),
  fields: [
    { key: 'temperature', label: 'Temperature', ask: 'temperature', example: { metric: '19', imperial: '66' } },
    { key: 'humidity', label: 'Humidity, %', ask: 'number', example: { metric: '55', imperial: '55' } },
  ],
  read: (values, { units, room: said }) => {
    const temperature = parseTemperature(textIn(values, 'temperature'), units === 'imperial' ? 'F' : 'C');
    if (!temperature.ok) return { ...temperature, path: 'temperature' };
    const humidity = parseNumber(textIn(values, 'humidity').replace('%', '').trim());
    if (humidity === undefined || !(humidity >= 0 && humidity <= 100))
      return failure('out-of-range', 'humidity', 'The humidity is between 0 and 100 %.');
    if (!(temperature.value >= -20 && temperature.value <= 70))
      return failure('out-of-range', 'temperature', 'That is no temperature of a room.');
    return success({
      temperature: temperature.value,
      relativeHumidity: humidity / 100,
      ...(said ? { room: said } : {}),
    });
  },
  fill: null,
  words: (d, units) => ({
    main: `${formatTemperature(d.temperature, units)} · ${sensible(d.relativeHumidity * 100, 3)} %`,
    more: 'the room',
  }),
});
