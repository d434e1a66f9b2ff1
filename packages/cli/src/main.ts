#!/usr/bin/env node
import { run } from './run.js';

const { code, text } = await run(process.argv.slice(2));
(code === 0 ? process.stdout : process.stderr).write(`${text}\n`);
process.exitCode = code;
