// Pulls without a line: each is kept on the device with the key of its press, and goes, in order and once, when there
// is a line, whichever tab is open; what the house refuses is told and waits for the maker.
(() => {
  const AGAIN_MS = 15_000;
  const PACE_MS = 250; // between pages that are fetched ahead
  const MOST_AHEAD = 40;
  const hand = () => JSON.parse(document.body.getAttribute("hx-headers") || "{}");
  const told = new BroadcastChannel("wembit-queue");

  // The store.
  const opened = new Promise((done, failed) => {
    const asked = indexedDB.open("wembit", 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore("pulls", { keyPath: "at", autoIncrement: true });
    asked.onsuccess = () => done(asked.result);
    asked.onerror = () => failed(asked.error);
  });
  async function inStore(mode, work) {
    const store = await opened;
    return new Promise((done, failed) => {
      const deal = store.transaction("pulls", mode);
      const asked = work(deal.objectStore("pulls"));
      deal.oncomplete = () => done(asked.result);
      deal.onabort = deal.onerror = () => failed(deal.error);
    });
  }
  const all = () => inStore("readonly", (pulls) => pulls.getAll());
  const mine = async () => (await all()).filter((pull) => pull.hand === hand()["X-Hand"]);
  const put = (pull) => inStore("readwrite", (pulls) => pulls.put(pull));
  const drop = (pull) => inStore("readwrite", (pulls) => pulls.delete(pull.at));

  // What waits, on the page.
  function row(pull) {
    const line = document.createElement("li");
    line.textContent = pull.refused ? `${pull.words}: ${pull.refused} ` : `${pull.words} `;
    if (pull.refused) {
      const open = document.createElement("a");
      open.className = "btn small";
      open.href = pull.from;
      open.textContent = "Open it";
      line.append(open, " ");
    }
    const forget = document.createElement("button");
    forget.className = "btn small";
    forget.type = "button";
    forget.textContent = "Forget it";
    forget.addEventListener("click", async () => {
      await drop(pull);
      changed();
    });
    line.append(forget);
    return line;
  }
  async function show() {
    const place = document.getElementById("queue");
    if (!place) return;
    const pulls = await mine();
    const waiting = pulls.filter((pull) => !pull.refused);
    const refused = pulls.filter((pull) => pull.refused);
    place.hidden = !pulls.length;
    const say = (name, words) => (place.querySelector(name).textContent = words);
    const many = waiting.length === 1 ? "1 pull waits" : `${waiting.length} pulls wait`;
    say("[data-waits]", waiting.length ? `${many} on this device. They go by themselves when there is a line.` : "");
    say("[data-refused]", refused.length ? "Not kept, look at each:" : "");
    place.querySelector("ul").replaceChildren(...[...refused, ...waiting].map(row));
    if (stopped && waiting.length) say("[data-waits]", `${many} on this device. ${stopped}`);
  }
  function changed() {
    told.postMessage("changed");
    show();
  }
  told.onmessage = show;

  // A page that was kept has keys that may be used already: each that is shown gets one of its own.
  function freshKeys() {
    for (const form of document.querySelectorAll("form[data-queue]")) form.elements.key.value = crypto.randomUUID();
  }
  document.addEventListener("htmx:afterSettle", freshKeys);
  freshKeys();

  // A pull that meets no house.
  function wordsOf(form, parameters) {
    const heading = document.querySelector("#hand h1")?.textContent.trim().replace(/\s+/g, " ") || "";
    return `${parameters.amount} for ${heading}`;
  }
  document.addEventListener("htmx:afterRequest", async (event) => {
    const { requestConfig, xhr } = event.detail;
    const form = requestConfig?.elt?.closest?.("form[data-queue]");
    if (!form || requestConfig.verb !== "post" || (xhr && xhr.status !== 0 && xhr.status < 500)) return;
    const given = Object.fromEntries(requestConfig.formData);
    delete given.csrfmiddlewaretoken;
    delete given.shown; // what was seen then; the pulls before it are this maker's own
    given.happened_at ||= new Date().toISOString();
    form.elements.key.value = crypto.randomUUID();
    const pull = { url: requestConfig.path, given, words: wordsOf(form, given), hand: given.hand || hand()["X-Hand"] };
    pull.from = form.dataset.queue;
    form.reset();
    await put(pull);
    changed();
  });

  // Away with them.
  let stopped = "";
  async function send(pull) {
    const headers = { "HX-Request": "true", "X-CSRFToken": hand()["X-CSRFToken"], "X-Hand": hand()["X-Hand"] };
    const body = new URLSearchParams(pull.given);
    const answer = await fetch(pull.url, { method: "POST", headers, body, redirect: "error" });
    if (answer.ok) await drop(pull);
    else if (answer.status === 401 || answer.status === 403) return "Sign in again, then they go.";
    else if (answer.status >= 500) return "The house does not answer yet.";
    else {
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      const faults = [...page.querySelectorAll(".fault")].map((each) => each.textContent.trim()).filter(Boolean);
      await put({ ...pull, refused: faults.join(" ") || "The house did not take it." });
    }
    return "";
  }
  // What is being written stays: the next press brings the page.
  function isWritten(hand) {
    return [...hand.querySelectorAll("input, textarea")].some((field) => field.value !== field.defaultValue);
  }
  async function away() {
    let sent = 0;
    await navigator.locks.request("wembit-queue", { ifAvailable: true }, async (lock) => {
      if (!lock) return;
      for (;;) {
        const next = (await mine()).find((pull) => !pull.refused);
        if (!next) break;
        try {
          stopped = await send(next);
        } catch {
          stopped = "";
          break;
        }
        if (stopped) break;
        sent += 1;
      }
    });
    if (!sent) return show();
    changed();
    const here = document.querySelector("#hand [data-here]")?.dataset.here;
    if (here && !isWritten(document.getElementById("hand"))) htmx.ajax("GET", here, "#hand");
    htmx.trigger(document.body, "pressed");
  }
  window.addEventListener("online", away);
  setInterval(async () => {
    if ((await mine()).some((pull) => !pull.refused)) away();
  }, AGAIN_MS);

  // What can be opened from here opens without a line, too.
  const later = (ms) => new Promise((done) => setTimeout(done, ms));
  async function fetchAhead() {
    const links = [...document.querySelectorAll("#hand a[hx-get], [data-ahead] a.pick")];
    const addresses = [...new Set(links.map((link) => link.getAttribute("hx-get") || link.getAttribute("href")))];
    for (const address of addresses.slice(0, MOST_AHEAD)) {
      await later(PACE_MS);
      const headers = links.some((link) => link.getAttribute("hx-get") === address) ? { "HX-Request": "true" } : {};
      await fetch(address, { headers, priority: "low" }).catch(() => null);
    }
  }
  async function standBy() {
    if (!("serviceWorker" in navigator)) return;
    const { worker } = document.getElementById("queue").dataset;
    const first = !navigator.serviceWorker.controller;
    await navigator.serviceWorker.register(worker);
    await navigator.serviceWorker.ready;
    if (!navigator.serviceWorker.controller) {
      const taken = (done) => navigator.serviceWorker.addEventListener("controllerchange", done, { once: true });
      await new Promise(taken);
    }
    // The page itself came before its keeper; without parts that are in the browser's own store it would stand bare.
    if (first) {
      const parts = performance.getEntriesByType("resource").map((each) => each.name);
      const own = parts.filter((name) => new URL(name).pathname.startsWith("/static/"));
      await Promise.all([location.href, ...own].map((name) => fetch(name).catch(() => null)));
    }
    if (!sessionStorage[`ahead ${location.pathname}`]) {
      await fetchAhead();
      sessionStorage[`ahead ${location.pathname}`] = "1";
    }
  }
  window.addEventListener("load", () => {
    show();
    away();
    standBy().catch(() => null);
  });
})();
