/** Standard acceleration of free fall, m/s2, to the three digits that loads are known to. */
export const gravity = 9.81;
