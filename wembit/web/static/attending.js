// Where eye, ear and focus are: what is picked is marked and in sight, what changed is said, the focus is not lost.
(() => {
  const tray = () => document.getElementById("tray");
  const isFree = () => !document.activeElement || document.activeElement === document.body;
  const ENTRIES = "input:not([type=hidden]), select, textarea, button, a[href]";
  const there = (node) => node.getClientRects().length > 0;

  // What is picked in the picture is the link whose address the page has.
  const isHere = (link) => new URL(link.getAttribute("href"), location).href === location.href.split("#")[0];
  const picked = () => [...document.querySelectorAll('.pick[data-marked], .pick[aria-current="true"]')].find(there);
  function mark() {
    for (const link of document.querySelectorAll("a.pick[href]")) {
      if (isHere(link) && !link.hasAttribute("aria-current")) {
        link.setAttribute("aria-current", "true");
        link.dataset.marked = "1";
      } else if (link.dataset.marked && !isHere(link)) {
        link.removeAttribute("aria-current");
        delete link.dataset.marked;
      }
    }
  }

  // On a phone what is picked lies over the picture: the picture is moved, so that the mark stands above it.
  function show() {
    const over = tray();
    const name = document.querySelector(".strip-of-parts .in-hand");
    if (name) name.parentElement.scrollLeft = name.offsetLeft - name.parentElement.offsetLeft - 12;
    const mine = document.querySelector("#drawing .in-hand") || picked();
    if (!mine || !over || getComputedStyle(over).position !== "fixed") return;
    const box = mine.getBoundingClientRect();
    const lowest = over.getBoundingClientRect().top - 12;
    if (box.bottom > lowest || box.top < 0) {
      const motion = window.matchMedia("(prefers-reduced-motion: reduce)").matches ? "auto" : "smooth";
      window.scrollBy({ top: Math.min(box.top - 12, box.bottom - lowest), behavior: motion });
    }
  }

  // Into what is picked: its amount, else its first entry.
  function enter() {
    const into = tray();
    if (!into) return;
    const first = into.querySelector("input[name=amount]") || [...into.querySelectorAll(ENTRIES)].find(there);
    (first || into).focus();
  }

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
    const pick = event.target.closest?.(".pick");
    if (event.key === "Enter" && pick && pick === picked()) {
      event.preventDefault();
      enter();
    } else if (event.key === "Escape" && tray()?.contains(event.target) && picked()) {
      picked().focus();
    }
  });

  // What had the focus of one who works by keys, told so that it is found again in what takes its place. A finger or a mouse
  // needs none, and the page would hold on to it as it scrolls.
  function nameOf(node) {
    if (!node || node === document.body) return "";
    if (node.id) return `#${CSS.escape(node.id)}`;
    const form = node.closest("form");
    const of = form?.getAttribute("action") ? `form[action="${CSS.escape(form.getAttribute("action"))}"] ` : "";
    if (node.name) return `${of}[name="${CSS.escape(node.name)}"]`;
    if (node.getAttribute("href")) return `[href="${CSS.escape(node.getAttribute("href"))}"]`;
    return node.matches("button") ? `${of}button` : "";
  }

  let had = "";
  document.addEventListener("htmx:beforeSwap", (event) => {
    const now = document.activeElement;
    had = event.detail.target?.contains(now) && now.matches(":focus-visible") ? nameOf(now) : "";
  });

  // The field that is to be changed, else what had the focus, else the heading of what came.
  function attend(target) {
    const wrong = target.querySelector('[aria-invalid="true"]');
    if (wrong && there(wrong)) wrong.focus({ preventScroll: true });
    else if (had && isFree()) {
      const again = document.querySelector(had);
      const heading = target.querySelector("h1, h2") || target;
      const next = again && there(again) ? again : heading;
      if (next === heading) next.tabIndex = -1;
      next.focus({ preventScroll: true });
    }
    had = "";
  }

  // The page is called by what is picked on it.
  const named = document.querySelector("h1")?.firstChild?.textContent.trim();
  const house = document.title.trim().split(" · ").pop();
  function title(target) {
    const heading = tray()?.querySelector("h2");
    if (named && heading && (target.id === "tray" || target.id === "stage")) {
      document.title = `${heading.textContent.trim().replace(/\s+/g, " ")}, ${named} · ${house}`;
    }
  }

  // What a change has come to, for those who do not see it.
  function tell(target) {
    const told = document.getElementById("told");
    const words = [...target.querySelectorAll("[data-told]")].map((each) => each.textContent.trim().replace(/\s+/g, " "));
    if (told && words.length && told.textContent !== words.join(". ")) told.textContent = words.join(". ");
  }

  document.addEventListener("htmx:afterSettle", (event) => {
    mark();
    attend(event.target);
    tell(event.target);
    title(event.target);
    const isPick = event.detail.target?.id === "tray" || event.detail.requestConfig?.verb === "get";
    if (isPick) show(); // what is pushed or changed stays under the finger
  });
  document.addEventListener("htmx:pushedIntoHistory", mark);
  window.addEventListener("load", () => {
    mark();
    show();
    const wrong = document.querySelector('[aria-invalid="true"]');
    if (wrong && isFree() && there(wrong)) wrong.focus({ preventScroll: true });
  });

  // A press shows at once that it was felt; a page on its way takes the sign with it.
  const going = (node) => node?.classList.add("going");
  document.addEventListener("submit", (event) => {
    if (!event.defaultPrevented) going(event.submitter);
  });
  document.addEventListener("click", (event) => {
    const link = event.target.closest?.("a[href]:not([download], [target], [hx-get])");
    if (!link || event.defaultPrevented || event.ctrlKey || event.metaKey || event.shiftKey || event.button) return;
    const to = new URL(link.getAttribute("href"), location);
    if (to.origin === location.origin && to.href.split("#")[0] !== location.href.split("#")[0]) going(link);
  });
  window.addEventListener("pageshow", () => {
    for (const node of document.querySelectorAll(".going")) node.classList.remove("going");
  });
})();
