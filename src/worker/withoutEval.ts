import * as z from 'zod';

/**
 * The page forbids code made of text (its content security policy), and zod would try. To be imported before anything that
 * makes a schema.
 */
z.config({ jitless: true });
