import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { Column, CreateDateColumn, Entity, Index, PrimaryGeneratedColumn } from 'typeorm';

/** Where a job is: waiting and running ones go on when the server starts again. */
export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled' | 'too long';

/** A long study that the server runs: its document, and the runs of its methods when they are done. */
@Entity('jobs')
export class Job {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  /** The same for studies whose runs are the same, so that none is run twice. */
  @Index()
  @Column({ type: 'text' })
  key: string;

  @Column({ type: 'text' })
  state: JobState;

  @Column({ type: 'simple-json' })
  document: StudyDocument;

  @Column({ type: 'simple-json', nullable: true })
  runs: readonly MethodRun[] | null;

  /** Why it failed, in words. */
  @Column({ type: 'text', nullable: true })
  why: string | null;

  @CreateDateColumn({ type: 'datetime' })
  createdAt: Date;
}
