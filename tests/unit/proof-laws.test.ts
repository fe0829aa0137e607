/**
 * What a proof finds in outlines at random, held against jsts: crossings, widths of webs, slots and gaps, and whether what a
 * button mends is an area again.
 */
import type { Piece } from '@nuvet/core/job';
import { type Path, type Point, polygonPath, reversedPath, transformedPath } from '@nuvet/core/plane';
import { type Fault, faultsIn, type ProofLimits } from '@nuvet/core/proof';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
