export interface Cluster {
  port: number
  environment: {
    GEOLABE_PG_PORT: string
    GEOLABE_PG_PASSWORD: string
    GEOLABE_APP_PASSWORD: string
    GEOLABE_DOOR_PASSWORD: string
  }
  url: (database: string) => string
  serverEnvironment: (database: string) => { GEOLABE_DATABASE_URL: string; GEOLABE_DOOR_URL: string; GEOLABE_KEY_FILE: string }
  stop: (mode?: string) => { ok: boolean; said: string }
}
export function ensureCluster(folder: string, port: number): Promise<Cluster>
export function freePort(from: number): Promise<number>
