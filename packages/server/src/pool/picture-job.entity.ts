import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Its runs are being stored; it is being drawn; it is whole. */
export type JobState = 'adding' | 'drawing' | 'done';

/** Ordered pictures, as a job for renderers. */
@Entity('picture_job')
export class PictureJobEntity {
  @PrimaryColumn('text') id!: string;
  /** Shot at which it was ordered; null if ordered elsewhere. */
  @Column('text', { name: 'shot_id', nullable: true }) shotId!: string | null;
  @Column('text') name!: string;
  /** Work to render: {@link PictureJob} of core, JSON. */
  @Column('text') work!: string;
  /** So many pictures. */
  @Column('integer') pictures!: number;
  @Column('integer') width!: number;
  @Column('integer') height!: number;
  @Column('text') state!: JobState;
  @Column('text', { name: 'file_name' }) fileName!: string;
  /** Of the file, once it is whole. */
  @Column('integer', { nullable: true }) bytes!: number | null;
  @Column('text', { name: 'created_at' }) createdAt!: string;
  @Column('text', { name: 'done_at', nullable: true }) doneAt!: string | null;
}
