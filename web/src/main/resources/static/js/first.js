// On a page that shows its plan by itself: what makes it work is read once it stands on the screen, and not before.
{
  const waiting = [...document.querySelectorAll('script[type="text/later"]')];

  /** The last one knows what to do with the answers that the others ask for, so it is here before they begin. */
  const begin = () => {
    const last = document.createElement("link");
    if (!last.relList.supports("modulepreload")) return read();
    last.rel = "modulepreload";
    last.onload = last.onerror = read;
    last.href = waiting.at(-1).src;
    return document.head.append(last);
  };
  const read = () => {
    for (const later of waiting) {
      const script = document.createElement("script");
      script.type = later.dataset.type || "";
      script.src = later.getAttribute("src");
      // One after the other, as they are written.
      script.async = false;
      later.replaceWith(script);
    }
  };

  const whole = new Promise((done) => (document.readyState === "complete" ? done() : addEventListener("load", done)));
  const seen = new Promise((done) => {
    // In a window that nobody sees nothing is painted.
    if (document.hidden) done();
    else new PerformanceObserver(done).observe({ type: "paint", buffered: true });
  });
  if (waiting.length > 0) Promise.all([whole, seen]).then(begin);
}
