import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A browser that has logged in. The token itself is known to that browser alone. */
@Entity('sessions')
export class Session {
  /** SHA-256 digest of the token in the cookie. */
  @PrimaryColumn({ type: 'text' })
  id: string;

  /** Digest of the server key it was opened with: another key ends the session. */
  @Column({ type: 'text' })
  key: string;

  @Column({ type: 'datetime' })
  createdAt: Date;
}
