/**
 * The tree of triangles asks for three in the older way of modules, which three warns of on stderr each time. That is for
 * its makers to mend; here stderr is for what is wrong with a file.
 */
const warn = process.emitWarning.bind(process) as (...args: unknown[]) => void;
process.emitWarning = (...args: unknown[]) => {
  const [, options] = args;
  if ((options as { code?: string } | undefined)?.code !== 'THREE_CJS_DEPRECATED') warn(...args);
};
