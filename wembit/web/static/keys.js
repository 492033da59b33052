// Keys of every screen. They act only while no field has the focus, and only where the member has them on.
(() => {
  const LOW_PX = 500; // a screen lower than this has no room for both heading and button
  const inField = (node) => node.closest("input:not([type=checkbox]), select, textarea, [contenteditable]");
  const on = () => document.body.hasAttribute("data-keys");

  function follow(key) {
    const target = document.querySelector(`[data-key="${key}"]`);
    if (target) target.click();
    return Boolean(target);
  }

  function step(way) {
    const picks = [...document.querySelectorAll(".pick")].filter((pick) => pick.getClientRects().length);
    if (!picks.length) return false;
    const at = picks.indexOf(document.activeElement);
    const next = at < 0 ? (way > 0 ? 0 : picks.length - 1) : Math.min(picks.length - 1, Math.max(0, at + way));
    picks[next].focus();
    return true;
  }

  document.addEventListener("keydown", (event) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || !on()) return;
    if (document.querySelector("dialog[open]")) return;
    if (event.target instanceof Element && inField(event.target)) {
      if (event.key === "Enter" && event.target.matches(".stocktake select")) {
        event.preventDefault();
        event.target.form.requestSubmit();
      }
      if (event.key === "Escape") event.target.blur();
      return;
    }
    let done = false;
    // With a scale beside the screen a number goes into the amount, where there is one to take.
    const amount = document.querySelector("form.take input[name=amount]");
    if (amount && /^[0-9]$/.test(event.key)) {
      amount.focus();
      amount.select();
      return;
    }
    const plain = /^Digit[0-6]$/.test(event.code) && !event.shiftKey; // also where digits need Shift
    const digit = plain ? event.code.slice(5) : event.key;
    if (/^[0-6/]$/.test(digit)) done = follow(digit);
    else if (event.key.toLowerCase() === "z") done = follow(event.shiftKey ? "Z" : "z");
    else if (/^[mrew,.]$/i.test(event.key) && follow(event.key.toLowerCase())) done = true;
    else if (event.key === "?") {
      document.getElementById("keys").showModal();
      done = true;
    } else if (event.key === "ArrowRight" || event.key === "ArrowDown") done = step(1);
    else if (event.key === "ArrowLeft" || event.key === "ArrowUp") done = step(-1);
    else if (event.key === "Enter" && (event.target === document.body || event.target.id === "picture")) {
      const ink = document.querySelector(".tray .btn.ink, .picture .btn.ink");
      if (ink) {
        ink.click();
        done = true;
      }
    }
    if (done) event.preventDefault();
  });

  // On the walk along the shelf the scale's field has the focus from the start: weigh, Enter, next.
  const scale = document.querySelector(".walk input[name=amount]");
  if (scale) scale.focus();

  // The ink button at the bench has the focus, so that Enter goes on, also when a piece of the page was replaced. Where the
  // screen is low, the page stays at its heading all the same.
  function toInk(where) {
    const ink = where.querySelector("[data-ink]");
    if (!ink || (document.activeElement && inField(document.activeElement))) return;
    ink.focus({ preventScroll: window.innerHeight < LOW_PX });
  }
  toInk(document);
  document.addEventListener("htmx:afterSettle", (event) => toInk(event.target));

  // What is to be changed is seen at once, wherever on the page it stands.
  const showFault = (where) => where.querySelector(".fault")?.scrollIntoView({ block: "nearest" });
  window.addEventListener("load", () => showFault(document));
  document.addEventListener("htmx:afterSettle", (event) => showFault(event.target));

  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-print]")) window.print();
    if (event.target.closest("[data-help]")) document.getElementById("keys").showModal();
  });

  // A colour picked by eye is meant: the tick beside it follows.
  document.addEventListener("input", (event) => {
    const tick =
      event.target.matches("input[type=color]") && event.target.closest(".field").querySelector("[name=has_colour]");
    if (tick) tick.checked = true;
  });

  // The strip of places stands open at a desk and folds behind the title on a phone.
  const fold = document.querySelector(".fold");
  const wide = window.matchMedia("(min-width: 900px)");
  const unfold = () => {
    if (!fold) return;
    fold.open = wide.matches;
    fold.dataset.set = "1";
  };
  wide.addEventListener("change", unfold);
  unfold();
})();
