import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A checkpoint: a shot's document at one moment, under a name. */
@Entity('checkpoint')
export class CheckpointEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text', { name: 'shot_id' }) shotId!: string;
  @Column('text') name!: string;
  @Column('integer') revision!: number;
  /** The document with digests where its pieces were: see pieces.ts. */
  @Column('text') document!: string;
  @Column('text', { name: 'created_at' }) createdAt!: string;
}
