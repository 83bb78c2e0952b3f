/**
 * The plan. In: the piece worked out, what its log says was done, who works when. Out: steps with their waits, placed in
 * time among the workshop's other builds, what decides the date, and whatever the plan breaks.
 */
export * from './time-zone';
export * from './calendar';
export * from './task';
export * from './clashes';
export * from './availability';
export * from './schedule';
export * from './deadline';
export * from './deciding';
export * from './gaps';
export * from './step-rates';
export * from './order-of-work';
export * from './step';
export * from './surface-passes';
export * from './steps';
export * from './pace';
export * from './changes';
export { castStepPrefix } from './cast-steps';
export * from './plan';
export * from './sittings';
export * from './trial';
export * from './day-off';
export * from './holding';
export * from './facts';
export * from './stock';
export * from './words';
export * from './surroundings';
export * from './warm-clay';
