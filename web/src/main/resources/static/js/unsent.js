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

/** What a field is found by again: its own name, or that of its form's address. */
function nameOf({ id, name, form }) {
  if (id) return `#${CSS.escape(id)}`;
  const action = form && name && form.getAttribute("action");
  return action ? `form[action="${CSS.escape(action)}"] [name="${CSS.escape(name)}"]` : null;
}

/** What fields hold, to be put back by their names once they are written anew. */
export function gathered(unsent) {
  return [...document.querySelectorAll("input:not([type=hidden]), textarea, select")]
    .filter(unsent)
    .map((field) => ({ found: nameOf(field), value: field.value, checked: field.checked }))
    .filter(({ found }) => found);
}

/** Puts back what was gathered, where the program's own stands now and it is plain which field it was. */
export function putBack(fields) {
  for (const { found, value, checked } of fields) {
    const [field, ...others] = document.querySelectorAll(found);
    if (!field || others.length > 0 || changed(field)) continue;
    if (!waits(field) && field !== document.activeElement && field.type !== "range") continue;
    if (TICKED.test(field.type)) field.checked = checked;
    else if (!field.matches("select") || [...field.options].some((option) => option.value === value))
      field.value = value;
  }
}
