import type { Document } from '@schritt/core/document';
import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  PrimaryGeneratedColumn,
  UpdateDateColumn,
  VersionColumn,
} from 'typeorm';

/** A stored study, problem or method: a document of the open file format with a version number. */
@Entity('entries')
export class Entry {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Index()
  @Column({ type: 'text' })
  kind: Document['kind'];

  @Column({ type: 'text' })
  title: string;

  @Column({ type: 'simple-json' })
  document: Document;

  /** Counts the replacements; a replacement must name the version it was made from. */
  @VersionColumn()
  version: number;

  @CreateDateColumn({ type: 'datetime' })
  createdAt: Date;

  @UpdateDateColumn({ type: 'datetime' })
  updatedAt: Date;
}
