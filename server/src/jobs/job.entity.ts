import { Column, CreateDateColumn, Entity, Index, PrimaryGeneratedColumn } from 'typeorm';

/** Where a job is: waiting and running ones go on when the server starts again. */
export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled' | 'too long';

/** Long work on a study: its document, and what comes of it when it is done. */
@Entity('jobs')
export class Job {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  /** The same for studies whose runs are the same, so that none is run twice. */
  @Index()
  @Column({ type: 'text' })
  key: string;

  /** A digest of the session that asked for it, or of its address where none is needed. */
  @Column({ type: 'text', default: '' })
  owner: string;

  @Column({ type: 'text' })
  state: JobState;

  /** The study as JSON; kept as text, so that damage in one row fails that job and no other. */
  @Column({ type: 'text' })
  document: string;

  /** What is asked for besides, as JSON: the kind of the job, and all that belongs to it. */
  @Column({ type: 'text', default: '{"kind":"study"}' })
  request: string;

  /** What came of it as JSON, such as the runs; it may be large, and is read only where it is asked for. */
  @Column({ type: 'text', nullable: true, select: false })
  runs: string | null;

  /** Length of that. */
  @Column({ type: 'integer', default: 0 })
  bytes: number;

  /** Runs in it, of each method at each step size; 0 until it has ended. */
  @Column({ type: 'integer', default: 0 })
  total: number;

  /** How often it was begun: a job during which the server ended is begun once more, and no more. */
  @Column({ type: 'integer', default: 0 })
  begun: number;

  /** Why it failed, as a sentence. */
  @Column({ type: 'text', nullable: true })
  why: string | null;

  @CreateDateColumn({ type: 'datetime' })
  createdAt: Date;
}
