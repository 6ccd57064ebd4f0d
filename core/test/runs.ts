/**
 * How often a property is tried: whole in `npm run hunt`, a seeded sample in `npm test`, which has to stay short.
 * @param sample times in `npm test`
 */
export const runs = (whole: number, sample = 400) => (process.env.GEOLABE_SEED === 'new' ? whole : Math.min(whole, sample))
