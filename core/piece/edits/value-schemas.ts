import * as z from 'zod';
import { colourSchema } from '../../colour';
import { vectorSchema } from '../../motion';
import { numberSchema } from '../../time';
import { PROPERTY_IDS } from '../document/properties';
import type { PropertyId } from '../document/properties';

/** What edits of values name, and what they take. */
export const propertyIdSchema = z.enum(PROPERTY_IDS as [PropertyId, ...PropertyId[]]); // keys of the table
export const valueSchema = z.union([numberSchema, vectorSchema, colourSchema]);
