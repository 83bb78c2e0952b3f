/** An expected failure is data: a code, where it happened, and what would be accepted. Bugs throw. */
export interface Failure {
  readonly ok: false;
  readonly code: string;
  /** Where: a path into the document, a field, or the text typed. */
  readonly path: string;
  readonly message: string;
}

export interface Success<T> {
  readonly ok: true;
  readonly value: T;
}

export type Result<T> = Success<T> | Failure;

export function success<T>(value: T): Success<T> {
  return { ok: true, value };
}

export function failure(code: string, path: string, message: string): Failure {
  return { ok: false, code, path, message };
}
