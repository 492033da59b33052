// The scale at the bench. The browser reads its bridge itself; a steady weight goes into the field, and a press takes it.
//
// What counts are the weights at which it stood still. From nothing to a weight: a tuft was laid on, it weighs that, or a bag,
// where it weighs far more than is asked for. From a weight to a smaller one: something was taken out of the bag, the
// difference. Down to nothing: all was taken off, what was found before stays. The field follows until somebody writes in it.
(() => {
  const NOTHING = 0.02; // g
  const HEARD = 3000; // ms without a word after which the scale is not there
  const KEPT = "wembit-listens";
  const words = { overload: "too heavy", unplugged: "no power", odd: "says something odd", gone: "not there" };
  let [source, stood, found, silence, last] = [null, null, null, 0, null];

  const root = () => document.querySelector("[data-scale]");
  const field = () => root()?.closest("form").querySelector("[name=amount]");
  // Where a guess comes first, the weight is not shown before it is made.
  const hidden = () => {
    const guess = root()?.closest("form").querySelector("[name=guessed]");
    return Boolean(guess) && !guess.value.trim();
  };
  const understood = (text) => {
    try {
      const said = JSON.parse(text);
      const weighs = said.grams === null || (Number.isFinite(said.grams) && Math.abs(said.grams) <= 1e5);
      return weighs && typeof said.stable === "boolean" && ["ok", "overload", "unplugged"].includes(said.state) ? said : null;
    } catch {
      return null;
    }
  };
  const shown = (grams) => `${grams.toFixed(2)} g`;

  const show = (weight, state) => {
    const here = root();
    if (!here) return;
    const [shows, told] = [here.querySelector("[data-shows]"), here.querySelector("[data-state]")];
    shows.textContent = hidden() ? "?" : weight;
    if (hidden()) state = "guess first";
    if (told.textContent !== state) told.textContent = state;
  };

  const write = () => {
    const [here, amount] = [root(), field()];
    if (!here || !amount || !found || hidden() || document.activeElement === amount || amount.dataset.byHand) return;
    const text = found.grams.toFixed(2) + (here.dataset.unit === "g" ? "" : " g");
    here.querySelector("[name=reading]").value = JSON.stringify(found.reading);
    if (amount.dataset.scaled === text) return;
    [amount.value, amount.dataset.scaled] = [text, text];
    amount.dispatchEvent(new CustomEvent("input", { bubbles: true, detail: "scale" }));
  };

  const stands = (reading) => {
    const now = reading.grams;
    const before = stood;
    stood = now;
    if (now < NOTHING && (before === null || before >= NOTHING)) return;
    const fell = before !== null && before - now >= NOTHING && now >= NOTHING;
    const rose = before === null || now - before >= NOTHING;
    if (fell) found = { grams: before - now, reading, words: `${shown(before - now)} out of the bag` };
    else if (rose && now > Number(root()?.dataset.most)) found = null;
    else if (rose) found = { grams: now, reading, words: "steady" };
  };

  const hear = (event) => {
    const reading = understood(event.data);
    clearTimeout(silence);
    silence = setTimeout(gone, HEARD);
    last = reading;
    if (!reading || reading.state !== "ok" || reading.grams === null) {
      [stood, found] = [null, null];
      forget();
      return show("–", words[reading ? reading.state : "odd"]);
    }
    if (reading.stable) stands(reading);
    else if (stood !== null && Math.abs(reading.grams - stood) >= NOTHING) forget();
    const told = reading.stable ? standing(reading.grams) : "…";
    show(shown(reading.grams), told);
    if (reading.stable) write();
  };
  const standing = (grams) => {
    if (grams < NOTHING) return "empty";
    return found ? found.words : "take out of the bag what you need";
  };
  const forget = () => {
    const kept = root()?.querySelector("[name=reading]");
    if (kept) kept.value = "";
  };
  const gone = () => {
    [stood, found] = [null, null];
    forget();
    show("–", words.gone);
  };

  const listen = () => {
    const here = root();
    if (!here) return;
    const on = localStorage.getItem(KEPT) === "1";
    here.classList.toggle("listening", on);
    here.querySelector("[data-listen]").setAttribute("aria-pressed", on);
    here.querySelector("[data-listen]").textContent = on ? "Do not listen" : "Listen to the scale";
    here.querySelector(".shows").hidden = here.querySelector("[data-zero]").hidden = !on;
    if (on && !source) {
      source = new EventSource(`${here.dataset.scale}/readings`);
      source.onmessage = hear;
      source.onerror = gone;
    } else if (!on && source) {
      source.close();
      clearTimeout(silence);
      [source, stood, found] = [null, null, null];
      forget();
    }
    if (on && last && last.state === "ok") show(shown(last.grams), last.stable ? "steady" : "…");
  };

  document.addEventListener("click", (event) => {
    if (event.target.closest("[data-listen]")) {
      localStorage.setItem(KEPT, localStorage.getItem(KEPT) === "1" ? "0" : "1");
      listen();
    } else if (event.target.closest("[data-zero]")) {
      [stood, found] = [null, null];
      fetch(`${root().dataset.scale}/tare`, { method: "POST" }).catch(gone);
    }
  });
  document.addEventListener("input", (event) => {
    const amount = field();
    if (event.target !== amount || event.detail === "scale") return;
    amount.dataset.byHand = "1";
    forget();
  });
  document.addEventListener("htmx:afterRequest", (event) => {
    const { successful, requestConfig } = event.detail;
    if (successful && requestConfig.verb === "post") found = null; // taken: the next difference is another pull
  });
  document.addEventListener("htmx:afterSettle", (event) => {
    if (!event.detail.target.querySelector("[data-scale]")) return;
    listen();
    if (last?.stable) write();
  });
  listen();
})();
