export { startServer, type OwnServer } from '@fleet-rail/fuzz/own-server';
