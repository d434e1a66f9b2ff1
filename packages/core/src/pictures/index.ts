export * from './picture-plan.js';
