import { expect, type Page, test } from '@playwright/test'
import { secondPerson } from './by-api'
import { addRigging, aside, atSetUp, closeSetUp, type Day, inOrder, liftAndLand, look, onToProof, stowAway } from './day'
import { throughOrder } from './order'
import { audit, confirmEvidence, fits, freeTern, openSheet, sizeIt, verdict, workingAgain } from './work'

test.beforeEach(freeTern)

// The screens are the same for all of them: the first of the cranes and the first of the trucks are audited.

interface Plan {
  id: string
  place: string
  /** The way of standing, where there are several. */
  state?: RegExp
  stand?: string
  mat?: string
  partsOfLine: string
  load: string
  kg: string
  rigging_kg: string
  /** Left out: its poses say it. */
  boom?: RegExp
  /** Radius and slew of both ends; of a folding boom the angles and slew of each pose. */
  from: string[]
  to: string[]
  /** As the verdict says it. */
  says: RegExp
}

const plans: Plan[] = [
  {
    id: 'heron',
    place: 'net-loft-yard',
    stand: 'Before the loft',
    mat: 'mat-08',
    partsOfLine: '2',
    load: 'Pallet of net lead',
    kg: '900',
    rigging_kg: '12',
    from: ['65', '55', '60'],
    to: ['60', '15', '90'],
    says: /Inside the limits checked/,
  },
  {
    id: 'wren',
    place: 'net-loft-yard',
    stand: 'Middle of the yard',
    mat: 'block-04',
    partsOfLine: '2',
    load: 'Lean-to truss',
    kg: '430',
    rigging_kg: '18',
    boom: /^4\.20/,
    from: ['3.2', '180'],
    to: ['3.2', '250'],
    says: /Inside the limits checked/,
  },
  {
    id: 'turnstone',
    place: 'lighthouse-terrace',
    mat: 'mat-06',
    partsOfLine: '4',
    load: 'Lens panel in its crate',
    kg: '900',
    rigging_kg: '15',
    boom: /^5\.60/,
    from: ['4.54', '190'],
    to: ['4.54', '350'],
    says: /Inside the limits checked/,
  },
  {
    id: 'petrel',
    place: 'north-quay',
    state: /On its wheels/,
    stand: 'Along the open quay',
    partsOfLine: '2',
    load: 'Something else',
    kg: '2300',
    rigging_kg: '120',
    boom: /^9\.50/,
    from: ['7', '180'],
    to: ['7', '180'],
    says: /Inside the limits checked/,
  },
  {
    id: 'plover',
    place: 'north-quay',
    stand: 'Along the open quay',
    mat: 'mat-12',
    partsOfLine: '2',
    load: 'Pump skid',
    kg: '2850',
    rigging_kg: '40',
    boom: /^8\.50/,
    from: ['5', '180'],
    to: ['6', '200'],
    says: /Inside the limits checked/,
  },
]

async function setUp(day: Day, plan: Plan): Promise<void> {
  const { page } = day
  await openSheet(page, 'Stand')
  if (plan.state) await page.getByRole('radio', { name: plan.state }).click()
  if (plan.stand) await page.getByRole('radio', { name: plan.stand }).click()
  const parts = page
    .getByRole('radiogroup', { name: 'Parts of line' })
    .getByRole('radio', { name: new RegExp(`^${plan.partsOfLine}\\b`) })
  await parts.click()
  const wheels = page.getByRole('tab', { name: 'Wheels', exact: true })
  if (await wheels.isVisible()) {
    await wheels.click()
    await page.getByText('Tyres looked at, pressures read').click()
  } else if (plan.mat) {
    await openSheet(page, 'Outriggers')
    await page.getByLabel('Under the pad').selectOption(plan.mat)
    const all = page.getByRole('button', { name: 'The same under all' })
    if (await all.isVisible()) await all.click()
  }
  await openSheet(page, 'Level')
  await page.getByLabel('Along, front high is plus').fill('0')
  await page.getByLabel('Across, left high is plus').fill('0')
  await openSheet(page, 'In order')
  await inOrder(day)
  await openSheet(page, 'Confirm')
  await confirmEvidence(page)
  if (plan === plans[0]) await audit(page)
}

/** Another lift, seen from where its operator stands with the remote; a signaller counts once named and agreed with. */
async function watched(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Prove another lift' }).click()
  await openSheet(page, 'Path')
  await page.getByRole('button', { name: 'Say where' }).click()
  const ahead = page.getByRole('textbox', { name: '1 · ahead' })
  await ahead.fill('-3')
  await expect(page.getByRole('slider', { name: 'Operator’s place' })).toBeVisible()
  await page.getByRole('radio', { name: 'A signaller too' }).click()
  await page.getByRole('textbox', { name: 'Who signals, by name' }).fill('Wanda Rook')
  await page.getByText(/Signals agreed; anyone/).click()
  const wind = page.getByLabel('Wind, gust at the boom tip')
  await openSheet(page, 'Boom, wind')
  await wind.fill('2')
  await expect(verdict(page)).toContainText('Inside the limits checked')
}

async function prove(page: Page, plan: Plan): Promise<void> {
  await openSheet(page, 'Load')
  await page.getByLabel('What is lifted').selectOption({ label: plan.load })
  await page.getByLabel('Mass', { exact: true }).first().fill(plan.kg)
  await page.getByLabel('How the mass is known').selectOption('marked')
  await page.getByLabel('Sail area, its largest side').fill('0.5')
  await sizeIt(page)
  await addRigging(page, plan.rigging_kg)
  await openSheet(page, 'Path')
  for (const [group, figures] of [
    ['P · Pick up', plan.from],
    ['S · Set down', plan.to],
  ] as const) {
    const names = figures.length === 3 ? ['Inner boom', 'Outer, folded by', 'Slew'] : ['Radius', 'Slew']
    for (const [i, name] of names.entries())
      await page
        .getByRole('group', { name: group })
        .getByLabel(name)
        .fill(figures[i] ?? '')
  }
  await page.getByRole('radio', { name: /Measured/ }).click()
  await openSheet(page, 'Boom, wind')
  if (plan.boom) await page.getByRole('radiogroup', { name: 'Boom' }).getByRole('radio', { name: plan.boom }).click()
  await page.getByLabel('Wind, gust at the boom tip').fill('2')
}

/** The same machine set up anew to tow, and a vehicle lifted behind: too much, then what was offered. */
async function towed(day: Day): Promise<void> {
  const { page, shift } = day
  const toTow = /to tow/
  await page.goto(`/shifts/${shift}/set-up`)
  await openSheet(page, 'Stand')
  await page.getByRole('radio', { name: toTow }).click()
  await openSheet(page, 'Wheels')
  await page.getByLabel('Floor or deck under the wheels').selectOption('deck')
  await page.getByText('Tyres looked at, pressures read').click()
  await openSheet(page, 'In order')
  await inOrder(day)
  await openSheet(page, 'Confirm')
  await confirmEvidence(page)
  await page.getByRole('button', { name: 'Record this set-up' }).click()
  await expect(page.getByRole('heading', { name: 'Prove the tow' })).toBeVisible()
  await expect(verdict(page)).toContainText('Not proven')
  await page.getByLabel('Lifted behind', { exact: true }).fill('2500')
  await page.getByLabel('Behind the rear axle, measured', { exact: true }).fill('2.6')
  await openSheet(page, 'Vehicle')
  await page.getByRole('textbox', { name: 'What is towed' }).fill('Fish van')
  await page.getByLabel('Mass of all of it', { exact: true }).fill('3400')
  await page.getByLabel('How the mass is known').selectOption('document')
  const size = page.getByRole('group', { name: 'Its size as it hangs' })
  for (const [side, metres] of [
    ['Length', '5.2'],
    ['Width', '2'],
    ['Height', '2.4'],
  ] as const)
    await size.getByLabel(side).fill(metres)
  await openSheet(page, 'Way')
  await page.getByRole('combobox', { name: 'Floor' }).selectOption('deck')
  await page.getByRole('textbox', { name: 'Width' }).fill('4')
  await expect(verdict(page)).toContainText('Outside')
  await audit(page)
  await page.getByRole('button', { name: /Lift at most 1,550 kg behind/ }).click()
  await expect(verdict(page)).toContainText('Inside the limits checked')
  await page.getByRole('button', { name: 'Record this proof, on to the tow' }).click()
  await inOrder(day)
  await page.getByRole('button', { name: 'Lifted and landed' }).click()
  await expect(page.getByText('No lift is waiting.')).toBeVisible()
}

/** These are set up and proved with the network cut, and sent once when it is back. */
const withoutNetwork = new Set(['wren', 'whimbrel'])

/** The inner boom read too low: the outer waits and says by how much; far from that it is read once more, and goes on. */
async function readTooLow(day: Day): Promise<void> {
  const { page } = day
  const angle = page.getByRole('textbox', { name: /^Inner boom’s angle/ })
  await inOrder(day, angle)
  await aside(day, async () => {
    await angle.fill('45')
    await page.getByRole('button', { name: 'Done', exact: true }).click()
    const outer = page.locator('#step-outer-up')
    await expect(outer).toContainText('Outer boom up')
    await expect(outer).toContainText('6.9° are missing')
    await look(page, 'heron-too-low')
    await fits(page)
    await angle.fill('60')
    const again = page.getByRole('button', { name: /^Once more: Inner boom’s angle read/ })
    await again.click()
    await expect(page.getByText('Far from 45.0°, read before: read it once more.')).toBeVisible()
    await look(page, 'heron-far-off')
    await again.click()
    await expect(outer).not.toContainText('are missing')
  })
}

/** A rope that parts flies back along its line: nobody stands in it, before the boom or behind the machine. */
async function offTheLine(day: Day): Promise<void> {
  const { page } = day
  await aside(day, async () => {
    await openSheet(page, 'Path')
    await page.getByText('Who stands where').click()
    await page.getByRole('button', { name: '+ Slinger' }).click()
    const aside_m = page.getByLabel('to the left').last()
    await page.getByLabel('Slinger · ahead').fill('9')
    await aside_m.fill('1')
    await expect(verdict(page)).toContainText('The slinger stands 1.00 m from the line of the rope')
    await look(page, 'petrel-in-line')
    await aside_m.fill('4')
    await expect(verdict(page)).toContainText('Inside the limits checked')
    await page.getByRole('button', { name: 'Take slinger 1 off' }).click()
  })
}

/** Off its legs first: a side that was let down last is not let down once more before the other. Then with a vehicle behind. */
async function letDownThenTowed(day: Day): Promise<void> {
  const { page, shift } = day
  await page.goto(`/shifts/${shift}/stow`)
  await inOrder(day)
  await page.getByText(/steps done$/).click()
  await page.getByRole('button', { name: 'Once more: Right side: feet up one push' }).click()
  await expect(page.getByText('Twice on the same side tilts it past its limit.').first()).toBeVisible()
  await towed(day)
}

for (const plan of plans) {
  test(`${plan.id}: from the sign-on to a recorded lift`, async ({ page }) => {
    const day = await atSetUp(page, plan.id, plan.place, { cut: withoutNetwork.has(plan.id) })
    await setUp(day, plan)
    await onToProof(day)
    await prove(page, plan)
    await expect(verdict(page)).toContainText(plan.says)
    if (plan.id === 'petrel') await offTheLine(day)
    if (plan === plans[0]) await audit(page)
    await liftAndLand(day, plan.id === 'heron' ? { first: () => readTooLow(day) } : {})
    if (plan === plans[0]) await watched(page)
    if (day.m.tow) await letDownThenTowed(day)
    await stowAway(day)
  })
}

interface Move {
  id: string
  place: string
  load: string
  /** Battery, or slabs and extension, where its table asks for them. */
  fitted?: (page: Page) => Promise<void>
  /** What else its load sheet asks for. */
  more?: (page: Page) => Promise<unknown>
  height: string
  /** Driven there, as a finger draws it over the place: corners in its metres, and the pieces that come of it. */
  way?: Drawn
  under: 'roof' | 'sky'
  /** The rest of its day, up to where it is parked, and what is done there. */
  day?: (day: Day) => Promise<() => Promise<void>>
  /** Touches of the whole day, beyond one an item of its walk-rounds. */
  most?: number
}
interface Drawn {
  /** Of the place, in the middle of its drawing. */
  middle: [number, number]
  corners: [number, number][]
  pieces: string[]
  /** Corners that another way is drawn by, which goes through something. */
  through: [number, number][]
}

/** A way drawn with a finger: first one through something, which is said on the drawing, then one that keeps to the aisles. */
async function draws(day: Day, { middle, corners, pieces, through }: Drawn): Promise<void> {
  const { page } = day
  await openSheet(page, 'Way')
  const map = page.getByRole('group', { name: /from above: draw the way over it/ })
  await expect(map).toBeVisible()
  const drag = async (points: [number, number][]) => {
    const at = await map.evaluate(
      (svg: SVGSVGElement, to) =>
        to.map(([x, y]) => {
          const p = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM() as DOMMatrix)
          return [p.x, p.y] as [number, number]
        }),
      points.map(([x, y]): [number, number] => [x - middle[0], middle[1] - y]),
    )
    for (const [i, [x, y]] of at.entries()) {
      await page.mouse.move(x, y, { steps: 12 })
      if (i === 0) await page.mouse.down()
    }
    await page.mouse.up()
  }
  await aside(day, async () => {
    await drag(through)
    await expect(page.getByRole('button', { name: /goes through|Way/ }).first()).toBeVisible()
    await expect(verdict(page)).toContainText('Outside')
  })
  await drag(corners)
  const kinds = page.getByRole('combobox', { name: 'What', exact: true })
  await expect(kinds).toHaveCount(pieces.length)
  for (const [i, kind] of pieces.entries()) await expect(kinds.nth(i)).toHaveValue(kind)
  await page.getByLabel('Speed', { exact: true }).fill('0.8')
  await page.getByRole('button', { name: 'Corner 1 of', exact: false }).focus()
  await page.keyboard.press('ArrowRight')
}

/** Nine more like the first, a break after the fifth, and on its charger at the end. */
async function tenPalletsAndABreak({ page }: Day): Promise<() => Promise<void>> {
  const another = page.getByRole('button', { name: /^Another like it:/ })
  for (let n = 3; n <= 10; n++) {
    if (n === 6) {
      await page.getByText('Leave it for a while', { exact: true }).click()
      await look(page, 'dunlin-pause')
      const pause = page.getByRole('region', { name: 'Leave it for a while' })
      await expect(pause.getByRole('checkbox', { name: /Down from it/ })).toBeEnabled()
      await pause.locator('label').filter({ hasText: 'Down from it' }).click()
      // Away from it the belt is off; nothing goes on before it is on again.
      await expect(page.getByRole('heading', { name: 'Before it goes on' })).toBeVisible()
      await expect(another).toBeHidden()
      await throughOrder(page)
    }
    await another.click()
    // Whoever comes back looks round again before it moves.
    if (n === 6) {
      await throughOrder(page)
      await page.getByRole('button', { name: 'Lifted and landed' }).click()
    }
    await expect(page.getByText(/^Done \d/)).toHaveCount(n)
  }
  return async () => {
    await page.getByText('Charge', { exact: true }).click()
    await throughOrder(page)
  }
}

const moves: Move[] = [
  {
    id: 'puffin',
    place: 'net-loft-yard',
    load: 'Bale of net',
    // Three loose tiers lean on the guard.
    more: async (page) => {
      for (const tier of ['1', '2', '3']) {
        await page.getByRole('button', { name: 'Add a tier' }).click()
        await page.getByLabel(`Tier ${tier}, its height`, { exact: true }).fill('0.4')
      }
      // A fourth leans over its top: nothing but people can put that right, and it says what they do.
      await page.getByRole('button', { name: 'Add a tier' }).click()
      await expect(page.getByText('Fewer tiers, or wrap them.').first()).toBeVisible()
      await page.getByRole('button', { name: 'Take tier 4 off' }).click()
    },
    height: '4.5',
    under: 'sky',
  },
  { id: 'whimbrel', place: 'net-loft-yard', load: 'Pallet of anchors', height: '3.3', under: 'sky' },
  {
    id: 'dunlin',
    day: tenPalletsAndABreak,
    most: 45,
    place: 'ice-store',
    load: 'Pallet of block ice',
    fitted: (page) => page.getByLabel('Battery, by its own plate').fill('750'),
    height: '3',
    way: {
      middle: [10.2, 9],
      corners: [
        [4.3, 15],
        [3.8, 9.2],
        [18, 9.4],
      ],
      pieces: ['straight', 'turn', 'straight'],
      through: [
        [6, 4],
        [16, 9],
      ],
    },
    under: 'roof',
  },
  {
    id: 'bittern',
    place: 'boatyard',
    load: 'Tide-gate counterweight',
    fitted: async (page) => {
      await page.getByRole('radio', { name: '4', exact: true }).click()
      await page.getByLabel('Moved out, measured').selectOption('1')
    },
    height: '0.3',
    under: 'sky',
  },
]

moves.push(
  {
    id: 'sandpiper',
    place: 'net-loft-yard',
    load: 'Coils of rope to pick',
    fitted: (page) => page.getByLabel('Battery, by its own plate').fill('920'),
    more: (page) => page.getByLabel('Who rides up, with what they wear').fill('105'),
    height: '4.5',
    under: 'roof',
  },
  {
    id: 'avocet',
    place: 'north-quay',
    fitted: async (page) => {
      await page.getByLabel('Tool on the load display in the cab').selectOption({ label: 'Tyre hand' })
    },
    load: 'Quay fender',
    more: (page) => page.getByRole('radio', { name: 'Dry', exact: true }).click(),
    height: '0.5',
    under: 'sky',
  },
)

/** The five signals that the team agrees are drawn where they are agreed, each with what it means. */
async function signalsDrawn(day: Day): Promise<void> {
  const { page } = day
  await openSheet(page, 'In order')
  await aside(day, async () => {
    await throughOrder(page, undefined, secondPerson, page.getByRole('img', { name: /beckoning/ }))
    const step = page.locator('li[aria-current="step"]')
    await expect(step.getByRole('img')).toHaveCount(5)
    for (const means of ['Up', 'Down', 'Forward', 'Back', 'Stop'])
      await expect(step.getByText(means, { exact: true })).toBeVisible()
    await look(page, 'avocet-signals')
  })
}

for (const move of moves) {
  test(`${move.id}: from the sign-on to a recorded load, and the same again with one touch`, async ({ page }) => {
    if (move.id === 'avocet') await workingAgain(move.id)
    const day = await atSetUp(page, move.id, move.place, { cut: withoutNetwork.has(move.id) })
    await move.fitted?.(page)
    await openSheet(page, 'Floor')
    if (move.id === 'sandpiper') await page.getByLabel('Floor it works on').selectOption('store-floor')
    if (move.id === 'avocet') await page.getByLabel('Floor it works on').selectOption('deck')
    if (move.place === 'ice-store') await page.getByLabel('Floor it works on').selectOption('floor')
    await page.getByLabel('Slope along, front high is plus').fill('0')
    await page.getByLabel('Slope across, left high is plus').fill('0')
    if (move.id === 'avocet') await signalsDrawn(day)
    await closeSetUp(day)
    if (move === moves[0]) await audit(page)
    await onToProof(day)
    await page.getByLabel('What is moved', { exact: true }).selectOption({ label: move.load })
    await move.more?.(page)
    await openSheet(page, 'Stack')
    await page.getByLabel('Stacked at, top of the forks').fill(move.height)
    if (move.way) {
      await draws(day, move.way)
    }
    await openSheet(page, 'Wind')
    if (move.under === 'roof') await page.getByText('Under a roof, doors shut').click()
    else await page.getByLabel('Wind, gust at the load').fill('3')
    await expect(verdict(page)).toContainText('Inside the limits checked')
    if (move === moves[0]) await audit(page)
    await liftAndLand(day)
    await page.getByRole('button', { name: /^Another like it:/ }).click()
    await expect(page.getByText(/^Done \d/)).toHaveCount(2)
    await stowAway(day, await move.day?.(day))
    const touches = (await day.taken()).touches - day.aside
    if (move.most) console.log(`     ${move.id}: ${touches} touches in its whole day`)
    expect(touches).toBeLessThan(move.most ?? Number.POSITIVE_INFINITY)
  })
}
