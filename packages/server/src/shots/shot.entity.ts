import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A stored shot: the document, and the count of its saves. */
@Entity('shot')
export class ShotEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  /** Rises by one with every save; a save based on an older one is refused. */
  @Column('integer') revision!: number;
  /** The shot document, JSON. */
  @Column('text') document!: string;
  /** Sketch on the card: {@link ShotSketch}, JSON. */
  @Column('text') sketch!: string;
  @Column('text', { name: 'created_at' }) createdAt!: string;
  @Column('text', { name: 'updated_at' }) updatedAt!: string;
  /** Which save made the revision, by the name its sender gave it: one whose answer was lost is known again. */
  @Column('text', { name: 'last_save', nullable: true }) lastSave!: string | null;
  /** Set while the shot is deleted but can be brought back. */
  @Column('text', { name: 'deleted_at', nullable: true }) deletedAt!: string | null;
  /** When it goes for good, set while it is deleted. */
  @Column('text', { name: 'delete_after', nullable: true }) deleteAfter!: string | null;
}
