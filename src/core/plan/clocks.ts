/** Hours at 21 degrees until putty on a join is hard. */
export const puttyCure = 24;

/** Seconds for which clay that is warm waits to be used. */
export const clayKeptWarm = 2 * 3600;

/** Seconds for which clay kept damp stays workable under a wet cloth in a closed bag, wetted at every sitting. */
export const dampInABag = 14 * 86400;
