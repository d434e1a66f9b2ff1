import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A set of demo data that was put in once, and is not put in again when it is deleted. */
@Entity('seed')
export class SeedEntity {
  @PrimaryColumn('text') name!: string;
  @Column('text', { name: 'created_at' }) createdAt!: string;
}
