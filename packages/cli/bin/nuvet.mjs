#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { bundle } from './bundle.mjs';

await import(pathToFileURL(await bundle()).href);
