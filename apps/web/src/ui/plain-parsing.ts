/**
 * In the browser, schemas are read step by step: the content policy allows no code made from strings, which Zod would try first.
 * Imported before all else, because a schema remembers it from when it is made.
 */
import { z } from 'zod';

if (typeof window !== 'undefined') z.config({ jitless: true });
