// What somebody put into a field that the program has not been told: it outlives whatever else is written anew on the page.
const TICKED = /^(checkbox|radio)$/;

/** Whether a field holds something else than the program wrote. */
export function changed(field) {
  if (field.matches("[type=hidden], [type=file]")) return false;
  if (field.matches("select")) {
    const written = [...field.options].findIndex((option) => option.defaultSelected);
    return !field.multiple && field.selectedIndex !== Math.max(0, written);
  }
  if (TICKED.test(field.type)) return field.checked !== field.defaultChecked;
  return field.matches("input, textarea") && field.value !== field.defaultValue;
}

/** Whether a field is sent by a button and not as soon as it is changed; a form with a file goes by itself, and a slider as it slides. */
export function waits(field) {
  const form = field.form;
  return (
    Boolean(form) &&
    form.method === "post" &&
    !form.dataset.sends &&
    !form.enctype.startsWith("multipart") &&
    field.type !== "range"
  );
}

/** What the fields of a part hold, to be put back by their names once it is written anew. */
export function gathered(part, unsent) {
  return [...part.querySelectorAll(":is(input, textarea, select)[id]")]
    .filter(unsent)
    .map(({ id, value, checked }) => ({ id, value, checked }));
}

/** Puts back what was gathered, where the program's own stands now. */
export function putBack(fields) {
  for (const { id, value, checked } of fields) {
    const field = document.getElementById(id);
    if (!field || changed(field)) continue;
    if (!waits(field) && field !== document.activeElement && field.type !== "range") continue;
    if (TICKED.test(field.type)) field.checked = checked;
    else if (!field.matches("select") || [...field.options].some((option) => option.value === value))
      field.value = value;
  }
}
