/** Of the product; saved with every assessment. */
export const version = '0.1.0'
