/** How work on threads is bounded. */
export interface ThreadOptions {
  /** Folder of the compiled worker files. */
  readonly workers: string;
  /** Seconds that all tasks of a job may take together. */
  readonly limit: number;
  /** Tasks of jobs that are done at a time; one less than there are processors where nothing is said. */
  readonly threads?: number;
  /** Megabytes of memory that one thread may take. */
  readonly memory?: number;
  /** Seconds that heavy work within a request may take. */
  readonly requestLimit?: number;
}

export const THREAD_OPTIONS = Symbol('thread options');

const MEMORY = 1024;
/**
 * Megabytes for young objects, as three parts of which one is moved to the old ones at once. Node lets a thread that is
 * over its bound take 16 megabytes more until it stops, and ends the whole process where it takes these in one go.
 */
const YOUNG = 24;

/** The bounds of a worker thread: one that asks for more memory ends, and the server goes on. */
export function resourceLimits({ memory = MEMORY }: ThreadOptions): {
  readonly maxOldGenerationSizeMb: number;
  readonly maxYoungGenerationSizeMb: number;
} {
  return { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: YOUNG };
}

/** Whether a thread ended because it asked for more memory than it may have. */
export function ranOutOfMemory(thrown: unknown): boolean {
  return (
    typeof thrown === 'object' &&
    thrown !== null &&
    'code' in thrown &&
    thrown.code === 'ERR_WORKER_OUT_OF_MEMORY'
  );
}
