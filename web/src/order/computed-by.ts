export { computed, shortBy } from '@geolabe/core'
