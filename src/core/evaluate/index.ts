/**
 * The one entry. In: a build, its log, the moment, and what surrounds it. Out: the report that every screen, sheet, file
 * and command reads; its two dates are made here and nowhere else.
 */
export * from './evaluate';
export * from './report';
export * from './card';
