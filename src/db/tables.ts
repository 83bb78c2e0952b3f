import type { Generated } from 'kysely';

/** What the database holds. Documents and log data are JSON text, checked by core before they come here. */
export interface Tables {
  builds: {
    id: string;
    name: string;
    document: string;
    schema_version: number;
    revision: number;
    /** Undo and redo steps, JSON. */
    history: string;
    /** What the shelf shows: figures, verdicts and a small picture, JSON; worked out from the document. */
    card: string;
    created_at: string;
    updated_at: string;
    archived_at: string | null;
    deleted_at: string | null;
  };
  revisions: {
    id: Generated<number>;
    build_id: string;
    revision: number;
    document: string;
    label: string;
    saved_at: string;
  };
  log_entries: {
    id: string;
    build_id: string;
    kind: string;
    /** When it happened at the bench. */
    at: string;
    data: string;
    /** The entry this one corrects. */
    corrects: string | null;
    recorded_at: string;
  };
  photos: {
    id: string;
    build_id: string;
    mime: string;
    bytes: Buffer;
  };
  /** Whole dryings, packed; each can be worked out again from its build. */
  dryings: {
    build_id: string;
    key: string;
    revision: number;
    bytes: Buffer;
    made_at: string;
  };
  settings: {
    key: string;
    value: string;
  };
}
