import type { BodyStore } from './bodies.js';
import type { Database } from './database.js';
import type { FleetStore } from './postgres/fleet.js';
import type { Leases } from './leases.js';

/** Bytes that a workspace takes. */
export interface WorkspaceSize {
  readonly database: number;
  readonly bodies: number;
}

/** Where a workspace is kept, and how: a folder, or a database on a server. */
export interface WorkspacePlace {
  /** How the place is shown to people: without password. */
  readonly shown: string;
  /** The folder of this machine for files that programs open: HAR files, recordings. */
  readonly folder: string;
  readonly database: Database;
  readonly leases: Leases;
  readonly bodies: BodyStore;
  /** Where many programs work on one workspace: what they know of each other, and the address of their queue. */
  readonly fleet?: { readonly store: FleetStore; readonly address: string };
  /** What is wrong with the database, in its own words; empty if it is sound. */
  readonly problems: () => string[];
  /** Returns the space of deleted rows to the disk. */
  readonly tidy: () => void;
  readonly size: () => Promise<WorkspaceSize>;
  readonly close: () => void;
}
