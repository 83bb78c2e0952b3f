import { z } from 'zod';
import { roomSchema, type Room } from '../document';

/**
 * The room as it was while something was done: kept with weighings and with clay that went on, so that a change of the
 * room in the build, meant for later or only tried, does not rewrite the air that earlier readings dried in. A record of
 * a hygrometer carries its own hours and stays with the build.
 */
export const roomAsItWasSchema = z.strictObject({
  temperature: roomSchema.shape.temperature,
  relativeHumidity: roomSchema.shape.relativeHumidity,
  airSpeed: roomSchema.shape.airSpeed,
  hours: roomSchema.shape.hours,
  covers: roomSchema.shape.covers,
});
export type RoomAsItWas = z.infer<typeof roomAsItWasSchema>;

export function roomAsItIs({ temperature, relativeHumidity, airSpeed, hours, covers }: Room): RoomAsItWas {
  return { temperature, relativeHumidity, airSpeed, hours, covers };
}
