import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Available; claimed by a renderer; returned; paused until someone tries it again. */
export type BatchState = 'waiting' | 'taken' | 'given' | 'paused';

/** A run of a job's pictures, or the joining of all of them into one file. */
@Entity('picture_run')
export class PictureRunEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text', { name: 'job_id' }) jobId!: string;
  /** Its place among the runs of its job. */
  @Column('integer') place!: number;
  @Column('text') kind!: 'draw' | 'join';
  /** Index of its first picture, and how many there are. */
  @Column('integer') first!: number;
  @Column('integer') count!: number;
  @Column('text') state!: BatchState;
  /** Its renderer, now or before. */
  @Column('text', { name: 'taker', nullable: true }) renderer!: string | null;
  /** End of the lease, milliseconds since 1970, unless a heartbeat extends it. */
  @Column('integer', { nullable: true }) until!: number | null;
  /** So many of its pictures were given back, or put into the file. */
  @Column('integer') done!: number;
  /** How often a renderer of it was lost, or gave back what was no picture. */
  @Column('integer') lost!: number;
  /** Why it is paused. */
  @Column('text', { nullable: true }) problem!: string | null;
}
