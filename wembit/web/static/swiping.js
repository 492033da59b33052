// A step of the order drawn by itself: a finger drawn across it goes on to the next one or back to the one before.
(() => {
  const FAR = 45; // px, so that a touch or a scroll is no swipe
  let start = null;
  document.addEventListener("pointerdown", (event) => {
    start = event.target.closest(".one-state") ? { x: event.clientX, y: event.clientY } : null;
  });
  document.addEventListener("pointercancel", () => (start = null));
  document.addEventListener("pointerup", (event) => {
    if (!start) return;
    const [x, y] = [event.clientX - start.x, event.clientY - start.y];
    start = null;
    if (Math.abs(x) < FAR || Math.abs(x) < 2 * Math.abs(y)) return;
    document.querySelector(`.steps-on [rel=${x < 0 ? "next" : "prev"}]`)?.click();
  });
})();
