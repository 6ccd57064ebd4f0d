/** Inputs with a ±, as they are called in a sentence. */
const words: readonly [RegExp, string][] = [
  [/^lift\.hung\.load\.mass_kg$/, 'the load’s mass'],
  [/^lift\.hung\.load\.windArea_m2$/, 'the load’s wind area'],
  [/^lift\.steps\.\d+\.pickUp\.radius_m$/, 'the radius at pick-up'],
  [/^lift\.steps\.\d+\.setDown\.radius_m$/, 'the radius at set-down'],
  [/^lift\.steps\.\d+\.lifted_kg$/, 'what is lifted'],
  [/^lift\.steps\.\d+\.overhang_m$/, 'how far behind it is carried'],
  [/^lift\.steps\.\d+\.speed_mps$/, 'the speed'],
  [/^lift\.hung\.rigging\.\d+\.mass_kg$/, 'the rigging’s mass'],
  [/^lift\.hung\.rigging_height_m$/, 'how far the load hangs below the hook'],
  [/^lift\.hung\.slings\.length_m$/, 'the length of the slings'],
  [/^lift\.hung\.slings\.(along|across)_m$/, 'the spread of the lift points'],
  [/^conditions\.wind_mps$/, 'the wind'],
  [/^setup\.level\.pitch_deg$/, 'the level along'],
  [/^setup\.level\.roll_deg$/, 'the level across'],
]

/** What has a ± at a path of a case, in words. */
export const uncertaintyWords = (path: string): string => words.find(([at]) => at.test(path))?.[1] ?? 'what was measured'
