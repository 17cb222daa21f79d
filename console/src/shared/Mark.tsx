/** Our sign: a row of dots, one out of line. */
export function Mark() {
  return (
    <svg width="46" height="18" aria-hidden="true">
      <circle cx="5" cy="13" r="3" />
      <circle cx="15" cy="13" r="3" />
      <circle cx="25" cy="5" r="3.4" className="odd" />
      <circle cx="35" cy="13" r="3" />
    </svg>
  )
}
