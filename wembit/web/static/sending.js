// What is on its way to the house: said while it goes, said when it does not go, tried again, and not left behind.
(() => {
  const AGAIN_MS = [2000, 4000, 8000, 15000, 30000];
  const waiting = new Map(); // the node that pressed, with its timer
  let going = 0;

  const isPress = (config) => config && config.verb !== "get";
  const line = () => document.getElementById("saving");

  function say(words) {
    if (line()) line().textContent = words;
  }

  // Where the eye is: under the button that was pressed, else at the end of the form.
  function beside(node, words) {
    const form = node.closest("form") || node;
    let said = form.querySelector(".unsent");
    if (!said) {
      said = document.createElement("p");
      said.className = "unsent fault";
      said.setAttribute("role", "alert");
      const button = node.matches("button") ? node : form.querySelector("button:not([hidden])");
      if (button) button.after(said);
      else form.append(said);
    }
    said.textContent = words;
  }

  function settle(node) {
    const form = node.closest("form") || node;
    const said = form.querySelector(".unsent");
    if (said) said.remove();
    const known = waiting.get(node);
    if (known) clearTimeout(known.timer);
    waiting.delete(node);
  }

  // Sent again only where a second arrival does no harm: with the key of its press, or where it says how things are to be.
  function later(node, press) {
    const tries = (waiting.get(node) || { tries: 0 }).tries;
    const timer = setTimeout(press, AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)]);
    waiting.set(node, { timer, press, tries: tries + 1 });
    beside(node, "Not kept yet: no answer. It stays here and is sent again by itself.");
    say("not kept yet");
  }

  document.addEventListener("htmx:beforeRequest", (event) => {
    if (!isPress(event.detail.requestConfig)) return;
    const old = document.querySelector(".said");
    if (old) old.remove();
    going += 1;
    say("saving …");
  });

  document.addEventListener("htmx:afterRequest", (event) => {
    const { requestConfig, xhr } = event.detail;
    if (!isPress(requestConfig)) return;
    const elt = requestConfig.elt; // the event's own may be what stands in its place by now
    going = Math.max(0, going - 1);
    const status = xhr ? xhr.status : 0;
    const form = elt.closest("form");
    if ((status === 0 || status >= 500) && !(form && (form.elements.key || form.matches("[hx-trigger]")))) {
      if (form) beside(elt, "Not kept: no answer. Look whether it was done, then press again.");
      say("not kept: no answer");
    } else if ((status === 0 || status >= 500) && form && form.matches("[data-queue]")) {
      say("kept on this device"); // queueing.js sends it
    } else if (status === 0 || status >= 500) {
      const press = () => {
        if (!elt.isConnected) settle(elt);
        else if (elt.matches("form")) elt.requestSubmit();
        else elt.click();
      };
      later(elt, press);
    } else if (status === 409) {
      beside(elt, `Not kept: ${xhr.responseText} Load the page anew for it.`);
      say("not kept");
    } else if (status === 403) {
      beside(elt, "Not kept: this page is not let in any more. What you entered is still here; sign in again in another tab.");
      say("not kept");
    } else {
      settle(elt);
      if (!going && !waiting.size) say(status === 422 ? "" : "saved");
    }
  });

  // A second click while the first is on its way is no second press; sizes go one after the other by themselves.
  document.addEventListener("htmx:beforeRequest", (event) => {
    const form = event.detail.requestConfig.elt;
    if (!isPress(event.detail.requestConfig) || !form.matches("form:not([hx-trigger])")) return;
    if (form.dataset.going) event.preventDefault();
    form.dataset.going = "1";
  });
  document.addEventListener("htmx:afterRequest", (event) => {
    const form = event.detail.requestConfig.elt;
    if (form.dataset) delete form.dataset.going;
  });

  // Of a part or a layer only what was changed on this page is sent, so that a page left open brings nothing old back; what
  // was refused, or was changed and is changed back, is sent once more as it stands.
  const TOGETHER = { pitch: "yaw", yaw: "pitch" }; // one is read with the other
  const asDrawn = (field) =>
    field.matches("select")
      ? field.value === (field.querySelector("option[selected]") || field.options[0]).value
      : field.value === field.defaultValue;
  document.addEventListener("htmx:configRequest", (event) => {
    const form = event.detail.elt;
    if (!form.matches("form[data-changes]")) return;
    for (const field of form.querySelectorAll("input:not([type=hidden], [type=checkbox]), select")) {
      const partner = form.elements[TOGETHER[field.name]];
      const changed = !asDrawn(field) || (partner && !asDrawn(partner)) || field.closest(".faulty");
      if (changed) field.dataset.changed = "1";
      if (!field.dataset.changed) delete event.detail.parameters[field.name];
    }
  });

  window.addEventListener("online", () =>
    waiting.forEach(({ press, timer }) => {
      clearTimeout(timer);
      press();
    }),
  );

  // A form that leaves the page would only meet the browser's own page without a line: it waits here instead.
  document.addEventListener("submit", (event) => {
    const form = event.target;
    if (navigator.onLine || form.method !== "post" || form.hasAttribute("hx-post")) return;
    event.preventDefault();
    const button = event.submitter;
    waiting.set(form, { press: () => form.requestSubmit(button), timer: 0, tries: 0 });
    beside(button || form, "Not kept yet: no line. It stays here and is sent when there is one.");
  });

  // Who signs out leaves no page of the bench on the device.
  document.addEventListener("submit", (event) => {
    if (event.target.getAttribute("action")?.includes("sign-out")) window.caches?.delete("bench-pages");
  });

  // A second click on a button whose press is on its way is no second press.
  document.addEventListener("submit", (event) => {
    const form = event.target;
    if (event.defaultPrevented || form.method !== "post" || form.hasAttribute("hx-post")) return;
    if (form.dataset.sent) {
      event.preventDefault();
      return;
    }
    form.dataset.sent = "1";
    setTimeout(() => delete form.dataset.sent, 5000); // where the answer is a file, the page stays
  });
  window.addEventListener("pageshow", () => {
    for (const form of document.querySelectorAll("form[data-sent]")) delete form.dataset.sent;
  });

  // A field whose change goes out by itself, left while it is still being typed into.
  function unsent() {
    const field = document.activeElement;
    const typing = field && field.matches("form[hx-trigger] input:not([type=checkbox])") && field.dataset.typed;
    return going > 0 || waiting.size > 0 || Boolean(typing);
  }
  document.addEventListener("input", (event) => {
    event.target.dataset.typed = "1";
  });
  document.addEventListener("change", (event) => {
    delete event.target.dataset.typed;
  });
  window.addEventListener("beforeunload", (event) => {
    if (unsent()) event.preventDefault();
  });
})();
