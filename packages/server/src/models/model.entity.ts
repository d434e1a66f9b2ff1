import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A model that was read and checked; its bytes lie in the data folder under its digest. */
@Entity('model')
export class ModelEntity {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  @Column('text', { name: 'file_name' }) fileName!: string;
  @Column('text') sha256!: string;
  @Column('integer') bytes!: number;
  /** {@link ModelFacts}, JSON. */
  @Column('text') facts!: string;
  /** Came with the application. */
  @Column('boolean') shipped!: boolean;
  @Column('text', { name: 'created_at' }) createdAt!: string;
}
