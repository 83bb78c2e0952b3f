import { failure, success, type Result } from './result';

/** What people write is never nested deeper; what is costs time and stack wherever it is walked. */
const deepest = 64;

/**
 * Reads JSON that came from outside. Brackets are counted before anything is made of them: text nested without end is
 * refused in one look through it. Failures name the file by `where`.
 */
export function readJson(text: string, where = 'the file'): Result<unknown> {
  const deep = tooDeepAt(text);
  if (deep !== null)
    return failure('too-deep', where, `it is nested more than ${deepest} deep, at character ${deep + 1}`);
  try {
    return success(JSON.parse(text) as unknown);
  } catch (error) {
    return failure('not-json', where, `not JSON: ${(error as Error).message}`);
  }
}

const [quote, backslash, openList, closeList, openPart, closePart] = ['"', '\\', '[', ']', '{', '}'].map((c) =>
  c.charCodeAt(0),
);

function tooDeepAt(text: string): number | null {
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === quote) {
      i = endOfText(text, i);
      if (i < 0) return null;
    } else if (c === openList || c === openPart) {
      if (++depth > deepest) return i;
    } else if (c === closeList || c === closePart) depth--;
  }
  return null;
}

/** Where the text that begins at a quotation mark ends; -1 where it does not. */
function endOfText(text: string, from: number): number {
  for (let end = text.indexOf('"', from + 1); end >= 0; end = text.indexOf('"', end + 1)) {
    let before = end;
    while (text.charCodeAt(before - 1) === backslash) before--;
    if ((end - before) % 2 === 0) return end;
  }
  return -1;
}
