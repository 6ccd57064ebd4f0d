import { isRefusal, loadMassCalculator, type TransferToLift, transferToLift } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { useSay } from '../units/units'
import { type LoadAnswer, LoadDrawing } from './drawings/load'
import { Editor } from './form'
import { SavedLoads } from './saved-loads'
import { isObj, type Obj, plainOf, schemaOf } from './schema'

const schema = schemaOf(loadMassCalculator.input)

/** The load builder where a lift is proved: shapes and materials, drawn to scale, taken over as the load with its ±. */
export function LoadBuilder({ onClose, onTake }: { onClose: () => void; onTake: (h: TransferToLift) => void }) {
  const say = useSay()
  const [input, setInput] = useState<Obj>(loadMassCalculator.example as Obj)
  const answer = useMemo(() => loadMassCalculator.run(input), [input])
  const fault = isRefusal(answer) ? answer.error : null
  const transfer = fault ? null : transferToLift(loadMassCalculator, answer as LoadAnswer)
  const said = (t: TransferToLift['mass_kg']) =>
    t === undefined ? '' : typeof t === 'number' ? say('mass', t) : `${say('mass', t.value)} ± ${say('mass', t.tolerance)}`
  return (
    <Dialog open onClose={onClose} title={t`What does it weigh?`}>
      <div className="grid gap-3">
        {fault ? (
          <p role="alert" className="font-semibold text-outside">
            {fault.message}
          </p>
        ) : (
          <>
            <p className="figure text-[1.6rem] font-bold">{said(transfer?.mass_kg)}</p>
            <LoadDrawing
              input={plainOf(input) as unknown as Parameters<typeof LoadDrawing>[0]['input']}
              output={answer as LoadAnswer}
            />
          </>
        )}
        <SavedLoads input={input} onTake={setInput} />
        <Editor schema={schema} value={input} onChange={(v) => setInput(isObj(v) ? v : {})} path="" name="" fault={fault} />
        <Button look="next" disabled={!transfer} onClick={() => transfer && onTake(transfer)}>{t`Take it as the load`}</Button>
      </div>
    </Dialog>
  )
}
