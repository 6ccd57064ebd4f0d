export { computed, shortOf } from '@geolabe/core'
