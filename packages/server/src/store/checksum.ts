import { createHash } from 'node:crypto';

/** SHA-256 of a stored text, in hexadecimal: detects changes. */
export const checksum = (text: string): string => createHash('sha256').update(text).digest('hex');
