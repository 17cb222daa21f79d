import { Form } from 'react-bootstrap'

/** The box to choose a row of a table, before its other cells; none for a row that cannot be chosen. */
export function ChooseCell({
  label,
  chosen,
  onChoose,
  possible = true,
}: {
  label: string
  chosen: boolean
  onChoose: (is: boolean) => void
  possible?: boolean
}) {
  return (
    <td className="choose">
      {possible && (
        <Form.Check aria-label={label} checked={chosen} onChange={(event) => onChoose(event.target.checked)} />
      )}
    </td>
  )
}
