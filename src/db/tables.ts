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
    /** What the card was worked out from: where it is not what stands now, the card is old. */
    card_of: Generated<string>;
    /** What it needs of materials, JSON, and what that was worked out from. */
    needs: Generated<string>;
    needs_of: Generated<string>;
    clay: Generated<string>;
    /** Of life. */
    size: Generated<number>;
    /** On the go: 1, else 0. */
    active: Generated<number>;
    /** The build it is another version of. */
    version_of: string | null;
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
    /** The id the page gave this save; empty where it gave none. */
    save_id: Generated<string>;
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
    /** 1 where `at` is a correction's own time. */
    own_time: Generated<number>;
    recorded_at: string;
    /** What was written after what: counts up. */
    written: Generated<number>;
  };
  /** Pictures as they were kept at first, whole; moved out to files when the database is opened. */
  photos: {
    id: string;
    build_id: string;
    mime: string;
    bytes: Buffer;
  };
  /** Pictures of the log; each is a file beside the database, by the hash of its bytes. */
  pictures: {
    id: string;
    build_id: string;
    hash: string;
    width: number;
    height: number;
    size: number;
  };
  /** What came to the shelf, went from it and was counted on it; amounts in the item's own unit. */
  stock_moves: {
    id: string;
    item: string;
    kind: string;
    amount: number;
    price: number | null;
    build_id: string | null;
    note: string;
    at: string;
  };
  /** Whole dryings, packed; each can be worked out again from its build. */
  dryings: {
    build_id: string;
    key: string;
    revision: number;
    bytes: Buffer;
    /** What it found, small: JSON. */
    findings: string | null;
    made_at: string;
  };
  settings: {
    key: string;
    value: string;
  };
}
