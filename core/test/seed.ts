import fc from 'fast-check'

/**
 * Properties draw the same cases in every run, so that a check that passed here passes elsewhere. To look for cases not tried yet,
 * `npm run hunt` draws new ones and prints the seed of what it finds.
 */
const given = process.env.GEOLABE_SEED
fc.configureGlobal({ seed: given === 'new' ? Math.floor(Math.random() * 2 ** 31) : Number(given ?? 20260501) })
