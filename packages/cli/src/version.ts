/**
 * The command's version, as its package states it.
 */
import packageFile from '../package.json' with { type: 'json' };

export const { version } = packageFile;
