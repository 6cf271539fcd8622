// What shows that one of our pages sends. A page can be older than the cookie (of two tabs opened at once each is given a token, and one cookie is
// left; a page may have been kept), so what is sent carries the token that stands in the cookie now.
const HEADER = "X-XSRF-TOKEN";
const COOKIE = /(?:^|; )XSRF-TOKEN=([^;]+)/;

/** The token of now; nothing without a cookie, and the page's own is sent. */
function now() {
  return (COOKIE.exec(document.cookie) || ["", ""])[1];
}

/** The headers of a request that changes something and is sent by hand. */
export function ours() {
  const page = JSON.parse(document.body.getAttribute("hx-headers") || "{}");
  return { ...page, ...(now() && { [HEADER]: now() }) };
}

document.addEventListener("htmx:configRequest", ({ detail }) => {
  if (now()) detail.headers[HEADER] = now();
});
document.addEventListener(
  "submit",
  ({ target }) => {
    const field = target.querySelector("input[name=_csrf]");
    if (field && now()) field.value = now();
  },
  true,
);
