import { runwayBeamCalculator } from '@geolabe/core'
import { t } from '../../language/t'
import { fig, hero, kN, present, use } from './present'
import { Arrow, type At, Box, Earth, Line, Scene, Word } from './scene'

/** How high the beam hangs, as it is drawn, metres. */
const hung_m = 3.2

export const runwayBeam = present(runwayBeamCalculator, {
  hero: (_i, o, say) => [
    use(say, t`Stress in the beam, ${fig(o.stress_MPa, 1)} MPa`, o.utilisation),
    hero(say, t`At most on the hook, by its bending`, 'mass', o.most_kg),
    hero(say, o.farSupport_N < 0 ? t`The far support is pulled up` : t`The far support bears`, 'force', Math.abs(o.farSupport_N)),
  ],
  steps: (i, o) => [
    t`load: (${fig(i.onHook_kg, 0)} + ${fig(i.hoistAndTrolley_kg, 0)})·g at ${fig(o.at_m)} m, worst ${fig(o.section_m)} m along the beam`,
    t`${fig(o.moment_Nm, 0)} Nm / ${fig(i.sectionModulus_cm3, 0)} cm³ = ${fig(o.stress_MPa, 1)} MPa of ${fig(i.allowableStress_MPa, 0)}`,
    t`far support: ${kN(o.farSupport_N)}`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Taken up at`,
      at: [i.takenUpAt_m, 1.2],
      value: say('length', i.takenUpAt_m),
      to: ([x]) => ({ takenUpAt_m: Math.max(0, x) }),
    },
    {
      label: t`Put down at`,
      at: [i.putDownAt_m, 2],
      value: say('length', i.putDownAt_m),
      to: ([x]) => ({ putDownAt_m: Math.max(0, x) }),
    },
  ],
  Drawing: ({ input: i, output: o, say }) => {
    const end_m = i.span_m + i.overhang_m
    const under = (x: number): At => [x, hung_m]
    const up = o.farSupport_N < 0
    return (
      <Scene
        box={[
          [-0.8, -0.6],
          [end_m + 0.8, hung_m + 1.4],
        ]}
        label={t`A runway beam of ${say('length', i.span_m)} with ${say('mass', i.onHook_kg)} taken from ${say('length', i.takenUpAt_m)} to ${say('length', i.putDownAt_m)}`}
      >
        <Earth from={-2} to={end_m + 2} />
        <Line at={[[0, 0], under(0)]} width={2} />
        <Line at={[[i.span_m, 0], under(i.span_m)]} width={2} />
        <Box at={[0, hung_m]} w={end_m} h={0.34} fill="sheet" />
        <Line at={[under(i.takenUpAt_m), [i.takenUpAt_m, 1.2]]} width={0.6} />
        <Line at={[under(i.putDownAt_m), [i.putDownAt_m, 2]]} width={0.6} />
        <Box at={[i.takenUpAt_m - 0.35, 0.6]} w={0.7} h={0.6} fill="sheet" />
        <Box at={[i.putDownAt_m - 0.35, 1.4]} w={0.7} h={0.6} fill="sheet" />
        <Line
          at={[
            [o.section_m, hung_m - 0.1],
            [o.section_m, hung_m + 0.44],
          ]}
          width={1.6}
        />
        <Word at={[o.section_m, hung_m + 0.8]} bold>
          {say('length', o.section_m)}
        </Word>
        <Arrow
          from={[-0.4, up ? hung_m - 0.9 : hung_m + 1]}
          to={[-0.4, up ? hung_m + 0.3 : hung_m]}
          tone={up ? 'near' : 'inside'}
          width={1.4}
        />
      </Scene>
    )
  },
})
