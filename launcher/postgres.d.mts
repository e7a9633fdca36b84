/** A private cluster that runs; see postgres.mjs. */
export interface Cluster {
  readonly url: string;
  readonly pid: number;
  readonly folder: string;
  readonly joined: boolean;
  stop(): Promise<void>;
}
export function startCluster(name: string, wantedPort?: number): Promise<Cluster>;
export function orphansOf(folder: string): readonly { readonly pid: number; readonly title: string }[];
