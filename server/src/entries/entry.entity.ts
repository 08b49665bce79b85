import type { SchrittDocument } from '@schritt/core/document';
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
  kind: SchrittDocument['kind'];

  @Column({ type: 'text' })
  title: string;

  /** The document as JSON; kept as text, so that damage in one row is met when that row is read and nowhere else. */
  @Column({ type: 'text' })
  document: string;

  /** The beginning of the text that a list shows. */
  @Column({ type: 'text', default: '' })
  excerpt: string;

  /** Titles of the first methods of a study, as JSON. */
  @Column({ type: 'text', default: '[]' })
  methods: string;

  /** The part of the link at which it is shown to others that cannot be guessed; null where it is not shown. */
  @Column({ type: 'text', nullable: true })
  shownAt: string | null;

  /** When it was put into the bin; null where it is in the list. */
  @Column({ type: 'datetime', nullable: true })
  deletedAt: Date | null;

  /** Counts the replacements; a replacement must name the version it was made from. */
  @VersionColumn()
  version: number;

  @CreateDateColumn({ type: 'datetime' })
  createdAt: Date;

  @UpdateDateColumn({ type: 'datetime' })
  updatedAt: Date;
}
