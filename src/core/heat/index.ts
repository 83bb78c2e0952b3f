/**
 * Warming oil-based clay and baking oven clay. In: mass, thickness, heater. Out: hours, lumps, and what inside cannot stand
 * the heat.
 */
export * from './warming';
export * from './baking';
