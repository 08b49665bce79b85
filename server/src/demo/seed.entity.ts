import { Entity, PrimaryColumn } from 'typeorm';

/** A demo file that was put in once; it is never put in again, whatever became of the entry. */
@Entity('seeds')
export class Seed {
  @PrimaryColumn({ type: 'text' })
  name: string;
}
