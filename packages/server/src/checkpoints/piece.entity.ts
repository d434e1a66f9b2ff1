import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A part of documents, kept once for all checkpoints that have it. */
@Entity('piece')
export class PieceEntity {
  @PrimaryColumn('text') digest!: string;
  /** JSON, deflated. */
  @Column('blob') bytes!: Buffer;
}
