export { reckonedBy } from '@geolabe/core'
