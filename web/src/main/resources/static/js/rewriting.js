// A part of the page becomes what the program wrote now, and what is the same in both stays where it is: it is neither styled, laid out nor painted
// anew, and what had the keyboard keeps it.

/** As it is written it takes the place of what is shown. */
export const EXCHANGE = "exchange";
/** What is shown stays as it is. */
export const LEAVE = "leave";

const alike = (a, b) => a.nodeType === b.nodeType && a.nodeName === b.nodeName && a.id === b.id;

/**
 * @param shown the part that stands on the page
 * @param written the same part as it should be; it is used up
 * @param how an element of it is dealt with: EXCHANGE, LEAVE, or nothing to rewrite it
 * @param typed whether what stands in a field stays as it is
 */
export function rewrite(shown, written, how, typed = () => false) {
  if (shown.nodeType !== Node.ELEMENT_NODE) {
    if (shown.data !== written.data) shown.data = written.data;
    return;
  }
  const wanted = how(shown, written);
  if (wanted === LEAVE) return;
  if (wanted === EXCHANGE || !paired(shown, written)) {
    shown.replaceWith(written);
    return;
  }
  const keeps = typed(shown);
  // Options that are marked anew choose anew.
  const chosen = (keeps ? shown : written).selectedIndex;
  attributes(shown, written);
  let child = shown.firstChild;
  let like = written.firstChild;
  while (child) {
    const [next, after] = [child.nextSibling, like.nextSibling];
    rewrite(child, like, how, typed);
    child = next;
    like = after;
  }
  if (shown.nodeName === "SELECT" && shown.selectedIndex !== chosen) shown.selectedIndex = chosen;
  if (!keeps) state(shown, written);
}

/** Whether each child has its like. */
function paired(shown, written) {
  let child = shown.firstChild;
  let wanted = written.firstChild;
  while (child && wanted && alike(child, wanted)) {
    child = child.nextSibling;
    wanted = wanted.nextSibling;
  }
  return !child && !wanted;
}

function attributes(shown, written) {
  // What somebody unfolded and can be found again is remembered by the page.
  const folds = shown.nodeName === "DETAILS" && shown.id;
  for (const { name, value } of written.attributes) {
    if (shown.getAttribute(name) !== value && !(folds && name === "open")) shown.setAttribute(name, value);
  }
  if (shown.attributes.length === written.attributes.length) return;
  for (const { name } of [...shown.attributes]) {
    if (!written.hasAttribute(name) && !(folds && name === "open")) shown.removeAttribute(name);
  }
}

/** What a field holds is not told by its attributes once somebody has changed it. */
function state(shown, written) {
  if (shown.nodeName === "TEXTAREA") {
    if (shown.value !== shown.defaultValue) shown.value = shown.defaultValue;
  } else if (shown.nodeName === "INPUT" && shown.type !== "hidden" && shown.type !== "file") {
    if (shown.checked !== written.checked) shown.checked = written.checked;
    if (shown.value !== written.value) shown.value = written.value;
  }
}
