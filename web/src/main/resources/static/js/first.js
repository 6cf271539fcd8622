// On a page that shows its plan by itself: what makes it work is read once it stands on the screen, and not before.
{
  const start = () => {
    for (const later of document.querySelectorAll('script[type="text/later"]')) {
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
  Promise.all([whole, seen]).then(start);
}
