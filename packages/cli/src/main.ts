#!/usr/bin/env node
import { run } from './run.js';

const { code, text } = await run(process.argv.slice(2));
(code === 1 ? process.stderr : process.stdout).write(`${text}\n`);
process.exitCode = code;
