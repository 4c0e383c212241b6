export { OpenCascadeKernel } from './kernel.ts';
