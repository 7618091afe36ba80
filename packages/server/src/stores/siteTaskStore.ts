/** What a process asked about a site. Bytes hold data of any kind that crosses threads. */
export interface AskedTask {
  readonly id: string;
  /** The process that asks. */
  readonly asker: number;
  readonly site: string;
  readonly name: string;
  readonly input: Uint8Array;
}

/** What processes ask each other about sites. Tasks of one site are done one after the other. */
export interface SiteTaskStore {
  ask(task: AskedTask): Promise<void>;
  /** Undefined when nobody wants it any more. */
  find(id: string): Promise<AskedTask | undefined>;
  answer(id: string, reply: Uint8Array): Promise<void>;
  /** Takes the answer out: nothing when there is none yet, undefined when the question itself was lost. */
  collect(id: string): Promise<Uint8Array | 'waiting' | undefined>;
  /** Of what a process asked, what nobody will take up any more: those who took it ended in the middle, again and again. */
  lost(asker: number): Promise<readonly string[]>;
  drop(id: string): Promise<void>;
}
